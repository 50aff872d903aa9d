#include "core/work/run_transfer.h"

#include "core/audit/refresh_findings.h"
#include "core/base/text.h"
#include "core/catalogue/holding_writer.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/volumes.h"
#include "core/evidence/worker/evidence_worker.h"
#include "core/players/list_reading.h"
#include "core/players/read_players.h"
#include "core/remedy/actions/reach.h"
#include "core/remedy/changes/file_changes.h"
#include "core/remedy/docket/review.h"
#include "core/remedy/journal/carrying_out.h"
#include "core/remedy/journal/recovery.h"
#include "core/survey/survey.h"
#include "core/survey/volume_identity.h"
#include "core/transfer/emptied_folders.h"
#include "core/transfer/move_order.h"
#include "core/transfer/target_place.h"

#include <fmt/format.h>

#include <algorithm>
#include <map>

namespace sober {
namespace {

constexpr std::size_t stepItems = 256;          // that are copied before their old ones go
constexpr std::uint64_t stepBytes = 1ULL << 30; // likewise

class Running {
  public:
    Running(Catalogue& catalogue, TransferId id, RunControl& control, const CarryOutHooks& hooks)
        : catalogue_(catalogue), id_(id), control_(control), hooks_(hooks) {}

    Result<TransferRun> run() {
        for (const auto phase :
             {&Running::begin, &Running::settle, &Running::takeInWhatStandsThere, &Running::fits,
              &Running::sayWhatChanged, &Running::carryOut, &Running::end}) {
            if (const auto outcome = (this->*phase)(); !outcome) {
                recoverInterrupted(catalogue_).ok(); // what cannot be settled now waits for the next start
                return outcome.error();
            }
        }
        return TransferRun{std::move(settled_), std::move(carried_)};
    }

  private:
    BytePath folder() const { return settled_.transfer.folder; }
    BytePath placeOf(const TransferItem& item) const { return joinPath(folder(), item.target); }

    /// The target is there, is what was planned for, and is on a volume.
    Outcome begin() {
        const auto looked = lookForVolumes(catalogue_);
        auto transfer = looked ? TransferStore(catalogue_).of(id_) : Result<Transfer>(looked.error());
        RETURN_IF_FAILED(transfer);
        settled_.transfer = std::move(*transfer);
        if (settled_.transfer.isByHand()) {
            return Error{
                Cause::invalid, folder(),
                "This was planned for a device that is not here, as it was described. Connect it and "
                "plan again."};
        }
        if (settled_.transfer.volume == 0) {
            if (const auto made = makeVolume(); !made) {
                return made;
            }
        }
        auto volumes = Volumes(catalogue_).all();
        RETURN_IF_FAILED(volumes);
        volumes_ = std::move(*volumes);
        const auto volume = std::ranges::find(volumes_, settled_.transfer.volume, &Volume::id);
        if (volume == volumes_.end() || !volume->atHand) {
            return Error{
                Cause::notFound, folder(),
                fmt::format("{} is away. Connect it and run the transfer again; it goes on where it was.",
                            volume == volumes_.end() ? displayPath(folder()) : volume->label)};
        }
        return done();
    }

    Outcome makeVolume() {
        auto& transfer = settled_.transfer;
        const auto place = targetPlaceAt(catalogue_, transfer.folder, transfer.rules, std::nullopt);
        RETURN_IF_FAILED(place);
        if (!place->volume && place->filesystem != transfer.filesystem) {
            return refusedError(transfer.folder, displayPath(transfer.folder) +
                                                     " is not on the drive that this was planned for. "
                                                     "Connect that, or plan again.");
        }
        Unflushed unflushed;
        if (const auto made = makeFolder(transfer.folder, 0777, unflushed); !made) {
            return made;
        }
        unflushed.flush();
        if (place->volume) {
            transfer.volume = place->volume->id;
        } else {
            const auto surveyed =
                surveyVolume(catalogue_, {transfer.folder, {}, {}, {}}, control_, hooks_.onProgress);
            RETURN_IF_FAILED(surveyed);
            if (surveyed->interrupted) {
                return Error{Cause::interrupted, transfer.folder, "Stopped before anything was copied."};
            }
            transfer.volume = surveyed->volume;
        }
        return TransferStore(catalogue_).update(transfer);
    }

