#include "core/transfer/chosen.h"

#include "core/audit/set_choice.h"
#include "core/base/inner_path.h"
#include "core/base/text.h"
#include "core/catalogue/evidence_store.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/volumes.h"
#include "core/players/list_reading.h"

#include <algorithm>
#include <set>
#include <unordered_set>

namespace sober {
namespace {

/// Entries of a list that belongs to no player.
class LooseLists {
  public:
    LooseLists(const Catalogue& catalogue, std::vector<Volume> volumes)
        : catalogue_(catalogue), volumes_(std::move(volumes)), resolver_(volumes_) {}

    Result<std::vector<Reference>> read(const BytePath& path) {
        auto read = readList(path);
        RETURN_IF_FAILED(read);
        ListFile list;
        list.path = path;
        list.asUri = read->playlist.format == PlaylistFormat::xspf;
        const auto context = contextOf(list, {});
        std::vector<Reference> references;
        for (auto& entry : read->playlist.entries) {
            const auto resolution = resolver_.resolve(entry.location, context);
            Reference reference{0,
                                references.size(),
                                std::move(entry.location),
                                std::move(entry.title),
                                std::move(entry.artist),
                                std::move(entry.album),
                                entry.seconds,
                                resolution.state,
                                resolution.instead.empty() ? resolution.path : resolution.instead,
                                0,
                                std::nullopt};
            const auto holding = holdingAt(reference.path);
            RETURN_IF_FAILED(holding);
            reference.holding = *holding;
            references.push_back(std::move(reference));
        }
        return references;
    }

  private:
    Result<HoldingId> holdingAt(const BytePath& path) const {
        const auto volume = volumeHolding(volumes_, path);
        const auto holding = volume
                                 ? Holdings(catalogue_).at((*volume)->id, *relativeTo(path, (*volume)->root))
                                 : Result<std::optional<Holding>>(std::optional<Holding>());
        return !holding ? Result<HoldingId>(holding.error())
                        : Result<HoldingId>(*holding ? (*holding)->id : 0);
    }

    const Catalogue& catalogue_;
    std::vector<Volume> volumes_;
    Resolver resolver_;
};

class Choosing {
  public:
    Choosing(const Catalogue& catalogue, const TransferChoice& choice, RunControl& control)
        : catalogue_(catalogue), choice_(choice), control_(control) {}

    Result<Chosen> run() {
        for (const auto phase : {&Choosing::look, &Choosing::takeLists, &Choosing::takePlaces,
                                 &Choosing::takeFilters, &Choosing::takeUnlisted}) {
            if (!control_.proceed()) {
                return Error{Cause::interrupted, {}, "Stopped before all that comes along was known."};
            }
            if (const auto outcome = (this->*phase)(); !outcome || failure_) {
                return outcome ? *failure_ : outcome.error();
            }
        }
        return std::move(chosen_);
    }

  private:
    Outcome look() {
        auto volumes = Volumes(catalogue_).all();
        RETURN_IF_FAILED(volumes);
        volumes_ = std::move(*volumes);
        return Holdings(catalogue_).eachOutline([this](const HoldingOutline& outline) {
            outlines_.emplace(outline.id, outline);
        });
    }

    /// Looks once at the copy set of a holding: of those that it is advised to retire, which one is kept.
    void learnKeepers(HoldingId id) {
        if (!choice_.keepersOnly || id == 0 || failure_ || !looked_.insert(id).second) {
            return;
        }
        const auto set = Findings(catalogue_).setOf(id);
        const auto detail = !set   ? Result<SetDetail>(set.error())
                            : *set ? detailOf(catalogue_, **set, volumes_)
                                   : Result(SetDetail{});
        if (!detail) {
            failure_ = detail.error();
            return;
        }
        HoldingId keeper = detail->decision.keeper.value_or(0);
        for (std::size_t i = 0; keeper == 0 && i < detail->members.size(); ++i) {
            keeper = detail->advice[i].advice == Advice::keep ? detail->members[i].id : 0;
        }
        for (std::size_t i = 0; i < detail->members.size(); ++i) {
            const auto member = detail->members[i].id;
            looked_.insert(member);
            if (detail->advice[i].advice == Advice::retire && member != keeper && comes(keeper)) {
                keepers_.emplace(member, keeper);
            }
        }
    }

    const Volume* volumeOf(const HoldingOutline& outline) const {
        const auto found = std::ranges::find(volumes_, outline.volume, &Volume::id);
        return found == volumes_.end() ? nullptr : &*found;
    }

    /// Present, and on a volume at hand.
    bool comes(HoldingId id) const {
        const auto outline = outlines_.find(id);
        const auto* volume = outline == outlines_.end() ? nullptr : volumeOf(outline->second);
        return volume != nullptr && outline->second.state == HoldingState::present &&
               !isInsideArchive(outline->second.path) && volume->reaches(outline->second.path);
    }

    HoldingId keeperOf(HoldingId id) {
        learnKeepers(id);
        const auto keeper = keepers_.find(id);
        return keeper == keepers_.end() ? id : keeper->second;
    }

    void take(HoldingId id) {
        if (taken_.insert(id).second) {
            chosen_.holdings.push_back(id);
            touched_.insert(outlines_.at(id).volume);
        }
    }

