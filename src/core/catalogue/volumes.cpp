#include "core/catalogue/volumes.h"

#include "core/base/text.h"
#include "core/catalogue/guarded.h"
#include "core/catalogue/kept_statement.h"

#include <algorithm>

namespace sober {
namespace {

std::string joinedLines(const std::vector<std::string>& lines) {
    std::string all;
    for (const auto& line : lines) {
        all += (all.empty() ? "" : "\n") + line;
    }
    return all;
}

std::vector<std::string> splitLines(const std::string& all) {
    std::vector<std::string> lines;
    std::size_t at = 0;
    while (at < all.size()) {
        const auto end = std::min(all.find('\n', at), all.size());
        lines.push_back(all.substr(at, end - at));
        at = end + 1;
    }
    return lines;
}

Volume volumeFrom(SQLite::Statement& row) {
    Volume volume;
    volume.id = row.getColumn(0).getInt64();
    volume.label = row.getColumn(1).getString();
    volume.root = bytesOf(row.getColumn(2));
    volume.identity = {row.getColumn(3).getString(), bytesOf(row.getColumn(4)),
                       static_cast<std::uint64_t>(row.getColumn(5).getInt64()), row.getColumn(6).getString()};
    volume.choices.leaveHidden = row.getColumn(7).getInt() != 0;
    volume.choices.leavePatterns = splitLines(row.getColumn(8).getString());
    volume.choices.minSize = static_cast<std::uint64_t>(row.getColumn(9).getInt64());
    volume.choices.maxSize = static_cast<std::uint64_t>(row.getColumn(10).getInt64());
    volume.choices.maxDepth = row.getColumn(11).getInt();
    volume.choices.followLinks = row.getColumn(12).getInt() != 0;
    volume.effort = static_cast<Effort>(row.getColumn(13).getInt());
    volume.atHand = row.getColumn(14).getInt() != 0;
    volume.capacity = static_cast<std::uint64_t>(row.getColumn(15).getInt64());
    volume.available = static_cast<std::uint64_t>(row.getColumn(16).getInt64());
    volume.surveyedAt = row.getColumn(17).getInt64();
    volume.awaySince = row.getColumn(18).getInt64();
    volume.choices.lookInside = row.getColumn(19).getInt() != 0;
    volume.choices.keepExcerpts = row.getColumn(20).getInt() != 0;
    return volume;
}

void bindVolume(SQLite::Statement& statement, const Volume& volume) {
    statement.bind(1, volume.label);
    bindBytes(statement, 2, volume.root);
    statement.bind(3, volume.identity.filesystem);
    bindBytes(statement, 4, volume.identity.within);
    statement.bind(5, static_cast<std::int64_t>(volume.identity.rootInode));
    statement.bind(6, volume.identity.filesystemType);
    statement.bind(7, volume.choices.leaveHidden ? 1 : 0);
    statement.bind(8, joinedLines(volume.choices.leavePatterns));
    statement.bind(9, static_cast<std::int64_t>(volume.choices.minSize));
    statement.bind(10, static_cast<std::int64_t>(volume.choices.maxSize));
    statement.bind(11, volume.choices.maxDepth);
    statement.bind(12, volume.choices.followLinks ? 1 : 0);
    statement.bind(13, static_cast<int>(volume.effort));
    statement.bind(14, volume.atHand ? 1 : 0);
    statement.bind(15, static_cast<std::int64_t>(volume.capacity));
    statement.bind(16, static_cast<std::int64_t>(volume.available));
    statement.bind(17, volume.surveyedAt);
    statement.bind(18, volume.choices.lookInside ? 1 : 0);
    statement.bind(19, volume.choices.keepExcerpts ? 1 : 0);
}

bool labelInUse(SQLite::Database& database, const std::string& label) {
    SQLite::Statement ask(database, "SELECT 1 FROM volumes WHERE label = ?");
    ask.bind(1, label);
    return ask.executeStep();
}

} // namespace

Result<std::vector<Volume>> Volumes::all() const {
    return guarded(catalogue_, [&] {
        const KeptStatement ask(
            catalogue_,
            "SELECT id, label, root, filesystem, within, root_inode, filesystem_type, leave_hidden, "
            "leave_patterns, min_size, max_size, max_depth, follow_links, effort, at_hand, capacity, "
            "available, surveyed_at, away_since, look_inside, keep_excerpts FROM volumes WHERE forgotten = 0 "
            "ORDER BY "
            "label");
        std::vector<Volume> volumes;
        while (ask->executeStep()) {
            volumes.push_back(volumeFrom(*ask));
        }
        const KeptStatement away(catalogue_, "SELECT path FROM inner_mounts WHERE volume = ? AND away = 1");
        for (auto& volume : volumes) {
            away->bind(1, volume.id);
            while (away->executeStep()) {
                volume.awayWithin.push_back(bytesOf(away->getColumn(0)));
            }
            away->reset();
        }
        return volumes;
    });
}

Result<std::vector<Volumes::InnerMount>> Volumes::innerMounts(VolumeId volume) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              "SELECT path, filesystem, filesystem_type, root_inode, away "
                              "FROM inner_mounts WHERE volume = ? ORDER BY path");
        ask.bind(1, volume);
        std::vector<InnerMount> mounts;
        while (ask.executeStep()) {
            mounts.push_back({bytesOf(ask.getColumn(0)),
                              {ask.getColumn(1).getString(),
                               {},
                               static_cast<std::uint64_t>(ask.getColumn(3).getInt64()),
                               ask.getColumn(2).getString()},
                              ask.getColumn(4).getInt() != 0});
        }
        return mounts;
    });
}

