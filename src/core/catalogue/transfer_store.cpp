#include "core/catalogue/transfer_store.h"

#include "core/catalogue/guarded.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>

namespace sober {
namespace {

constexpr std::array<std::string_view, 5> stateWords{"planned", "running", "copied", "proven", "released"};
constexpr std::array<std::string_view, 3> modeWords{"copy", "reorder", "steps"};
constexpr std::array<std::string_view, 4> itemWords{"waits", "copied", "there", "failed"};
struct LeftWords {
    std::string_view word;
    std::string_view sentence;
};
constexpr std::array<LeftWords, 10> leftWords{
    {{"away", "its volume is away"},
     {"missing", "it is missing"},
     {"stream", "it is no local file"},
     {"not-catalogued", "it is on no volume; survey its folder"},
     {"too-large", "it is larger than the target can hold"},
     {"unsound", "it does not decode whole, so it is not encoded"},
     {"other-volume", "it lies on another volume"},
     {"too-many", "its folder would hold more than the target can"},
     {"inside-archive", "it lies inside an archive; copy it out first"},
     {"path-too-long", "its folders leave its name no room in the longest path that the player reads"}}};

template <typename Words, typename Value>
auto at(const Words& words, Value value) {
    return words[static_cast<std::size_t>(value)];
}

constexpr const char* select =
    "SELECT t.id, t.made, t.state, t.mode, t.volume, t.folder, t.rules, t.layout, t.choice, "
    "t.in_no_list, t.needs, t.peak, t.free, t.filesystem, t.proven, t.report, v.root FROM transfers t LEFT "
    "JOIN volumes v ON v.id = t.volume ";

std::uint64_t countOf(const SQLite::Column& column) {
    return static_cast<std::uint64_t>(column.getInt64());
}

Transfer transferFrom(SQLite::Statement& row) {
    Transfer transfer;
    transfer.id = row.getColumn(0).getInt64();
    transfer.made = row.getColumn(1).getInt64();
    transfer.state = static_cast<TransferState>(row.getColumn(2).getInt());
    transfer.mode = static_cast<TransferMode>(row.getColumn(3).getInt());
    transfer.volume = row.getColumn(4).getInt64();
    transfer.folder = bytesOf(row.getColumn(5));
    if (transfer.volume != 0) {
        transfer.folder = joinPath(bytesOf(row.getColumn(16)), transfer.folder);
    }
    transfer.rules = row.getColumn(6).getString();
    transfer.layout = row.getColumn(7).getString();
    transfer.choice = row.getColumn(8).getString();
    transfer.inNoList = countOf(row.getColumn(9));
    transfer.needs = countOf(row.getColumn(10));
    transfer.peak = countOf(row.getColumn(11));
    transfer.free = countOf(row.getColumn(12));
    transfer.filesystem = row.getColumn(13).getString();
    transfer.proven = row.getColumn(14).getInt64();
    transfer.report = bytesOf(row.getColumn(15));
    return transfer;
}

std::vector<Transfer> transfersFrom(SQLite::Statement& ask) {
    std::vector<Transfer> transfers;
    while (ask.executeStep()) {
        transfers.push_back(transferFrom(ask));
    }
    return transfers;
}

void addItems(SQLite::Database& database, TransferId id, std::span<const TransferItem> items) {
    SQLite::Statement insert(
        database, "INSERT INTO transfer_items(transfer, item, source, xxh3, target, bytes, altered, "
                  "form, state, error) VALUES(?,?,?,?,?,?,?,?,?,?)");
    for (std::size_t i = 0; i < items.size(); ++i) {
        const auto& item = items[i];
        insert.bind(1, id);
        insert.bind(2, static_cast<std::int64_t>(i));
        insert.bind(3, item.source);
        bindBytes(insert, 4, item.content);
        bindBytes(insert, 5, item.target);
        insert.bind(6, static_cast<std::int64_t>(item.bytes));
        insert.bind(7, item.altered);
        insert.bind(8, item.form);
        insert.bind(9, static_cast<int>(item.state));
        insert.bind(10, item.error);
        insert.exec();
        insert.reset();
    }
}

void addLeft(SQLite::Database& database, TransferId id, std::span<const NotComing> left) {
    SQLite::Statement insert(database,
                             "INSERT INTO transfer_left(transfer, number, reference, why) VALUES(?,?,?,?)");
    for (std::size_t i = 0; i < left.size(); ++i) {
        insert.bind(1, id);
        insert.bind(2, static_cast<std::int64_t>(i));
        bindBytes(insert, 3, left[i].reference);
        insert.bind(4, static_cast<int>(left[i].why));
        insert.exec();
        insert.reset();
    }
}

void addLists(SQLite::Database& database, TransferId id, std::span<const TransferList> lists) {
    SQLite::Statement insert(database,
                             "INSERT INTO transfer_lists(transfer, number, source, target, entries, coming, "
                             "content, prefix, source_xxh3) VALUES(?,?,?,?,?,?,?,?,?)");
    for (std::size_t i = 0; i < lists.size(); ++i) {
        const auto& list = lists[i];
        insert.bind(1, id);
        insert.bind(2, static_cast<std::int64_t>(i));
        bindBytes(insert, 3, list.source);
        bindBytes(insert, 4, list.target);
        insert.bind(5, static_cast<std::int64_t>(list.entries));
        insert.bind(6, static_cast<std::int64_t>(list.coming));
        bindBytes(insert, 7, list.content);
        bindBytes(insert, 8, list.prefix);
        if (list.sourceContent) {
            bindBytes(insert, 9, *list.sourceContent);
        } else {
            insert.bind(9);
        }
        insert.exec();
        insert.reset();
    }
}

} // namespace

std::string_view word(TransferState state) {
    return at(stateWords, state);
}
std::string_view word(TransferMode mode) {
    return at(modeWords, mode);
}
std::string_view word(ItemState state) {
    return at(itemWords, state);
}
std::string_view word(LeftBehind why) {
    return at(leftWords, why).word;
}
std::string_view sentenceOf(LeftBehind why) {
    return at(leftWords, why).sentence;
}

std::optional<TransferMode> transferModeOf(std::string_view word) {
    const auto found = std::ranges::find(modeWords, word);
    return found == modeWords.end() ? std::nullopt
                                    : std::optional(static_cast<TransferMode>(found - modeWords.begin()));
}

Result<TransferId> TransferStore::add(const Transfer& transfer, std::span<const TransferItem> items,
                                      std::span<const NotComing> left,
                                      std::span<const TransferList> lists) const {
    return guarded(catalogue_, [&] {
        auto& database = catalogue_.database();
        WritingTransaction transaction(database);
        SQLite::Statement insert(
            database, "INSERT INTO transfers(made, state, mode, volume, folder, rules, layout, choice, "
                      "in_no_list, needs, peak, free, filesystem) VALUES(?,?,?,?,?,?,?,?,?,?,?,?,?)");
        insert.bind(1, transfer.made);
        insert.bind(2, static_cast<int>(transfer.state));
        insert.bind(3, static_cast<int>(transfer.mode));
        bindId(insert, 4, 0);
        bindBytes(insert, 5, transfer.folder);
        insert.bind(6, transfer.rules);
        insert.bind(7, transfer.layout);
        insert.bind(8, transfer.choice);
        insert.bind(9, static_cast<std::int64_t>(transfer.inNoList));
        insert.bind(10, static_cast<std::int64_t>(transfer.needs));
        insert.bind(11, static_cast<std::int64_t>(transfer.peak));
        insert.bind(12, static_cast<std::int64_t>(transfer.free));
        insert.bind(13, transfer.filesystem);
        insert.exec();
        auto kept = transfer;
        kept.id = database.getLastInsertRowid();
        addItems(database, kept.id, items);
        addLeft(database, kept.id, left);
        addLists(database, kept.id, lists);
        if (const auto updated = update(kept); !updated) {
            return Result<TransferId>(updated.error());
        }
        transaction.commit();
        return Result<TransferId>(kept.id);
    });
}

Result<std::vector<Transfer>> TransferStore::all() const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(), std::string(select) + "ORDER BY t.id DESC");
        return transfersFrom(ask);
    });
}