    Outcome settle() {
        auto settled = settleTransfer(catalogue_, id_);
        RETURN_IF_FAILED(settled);
        settled_ = std::move(*settled);
        std::vector<HoldingId> ids;
        for (const auto& item : settled_.items) {
            ids.push_back(item.source);
        }
        auto holdings = Holdings(catalogue_).byIds(ids);
        RETURN_IF_FAILED(holdings);
        sources_.clear();
        for (auto& holding : *holdings) {
            sources_.emplace(holding.id, std::move(holding));
        }
        return done();
    }

    std::vector<std::size_t> waiting() const {
        std::vector<std::size_t> waiting;
        for (std::size_t i = 0; i < settled_.items.size(); ++i) {
            if (settled_.items[i].state == ItemState::waits || settled_.items[i].state == ItemState::failed) {
                waiting.push_back(i);
            }
        }
        return waiting;
    }

    bool isRenamed(const TransferItem& item) const {
        const auto source = sources_.find(item.source);
        return settled_.transfer.mode == TransferMode::reorder ||
               (settled_.transfer.mode == TransferMode::steps && source != sources_.end() &&
                source->second.volume == settled_.transfer.volume);
    }

    /// A file at an item's place that nobody has looked at may be just what is to be there.
    Outcome takeInWhatStandsThere() {
        HoldingWriter writer(catalogue_, settled_.transfer.volume, timeNow());
        const auto root = std::ranges::find(volumes_, settled_.transfer.volume, &Volume::id)->root;
        bool any = false;
        EvidenceWorker worker;
        for (const auto at : waiting()) {
            const auto& item = settled_.items[at];
            const auto place = placeOf(item);
            const auto stamp = isRenamed(item) ? Result<FileStamp>(Error{}) : stampAt(place);
            const auto within = relativeTo(place, root).value_or(BytePath());
            const auto known = stamp ? Holdings(catalogue_).at(settled_.transfer.volume, within)
                                     : Result<std::optional<Holding>>(std::optional<Holding>());
            RETURN_IF_FAILED(known);
            if (stamp && item.form.empty() && stamp->size == item.bytes && !*known && control_.proceed()) {
                if (const auto record = worker.passOver(place, control_, [](std::uint64_t) {})) {
                    writer.add(within, *record, false);
                    any = true;
                }
            }
        }
        const auto written = writer.commit();
        return written && any ? settle() : written;
    }

    Outcome fits() {
        std::uint64_t needs = 0;
        for (const auto at : waiting()) {
            needs += isRenamed(settled_.items[at]) ? 0 : settled_.items[at].bytes;
        }
        const auto room = needs == 0 ? done() : hasRoomFor(joinPath(folder(), "x"), needs);
        return room ? room
                    : Outcome(Error{Cause::full, folder(),
                                    fmt::format("What waits does not fit: {} are needed. {}",
                                                humanBytes(needs), room.error().sentence)});
    }

    /// What was planned is done; what a list or a file has become since waits for another plan.
    Outcome sayWhatChanged() {
        const auto left = waiting();
        for (const auto at : left) {
            const auto& item = settled_.items[at];
            if (sources_.at(item.source).checksum != item.content) {
                carried_.refused.push_back(
                    {placeOf(item), displayPath(presentPlace(item.source)) +
                                        " was changed since this was planned; plan again."});
            }
        }
        // In steps the lists follow what was let go, so that only what was there before the first step tells.
        const bool isBegun = settled_.transfer.state != TransferState::planned;
        if (left.empty() || (isBegun && settled_.transfer.mode == TransferMode::steps)) {
            return done();
        }
        const auto lists = TransferStore(catalogue_).lists(id_);
        for (const auto& list : lists ? *lists : std::vector<TransferList>()) {
            const auto now =
                list.sourceContent ? wholeFile(list.source, largestList) : Result<std::string>(Error{});
            if (now && checksumOfText(*now) != *list.sourceContent) {
                carried_.refused.push_back(
                    {list.source, displayPath(list.source) +
                                      " was changed since this was planned; plan again to take that along."});
            }
        }
        return lists ? done() : Outcome(lists.error());
    }