Outcome Volumes::setInnerMounts(VolumeId volume, std::span<const InnerMount> mounts) const {
    return guarded(catalogue_, [&] {
        WritingTransaction transaction(catalogue_.database());
        SQLite::Statement clear(catalogue_.database(), "DELETE FROM inner_mounts WHERE volume = ?");
        clear.bind(1, volume);
        clear.exec();
        SQLite::Statement write(
            catalogue_.database(),
            "INSERT INTO inner_mounts(volume, path, filesystem, filesystem_type, root_inode, "
            "away) VALUES(?,?,?,?,?,?)");
        for (const auto& mount : mounts) {
            write.bind(1, volume);
            bindBytes(write, 2, mount.path);
            write.bind(3, mount.identity.filesystem);
            write.bind(4, mount.identity.filesystemType);
            write.bind(5, static_cast<std::int64_t>(mount.identity.rootInode));
            write.bind(6, mount.away ? 1 : 0);
            write.exec();
            write.reset();
        }
        transaction.commit();
    });
}

Result<Volume> Volumes::add(Volume volume) const {
    return guarded(catalogue_, [&] {
        auto& database = catalogue_.database();
        const std::string wanted = volume.label;
        for (int number = 2; labelInUse(database, volume.label); ++number) {
            volume.label = wanted + " " + std::to_string(number);
        }
        SQLite::Statement insert(
            database,
            "INSERT INTO volumes(label, root, filesystem, within, root_inode, filesystem_type, leave_hidden, "
            "leave_patterns, min_size, max_size, max_depth, follow_links, effort, at_hand, capacity, "
            "available, surveyed_at, look_inside, keep_excerpts) "
            "VALUES(?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?)");
        bindVolume(insert, volume);
        insert.exec();
        volume.id = database.getLastInsertRowid();
        return volume;
    });
}

Outcome Volumes::update(const Volume& volume) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement change(
            catalogue_.database(),
            "UPDATE volumes SET label=?, root=?, filesystem=?, within=?, root_inode=?, filesystem_type=?, "
            "leave_hidden=?, leave_patterns=?, min_size=?, max_size=?, max_depth=?, follow_links=?, "
            "effort=?, "
            "at_hand=?, capacity=?, available=?, surveyed_at=?, look_inside=?, keep_excerpts=?, "
            // What it was before decides when it went away.
            "away_since=CASE WHEN ? THEN 0 WHEN at_hand THEN ? ELSE away_since END WHERE id=?");
        bindVolume(change, volume);
        change.bind(20, volume.atHand ? 1 : 0);
        change.bind(21, timeNow());
        change.bind(22, volume.id);
        change.exec();
    });
}

Outcome Volumes::relabel(const Volume& volume, const std::string& label) const {
    const auto wanted = std::string(trimmed(label));
    if (wanted.empty() || !isUtf8(wanted) || wanted.find_first_of("\n\r\t") != std::string::npos) {
        return Error{Cause::invalid, volume.root, "A volume needs a label: one line of text."};
    }
    return guarded(catalogue_, [&]() -> Outcome {
        if (wanted != volume.label && labelInUse(catalogue_.database(), wanted)) {
            return Error{Cause::alreadyThere, volume.root,
                         "Another volume is called " + wanted + " already."};
        }
        SQLite::Statement change(catalogue_.database(), "UPDATE volumes SET label = ? WHERE id = ?");
        change.bind(1, wanted);
        change.bind(2, volume.id);
        change.exec();
        return done();
    });
}

Result<const Volume*> volumeHolding(std::span<const Volume> volumes, const BytePath& path) {
    const auto volume = std::ranges::find_if(volumes, [&](const Volume& each) {
        const auto within = relativeTo(path, each.root);
        return within && each.reaches(*within);
    });
    if (volume == volumes.end()) {
        return Error{Cause::notFound, path,
                     displayPath(path) + " is on no volume that is catalogued and at hand. Survey it first."};
    }
    return &*volume;
}

} // namespace sober