Result<Transfer> TransferStore::of(TransferId id) const {
    return guarded(catalogue_, [&]() -> Result<Transfer> {
        SQLite::Statement ask(catalogue_.database(), std::string(select) + "WHERE t.id = ?");
        ask.bind(1, id);
        if (!ask.executeStep()) {
            return Error{Cause::notFound,
                         {},
                         fmt::format("There is no transfer {}. \"sober transfer list\" names them.", id)};
        }
        return transferFrom(ask);
    });
}

Result<std::vector<TransferItem>> TransferStore::items(TransferId id) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              "SELECT source, xxh3, target, bytes, altered, form, state, error FROM "
                              "transfer_items WHERE transfer = ? ORDER BY item");
        ask.bind(1, id);
        std::vector<TransferItem> items;
        while (ask.executeStep()) {
            items.push_back(
                {ask.getColumn(0).getInt64(), checksumOf(ask.getColumn(1)), bytesOf(ask.getColumn(2)),
                 countOf(ask.getColumn(3)), ask.getColumn(4).getString(), ask.getColumn(5).getString(),
                 static_cast<ItemState>(ask.getColumn(6).getInt()), ask.getColumn(7).getString()});
        }
        return items;
    });
}

Result<std::vector<NotComing>> TransferStore::left(TransferId id) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              "SELECT reference, why FROM transfer_left WHERE transfer = ? ORDER BY number");
        ask.bind(1, id);
        std::vector<NotComing> left;
        while (ask.executeStep()) {
            left.push_back({bytesOf(ask.getColumn(0)), static_cast<LeftBehind>(ask.getColumn(1).getInt())});
        }
        return left;
    });
}