    Outcome carryOut() {
        auto& transfer = settled_.transfer;
        if (transfer.state == TransferState::planned) {
            transfer.state = TransferState::running;
            if (const auto updated = TransferStore(catalogue_).update(transfer); !updated) {
                return updated;
            }
        }
        std::vector<std::size_t> copies;
        std::vector<std::size_t> moves;
        for (const auto at : waiting()) {
            const auto& item = settled_.items[at];
            if (sources_.at(item.source).checksum == item.content) {
                (isRenamed(item) ? moves : copies).push_back(at);
            }
        }
        const auto moved = moveAll(moves);
        return !moved ? moved
               : transfer.mode == TransferMode::steps && !copies.empty()
                   ? copyInSteps(copies)
                   : carryOutAll(copiesOf(copies), true);
    }

    DocketAction actionFor(ActionKind kind, HoldingId holding, const BytePath& target) const {
        DocketAction action;
        action.kind = kind;
        action.holding = holding;
        action.reason = fmt::format("transfer {}", id_);
        action.added = timeNow();
        action.target = target;
        return action;
    }

    std::vector<DocketAction> copiesOf(std::span<const std::size_t> items) const {
        std::vector<DocketAction> actions;
        for (const auto at : items) {
            const auto& item = settled_.items[at];
            auto action = actionFor(item.form.empty() ? ActionKind::copy : ActionKind::encode, item.source,
                                    placeOf(item));
            action.change = item.form;
            actions.push_back(std::move(action));
        }
        return actions;
    }

    BytePath presentPlace(HoldingId id) const {
        const auto& holding = sources_.at(id);
        const auto volume = std::ranges::find(volumes_, holding.volume, &Volume::id);
        return joinPath(volume->root, holding.path);
    }

    /// Renames, each once its place is free. Of those that go round one stands aside first.
    Outcome moveAll(std::span<const std::size_t> items) {
        std::vector<std::pair<BytePath, BytePath>> places;
        for (const auto at : items) {
            places.emplace_back(presentPlace(settled_.items[at].source), placeOf(settled_.items[at]));
        }
        auto actions = clearances();
        RETURN_IF_FAILED(actions);
        const auto order = orderOfMoves(places);
        std::vector<DocketAction> aside;
        const auto move = [&](std::size_t at, const BytePath& to) {
            return actionFor(ActionKind::move, settled_.items[items[at]].source, to);
        };
        for (const auto at : order.first) {
            actions->push_back(move(at, places[at].second));
        }
        for (const auto& round : order.rounds) {
            const auto& from = places[round.front()].first;
            const auto ending = endingOf(from);
            aside.push_back(move(round.front(),
                                 joinPath(parentOf(from), fmt::format("aside {} {}{}{}", id_, round.front(),
                                                                      ending.empty() ? "" : ".", ending))));
            for (auto at = round.rbegin(); at != round.rend(); ++at) {
                actions->push_back(move(*at, places[*at].second));
            }
        }
        const auto stoodAside = aside.empty() ? done() : carryOutAll(std::move(aside), false);
        return stoodAside ? carryOutAll(std::move(*actions), false) : stoodAside;
    }

    /// Of the folders that the renames leave without a file, earlier ones too, should they have been stopped.
    Result<std::vector<DocketAction>> clearances() const {
        auto folders = foldersLeftEmpty(catalogue_, settled_.transfer, settled_.items);
        RETURN_IF_FAILED(folders);
        std::vector<DocketAction> actions;
        for (auto& folder : *folders) {
            auto action = actionFor(ActionKind::clearFolder, 0, {});
            action.place = std::move(folder);
            actions.push_back(std::move(action));
        }
        return actions;
    }

    /// As many as are copied together; then what was copied and read back lets go of its old place.
    Outcome copyInSteps(std::span<const std::size_t> items) {
        for (std::size_t at = 0; at < items.size() && !carried_.interrupted;) {
            std::vector<std::size_t> some;
            std::uint64_t bytes = 0;
            for (; at < items.size() && some.size() < stepItems && bytes < stepBytes; ++at) {
                some.push_back(items[at]);
                bytes += settled_.items[items[at]].bytes;
            }
            const auto copied = carryOutAll(copiesOf(some), at == items.size());
            const auto now = copied ? settle() : copied;
            const auto released = now ? carryOutAll(releasesOf(some), false) : now;
            if (!released) {
                return released;
            }
        }
        return done();
    }