    void leave(const BytePath& reference, LeftBehind why) {
        if (left_.emplace(reference, why).second) {
            chosen_.left.push_back({reference, why});
        }
    }

    Outcome takeLists() {
        const PlayerStore store(catalogue_);
        const auto lists = store.lists();
        RETURN_IF_FAILED(lists);
        std::vector<BytePath> wanted = choice_.lists;
        for (const auto& list : *lists) {
            const bool isOfPlayer = std::ranges::any_of(list.players, [&](PlayerId player) {
                return std::ranges::find(choice_.players, player) != choice_.players.end();
            });
            if (isOfPlayer && std::ranges::find(wanted, list.path) == wanted.end()) {
                wanted.push_back(list.path);
            }
        }
        LooseLists loose(catalogue_, volumes_);
        for (const auto& path : wanted) {
            const auto known = std::ranges::find(*lists, path, &ListFile::path);
            auto references = known != lists->end() ? store.references(known->id) : loose.read(path);
            RETURN_IF_FAILED(references);
            takeList(path, std::move(*references));
        }
        return done();
    }

    void takeList(const BytePath& path, std::vector<Reference> references) {
        for (auto& reference : references) {
            const auto id = keeperOf(reference.holding);
            if (comes(id)) {
                reference.holding = id;
                take(id);
                continue;
            }
            const auto known = outlines_.find(reference.holding);
            const bool isAway = reference.state == ReferenceState::away ||
                                (known != outlines_.end() && known->second.state == HoldingState::present);
            const bool isThere =
                reference.state == ReferenceState::resolved || reference.state == ReferenceState::loosely;
            leave(reference.location, reference.state == ReferenceState::stream ? LeftBehind::stream
                                      : isAway                                  ? LeftBehind::away
                                      : isThere                                 ? LeftBehind::notCatalogued
                                                                                : LeftBehind::missing);
            reference.holding = 0;
        }
        chosen_.lists.push_back({path, std::move(references)});
    }

    bool isInPlaces(const HoldingOutline& outline) const {
        const auto in = [&](const auto& folder) {
            return folder.first == outline.volume &&
                   (folder.second.empty() || isWithin(outline.path, folder.second));
        };
        return std::ranges::find(choice_.volumes, outline.volume) != choice_.volumes.end() ||
               std::ranges::any_of(choice_.folders, in);
    }

    Outcome takePlaces() {
        std::vector<const HoldingOutline*> inPlaces;
        for (const auto& [id, outline] : outlines_) {
            if (isInPlaces(outline)) {
                inPlaces.push_back(&outline);
            }
        }
        std::ranges::sort(inPlaces, {}, [](const HoldingOutline* outline) {
            return std::pair(outline->volume, std::string_view(outline->path));
        });
        for (const auto* outline : inPlaces) {
            takeOrLeave(*outline);
        }
        touched_.insert(choice_.volumes.begin(), choice_.volumes.end());
        return done();
    }

    void takeOrLeave(const HoldingOutline& outline) {
        const auto id = keeperOf(outline.id);
        if (comes(id)) {
            take(id);
        } else if (const auto* volume = volumeOf(outline); volume != nullptr) {
            leave(joinPath(volume->root, outline.path),
                  outline.state != HoldingState::present ? LeftBehind::missing
                  : isInsideArchive(outline.path)        ? LeftBehind::insideArchive
                                                         : LeftBehind::away);
        }
    }

    Outcome takeFilters() {
        for (const auto& [name, filter] : choice_.filters) {
            const auto ids = EvidenceStore(catalogue_).meant(filter);
            RETURN_IF_FAILED(ids);
            for (const auto id : *ids) {
                if (const auto outline = outlines_.find(id); outline != outlines_.end()) {
                    takeOrLeave(outline->second);
                }
            }
        }
        return done();
    }

    Outcome takeUnlisted() {
        const auto unlisted = PlayerStore(catalogue_).inNoList();
        RETURN_IF_FAILED(unlisted);
        const auto touched = touched_;
        for (const auto id : *unlisted) {
            const auto outline = outlines_.find(id);
            if (outline == outlines_.end() || !touched.contains(outline->second.volume) ||
                taken_.contains(id) || taken_.contains(keeperOf(id))) {
                continue;
            }
            if (choice_.andUnlisted) {
                takeOrLeave(outline->second);
            } else {
                chosen_.inNoList.push_back(id);
            }
        }
        return done();
    }

    const Catalogue& catalogue_;
    const TransferChoice& choice_;
    RunControl& control_;
    std::vector<Volume> volumes_;
    std::unordered_map<HoldingId, HoldingOutline> outlines_;
    std::unordered_map<HoldingId, HoldingId> keepers_; ///< of those that it is advised to retire
    std::unordered_set<HoldingId> looked_;             ///< whose sets are known
    std::optional<Error> failure_;
    std::unordered_set<HoldingId> taken_;
    std::set<std::pair<BytePath, LeftBehind>> left_;
    std::set<VolumeId> touched_;
    Chosen chosen_;
};

} // namespace

Result<Chosen> choose(const Catalogue& catalogue, const TransferChoice& choice, RunControl& control) {
    return Choosing(catalogue, choice, control).run();
}

} // namespace sober