Result<std::vector<TransferList>> TransferStore::lists(TransferId id) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(
            catalogue_.database(),
            "SELECT source, target, entries, coming, content, prefix, source_xxh3, written FROM "
            "transfer_lists WHERE transfer = ? ORDER BY number");
        ask.bind(1, id);
        std::vector<TransferList> lists;
        while (ask.executeStep()) {
            const auto checksum = [&](int column) {
                return ask.getColumn(column).isNull() ? std::nullopt
                                                      : std::optional(checksumOf(ask.getColumn(column)));
            };
            lists.push_back({bytesOf(ask.getColumn(0)), bytesOf(ask.getColumn(1)), countOf(ask.getColumn(2)),
                             countOf(ask.getColumn(3)), bytesOf(ask.getColumn(4)), bytesOf(ask.getColumn(5)),
                             checksum(6), checksum(7)});
        }
        return lists;
    });
}

Result<std::vector<std::optional<Checksum128>>>
TransferStore::standing(const Transfer& transfer, std::span<const TransferItem> items) const {
    return guarded(catalogue_, [&] {
        auto& database = catalogue_.database();
        std::vector<std::optional<Checksum128>> there(items.size());
        SQLite::Statement volume(database, "SELECT root FROM volumes WHERE id = ?");
        volume.bind(1, transfer.volume);
        if (!volume.executeStep()) {
            return there;
        }
        const auto within = relativeTo(transfer.folder, bytesOf(volume.getColumn(0))).value_or(BytePath());
        SQLite::Statement ask(database,
                              "SELECT xxh3 FROM holdings WHERE volume = ? AND path = ? AND state = 0");
        for (std::size_t i = 0; i < items.size(); ++i) {
            ask.bind(1, transfer.volume);
            bindBytes(ask, 2, joinPath(within, items[i].target));
            if (ask.executeStep()) {
                there[i] = checksumOf(ask.getColumn(0));
            }
            ask.reset();
        }
        return there;
    });
}

Outcome TransferStore::update(const Transfer& transfer) const {
    return guarded(catalogue_, [&] {
        auto& database = catalogue_.database();
        BytePath folder = transfer.folder;
        if (transfer.volume != 0) {
            SQLite::Statement ask(database, "SELECT root FROM volumes WHERE id = ?");
            ask.bind(1, transfer.volume);
            folder =
                ask.executeStep() ? relativeTo(folder, bytesOf(ask.getColumn(0))).value_or(folder) : folder;
        }
        SQLite::Statement write(
            database,
            "UPDATE transfers SET state = ?, volume = ?, folder = ?, proven = ?, report = ? WHERE id = ?");
        write.bind(1, static_cast<int>(transfer.state));
        bindId(write, 2, transfer.volume);
        bindBytes(write, 3, folder);
        write.bind(4, transfer.proven);
        bindBytes(write, 5, transfer.report);
        write.bind(6, transfer.id);
        write.exec();
    });
}

Outcome TransferStore::mark(TransferId id, std::span<const ItemMark> marks) const {
    return guarded(catalogue_, [&] {
        auto& database = catalogue_.database();
        WritingTransaction transaction(database);
        SQLite::Statement write(
            database, "UPDATE transfer_items SET state = ?, error = ? WHERE transfer = ? AND item = ?");
        for (const auto& mark : marks) {
            write.bind(1, static_cast<int>(mark.state));
            write.bind(2, mark.error);
            write.bind(3, id);
            write.bind(4, static_cast<std::int64_t>(mark.item));
            write.exec();
            write.reset();
        }
        transaction.commit();
    });
}

Outcome TransferStore::keepList(TransferId id, std::size_t number, const BytePath& target,
                                const Checksum128& written) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement write(
            catalogue_.database(),
            "UPDATE transfer_lists SET target = ?, written = ? WHERE transfer = ? AND number = ?");
        bindBytes(write, 1, target);
        bindBytes(write, 2, written);
        write.bind(3, id);
        write.bind(4, static_cast<std::int64_t>(number));
        write.exec();
    });
}

Result<bool> TransferStore::hasWritten(const BytePath& list, const Checksum128& content) const {
    const auto transfers = all();
    RETURN_IF_FAILED(transfers);
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              "SELECT target FROM transfer_lists WHERE transfer = ? AND written = ?");
        for (const auto& transfer : *transfers) {
            ask.bind(1, transfer.id);
            bindBytes(ask, 2, content);
            while (ask.executeStep()) {
                if (joinPath(transfer.folder, bytesOf(ask.getColumn(0))) == list) {
                    return true;
                }
            }
            ask.reset();
        }
        return false;
    });
}

Outcome TransferStore::remove(TransferId id) const {
    return guarded(catalogue_, [&] {
        auto& database = catalogue_.database();
        WritingTransaction transaction(database);
        for (const char* sql :
             {"DELETE FROM transfer_items WHERE transfer = ?", "DELETE FROM transfer_left WHERE transfer = ?",
              "DELETE FROM transfer_lists WHERE transfer = ?", "DELETE FROM transfers WHERE id = ?"}) {
            SQLite::Statement statement(database, sql);
            statement.bind(1, id);
            statement.exec();
        }
        transaction.commit();
    });
}

} // namespace sober