    std::vector<DocketAction> releasesOf(std::span<const std::size_t> items) const {
        std::vector<DocketAction> actions;
        for (const auto at : items) {
            const auto& item = settled_.items[at];
            if (item.state == ItemState::copied && sources_.at(item.source).state == HoldingState::present) {
                actions.push_back(actionFor(ActionKind::retire, item.source, placeOf(item)));
            }
        }
        return actions;
    }

    Outcome carryOutAll(std::vector<DocketAction> actions, bool withLists) {
        if (carried_.interrupted) {
            return done();
        }
        if (withLists) {
            if (const auto added = addLists(actions); !added) {
                return added;
            }
        }
        if (actions.empty()) {
            return done();
        }
        auto review = reviewActions(catalogue_, actions);
        RETURN_IF_FAILED(review);
        const auto carried = carryOutReviewed(catalogue_, control_, hooks_, std::move(*review), volumes_);
        RETURN_IF_FAILED(carried);
        carried_.entry = carried->entry;
        carried_.done += carried->done;
        carried_.frees += carried->frees;
        carried_.references += carried->references;
        carried_.refused.insert(carried_.refused.end(), carried->refused.begin(), carried->refused.end());
        carried_.unflushed = carried->unflushed;
        carried_.interrupted = carried->interrupted;
        return done();
    }

    Outcome addLists(std::vector<DocketAction>& actions) {
        const auto lists = TransferStore(catalogue_).lists(id_);
        RETURN_IF_FAILED(lists);
        for (const auto& list : *lists) {
            const auto place = joinPath(folder(), list.target);
            const auto there = wholeFile(place, largestList);
            if (there && *there == list.content) {
                continue;
            }
            DocketAction action;
            action.kind = there ? ActionKind::replaceList : ActionKind::writeList;
            action.reason = fmt::format("transfer {}", id_);
            action.added = timeNow();
            action.place = place;
            action.change = list.content;
            actions.push_back(std::move(action));
        }
        return done();
    }

    Outcome end() {
        if (const auto settled = settle(); !settled) {
            return settled;
        }
        std::map<BytePath, const std::string*> refused;
        for (const auto& each : carried_.refused) {
            refused.emplace(each.path, &each.sentence);
        }
        std::vector<TransferStore::ItemMark> marks;
        for (const auto at : waiting()) {
            const auto& item = settled_.items[at];
            auto why = refused.find(placeOf(item));
            why = why == refused.end() ? refused.find(presentPlace(item.source)) : why;
            if (why != refused.end()) {
                marks.push_back({at, ItemState::failed, *why->second});
            }
        }
        const TransferStore store(catalogue_);
        const auto marked = store.mark(id_, marks);
        const auto noted = marked ? noteLists(store) : marked;
        const auto settled = noted ? settle() : noted;
        RunControl toTheEnd;
        const auto read = settled ? readPlayers(catalogue_, toTheEnd) : Result<PlayersRead>(settled.error());
        return read ? refreshFindings(catalogue_) : Outcome(read.error());
    }

    /// Which lists stand there now.
    Outcome noteLists(const TransferStore& store) {
        const auto lists = store.lists(id_);
        RETURN_IF_FAILED(lists);
        for (std::size_t i = 0; i < lists->size(); ++i) {
            const auto& list = (*lists)[i];
            const auto there = wholeFile(joinPath(folder(), list.target), list.content.size() + 1);
            if (there && *there == list.content) {
                const auto kept = store.keepList(id_, i, list.target, checksumOfText(list.content));
                if (!kept) {
                    return kept;
                }
            }
        }
        return done();
    }

    Catalogue& catalogue_;
    TransferId id_;
    RunControl& control_;
    const CarryOutHooks& hooks_;
    std::vector<Volume> volumes_;
    SettledTransfer settled_;
    std::map<HoldingId, Holding> sources_;
    CarriedOut carried_;
};

} // namespace

Result<TransferRun> runTransfer(Catalogue& catalogue, TransferId id, RunControl& control,
                                const CarryOutHooks& hooks) {
    return Running(catalogue, id, control, hooks).run();
}

} // namespace sober
