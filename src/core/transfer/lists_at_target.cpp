#include "core/transfer/lists_at_target.h"

#include "core/base/presence.h"
#include "core/base/text.h"
#include "core/evidence/checksums.h"

#include <fmt/format.h>

#include <algorithm>
#include <unordered_map>
#include <unordered_set>

namespace sober {
namespace {

class ListWriting {
  public:
    ListWriting(const Catalogue& catalogue, std::span<const TransferItem> items,
                std::span<const Holding> holdings, const TargetPlace& place, const ListWay& way,
                const NameReplacements& replacements)
        : store_(catalogue), items_(items), place_(place), way_(way), replacements_(replacements) {
        for (const auto& item : items) {
            targets_.emplace(item.source, item.target);
            used_.insert(keyOf(item.target));
        }
        for (const auto& holding : holdings) {
            holdings_.emplace(holding.id, &holding);
        }
    }

    Outcome addChosen(const ChosenList& chosen, std::span<const Player> players,
                      std::span<const ListFile> known) {
        const auto read = readList(chosen.path);
        RETURN_IF_FAILED(read);
        std::vector<TargetEntry> entries;
        std::uint64_t coming = 0;
        for (const auto& reference : chosen.entries) {
            const auto target = targets_.find(reference.holding);
            const bool comes = reference.holding != 0 && target != targets_.end();
            coming += comes ? 1 : 0;
            entries.push_back({comes ? std::optional(target->second) : std::nullopt, reference.title,
                               reference.artist, reference.album, reference.seconds});
        }
        const auto [way, relative] = wayOf(chosen.path, *read, players, known);
        const auto format = writtenForm(read->playlist.format, way);
        auto added =
            add(chosen.path, stemOf(nameOf(chosen.path)), listEnding(format), chosen.entries.size(), coming,
                listAtTarget(*read, entries, way, relative, place_.folder), prefixOf(way, relative));
        if (added) {
            lists_.back().sourceContent = checksumOfText(read->text);
        }
        return added;
    }

    Outcome addEverything() {
        std::vector<TargetEntry> entries;
        for (const auto& item : items_) {
            const auto& holding = *holdings_.at(item.source);
            entries.push_back(
                {item.target,
                 holding.tags.title.empty() ? displayPath(stemOf(nameOf(holding.path))) : holding.tags.title,
                 holding.tags.artist, holding.tags.album, holding.claims.duration});
        }
        const auto format = way_.format.value_or(PlaylistFormat::m3u);
        const bool relative = way_.places != ListWay::Places::prefixed;
        return add({}, everythingList, listEnding(format), entries.size(), entries.size(),
                   newList(entries, format, way_, relative, place_.folder), prefixOf(way_, relative));
    }

    Outcome addLeft(std::span<const NotComing> left) {
        std::string text;
        for (const auto& each : left) {
            text += fmt::format("{}: {}\n", displayPath(each.reference), sentenceOf(each.why));
        }
        return add({}, leftBehindList, "txt", left.size(), 0, std::move(text), {});
    }

    std::vector<TransferList> lists() && { return std::move(lists_); }

  private:
    static BytePath prefixOf(const ListWay& way, bool relative) {
        return relative || way.places != ListWay::Places::prefixed ? BytePath() : way.prefix;
    }
    std::string keyOf(const BytePath& path) const { return collisionKey(*place_.rules, path); }

    /// A device that calls a place of its own by another name does so at the target too.
    std::pair<ListWay, bool> wayOf(const BytePath& path, const ReadList& read,
                                   std::span<const Player> players, std::span<const ListFile> known) const {
        auto way = way_;
        if (way.places != ListWay::Places::asSource) {
            return {way, way.places == ListWay::Places::relative};
        }
        if (isMostlyRelative(read.playlist, BytePath(parentOf(path)))) {
            return {way, true};
        }
        const auto list = std::ranges::find(known, path, &ListFile::path);
        const auto context = list != known.end() ? contextOf(*list, players) : ListContext{};
        if (!context.writtenPrefix.empty()) {
            const auto top = place_.volume ? place_.volume->root : place_.folder;
            way.places = ListWay::Places::prefixed;
            way.prefix = joinPath(context.writtenPrefix, relativeTo(place_.folder, top).value_or(BytePath()));
        }
        return {way, false};
    }

    Outcome add(const BytePath& source, std::string_view stem, std::string_view ending, std::uint64_t entries,
                std::uint64_t coming, std::string content, BytePath prefix) {
        for (int number = 1;; ++number) {
            const auto numbered = number == 1 ? std::string(stem) : fmt::format("{} ({})", stem, number);
            auto name = fitName(*place_.rules, replacements_, numbered, std::string(ending)).name;
            const auto free = used_.contains(keyOf(name)) ? Result(false) : isOurs(name, content);
            RETURN_IF_FAILED(free);
            if (*free) {
                used_.insert(keyOf(name));
                lists_.push_back(
                    {source, std::move(name), entries, coming, std::move(content), std::move(prefix)});
                return done();
            }
        }
    }

    /// Nothing stands there, or what an earlier transfer has written, or just this.
    Result<bool> isOurs(const BytePath& name, const std::string& content) const {
        const auto path = joinPath(place_.folder, name);
        if (!place_.isThere || presenceOf(path) == Presence::gone) {
            return true;
        }
        const auto there = wholeFile(path, largestList);
        return !there              ? Result(false)
               : *there == content ? Result(true)
                                   : store_.hasWritten(path, checksumOfText(*there));
    }

    TransferStore store_;
    std::span<const TransferItem> items_;
    const TargetPlace& place_;
    const ListWay& way_;
    const NameReplacements& replacements_;
    std::unordered_map<HoldingId, BytePath> targets_;
    std::unordered_map<HoldingId, const Holding*> holdings_;
    std::unordered_set<std::string> used_;
    std::vector<TransferList> lists_;
};

} // namespace

Result<std::vector<TransferList>> listsAtTarget(const Catalogue& catalogue,
                                                std::span<const ChosenList> chosen,
                                                std::span<const TransferItem> items,
                                                std::span<const Holding> holdings,
                                                std::span<const NotComing> left, const TargetPlace& place,
                                                const ListWay& way, const NameReplacements& replacements) {
    const auto players = PlayerStore(catalogue).all();
    const auto known = PlayerStore(catalogue).lists();
    if (!players || !known) {
        return players ? known.error() : players.error();
    }
    ListWriting writing(catalogue, items, holdings, place, way, replacements);
    for (const auto& list : chosen) {
        RETURN_IF_FAILED(writing.addChosen(list, *players, *known));
    }
    const auto everything = items.empty() ? done() : writing.addEverything();
    const auto leftOut = everything && !left.empty() ? writing.addLeft(left) : everything;
    return leftOut ? Result(std::move(writing).lists()) : Result<std::vector<TransferList>>(leftOut.error());
}

} // namespace sober
