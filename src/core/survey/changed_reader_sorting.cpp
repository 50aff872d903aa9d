// What was walked, divided into unchanged, moved and to be read: another part of changed_reader.h.
#include "core/base/inner_path.h"
#include "core/base/text.h"
#include "core/survey/changed_reader.h"

#include <algorithm>

namespace sober {

bool ChangedReader::unchanged(const FileStamp& now, const RememberedFile& before) const {
    return now.size == before.size && now.mtime == before.mtime &&
           (!lastingInodes_ || (now.ctime == before.ctime && now.inode == before.inode));
}

bool ChangedReader::wantsEvidence(const RememberedFile& before) const {
    return efforts_.isFull(before.path) && !before.examined;
}

void ChangedReader::sortOut() {
    met_.assign(remembered_.size(), false);
    std::vector<WalkedFile*> fresh;
    rememberInside();
    for (auto& file : walk_.files) {
        if (isInsideArchive(file.path)) {
            const auto path = joinPath(volume_.root, file.path);
            addError(path, displayPath(path) +
                               " is in a folder that is called like the inside of an archive, "
                               "and was not read. Rename the folder.");
            walk_.unlisted.push_back(file.path);
            continue;
        }
        const auto found = remembered_.at(file.path);
        if (volume_.choices.lookInside && isArchiveName(file.path) &&
            (!found || remembered_[*found].id == 0)) {
            sortOutArchive(file);
            continue;
        }
        if (!found) {
            fresh.push_back(&file);
            continue;
        }
        met_[*found] = true;
        const auto& before = remembered_[*found];
        if (before.id == 0 && unchanged(file.stamp, before)) {
            notePassedOver(before.path, remembered_.sentenceOf(before));
        } else if (before.id != 0 &&
                   (before.state == HoldingState::present || before.state == HoldingState::leftOut) &&
                   unchanged(file.stamp, before) && !wantsEvidence(before)) {
            ++report_.seen;
            ++report_.unchanged;
            if (before.state == HoldingState::leftOut) {
                writer_.restamp(before.id, before.path, file.stamp, {}, {});
            }
            if (before.sentence != 0) {
                addError(joinPath(volume_.root, before.path), remembered_.sentenceOf(before));
            }
        } else {
            jobs_.push_back({&file, &before});
        }
    }
    findGone();
    for (auto* file : fresh) {
        if (!takeAsMovedByInode(*file)) {
            jobs_.push_back({file, nullptr});
        }
    }
    if (jobs_.empty()) {
        walk_.files = {};
    }
}

void ChangedReader::findGone() {
    for (std::size_t i = 0; i < remembered_.size(); ++i) {
        const auto& before = remembered_[i];
        if (!met_[i] && before.id != 0 && before.state != HoldingState::leftOut &&
            !couldNotBeSeen(before.path)) {
            const auto inner = innerPathOf(before.path);
            if (!inner) {
                goneByInode_.emplace(before.inode, i); // else it is its archive's
            }
            if (!inner || !lookedInto_.contains(inner->archive)) {
                gone_.push_back(i);
            }
        }
    }
}

bool ChangedReader::couldNotBeSeen(const BytePath& path) const {
    return std::ranges::any_of(
        walk_.unlisted, [&](const BytePath& folder) { return folder.empty() || isWithin(path, folder); });
}

bool ChangedReader::takeAsMovedByInode(const WalkedFile& file) {
    if (!lastingInodes_) {
        return false;
    }
    const auto [first, last] = goneByInode_.equal_range(file.stamp.inode);
    for (auto it = first; it != last; ++it) {
        const auto& before = remembered_[it->second];
        if (before.size == file.stamp.size && before.mtime == file.stamp.mtime && !wantsEvidence(before)) {
            writer_.restamp(before.id, file.path, file.stamp, "moved", before.path);
            met_[it->second] = true;
            goneByInode_.erase(it);
            ++report_.moved;
            ++report_.seen;
            return true;
        }
    }
    return false;
}

Outcome ChangedReader::loadGoneChecksums() {
    std::vector<HoldingId> wanted;
    for (const auto index : gone_) {
        wanted.push_back(remembered_[index].id);
    }
    for (const auto& job : jobs_) {
        if (job.before != nullptr && job.before->id != 0) {
            wanted.push_back(job.before->id);
        }
        if (job.isArchive) {
            for (const auto index : inside_[job.file->path]) {
                wanted.push_back(remembered_[index].id);
            }
        }
    }
    const auto known = checksumsOf(catalogue_, wanted);
    RETURN_IF_FAILED(known);
    checksums_ = *known;
    for (const auto index : gone_) {
        if (met_[index]) {
            continue; // moved by inode
        }
        if (const auto found = checksums_.find(remembered_[index].id); found != checksums_.end()) {
            goneByChecksum_.emplace(found->second, index);
        }
    }
    return done();
}

} // namespace sober
