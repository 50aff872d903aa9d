#include "core/work/tidy_salvaged.h"

#include "core/base/presence.h"
#include "core/base/text.h"
#include "core/catalogue/docket_store.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/volumes.h"
#include "core/salvage/recogniser.h"

#include <algorithm>
#include <set>

namespace sober {
namespace {

class Tidying {
  public:
    explicit Tidying(const Catalogue& catalogue) : catalogue_(catalogue), store_(catalogue) {}

    Result<std::vector<LeftAbout>> run() {
        for (const auto phase : {&Tidying::lookInTrash, &Tidying::lookAtTaken}) {
            RETURN_IF_FAILED((this->*phase)());
        }
        const auto added = DocketStore(catalogue_).add(actions_);
        return added ? Result(std::move(left_)) : Result<std::vector<LeftAbout>>(added.error());
    }

  private:
    Outcome lookInTrash() {
        const auto source = store_.sourceOf({});
        auto finds = source && *source ? store_.finds((*source)->id) : Result(std::vector<Find>{});
        const auto known =
            finds ? standingsOf(catalogue_, *finds) : Result<std::vector<KnownFind>>(finds.error());
        if (!source || !known) {
            return source ? known.error() : source.error();
        }
        for (std::size_t i = 0; i < finds->size(); ++i) {
            const auto& find = (*finds)[i];
            const auto& each = (*known)[i];
            if (find.recognised != RecognisedBy::bytes || each.standing != FindStanding::held ||
                !each.atHand || presenceOf(find.file) != Presence::there) {
                continue;
            }
            const auto entry = store_.entryThatSetAside(find.file);
            RETURN_IF_FAILED(entry);
            if (*entry != 0) {
                continue; // what can be undone rests on it
            }
            DocketAction action;
            action.kind = ActionKind::discard;
            action.place = find.file;
            action.change = packFindBytes({{find.file, {}, find.extents}, *find.checksum, find.id});
            propose(std::move(action), {find.file, each.place, find.bytes, true});
        }
        return done();
    }

    /// What was taken to look at it, and stands somewhere else where nothing was taken to.
    Outcome lookAtTaken() {
        const auto finds = store_.taken();
        const auto volumes = finds ? Volumes(catalogue_).all() : Result<std::vector<Volume>>(finds.error());
        RETURN_IF_FAILED(volumes);
        std::set<BytePath> places;
        for (const auto& find : *finds) {
            places.insert(find.taken);
        }
        for (const auto& find : *finds) {
            const auto ids =
                find.checksum ? store_.withBytes(*find.checksum) : Result(std::vector<HoldingId>{});
            const auto holdings =
                ids ? Holdings(catalogue_).byIds(*ids) : Result<std::vector<Holding>>(ids.error());
            RETURN_IF_FAILED(holdings);
            const Holding* own = nullptr;
            BytePath other;
            for (const auto& holding : *holdings) {
                const auto volume = std::ranges::find(*volumes, holding.volume, &Volume::id);
                if (holding.state != HoldingState::present || volume == volumes->end() ||
                    !volume->reaches(holding.path)) {
                    continue;
                }
                const auto path = joinPath(volume->root, holding.path);
                if (path == find.taken) {
                    own = &holding;
                } else if (!places.contains(path)) {
                    other = path;
                }
            }
            if (own == nullptr || other.empty()) {
                continue;
            }
            DocketAction action;
            action.kind = ActionKind::retire;
            action.holding = own->id;
            action.target = other;
            propose(std::move(action), {find.taken, other, find.bytes, false});
        }
        return done();
    }

    void propose(DocketAction action, LeftAbout left) {
        action.reason = "salvaged, and held at " + displayPath(left.heldAt);
        action.added = timeNow();
        actions_.push_back(std::move(action));
        left_.push_back(std::move(left));
    }

    const Catalogue& catalogue_;
    SalvageStore store_;
    std::vector<DocketAction> actions_;
    std::vector<LeftAbout> left_;
};

} // namespace

Result<std::vector<LeftAbout>> planTidying(const Catalogue& catalogue) {
    return Tidying(catalogue).run();
}

} // namespace sober
