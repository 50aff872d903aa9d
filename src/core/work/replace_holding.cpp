#include "core/work/replace_holding.h"

#include "core/audit/lay_over.h"
#include "core/audit/tag_takeover.h"
#include "core/base/presence.h"
#include "core/base/text.h"
#include "core/catalogue/docket_store.h"
#include "core/catalogue/evidence_store.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/service_store.h"
#include "core/catalogue/volumes.h"
#include "core/evidence/worker/evidence_worker.h"
#include "core/intake/offer_source.h"
#include "core/intake/replacement.h"
#include "core/remedy/fetch_offer.h"
#include "core/transfer/filing.h"
#include "core/transfer/target_place.h"
#include "core/work/carry_out.h"

#include <algorithm>
#include <array>

namespace sober {
namespace {

/// The candidate as a holding, whether or not it is one.
struct Examined {
    Holding holding;
    Evidence evidence;
    bool isHolding = false;
};

class ReplacementPlanning {
  public:
    ReplacementPlanning(const Catalogue& catalogue, const ReplaceRequest& request, RunControl& control,
                        const ProgressSink& onProgress)
        : catalogue_(catalogue), request_(request), control_(control), onProgress_(onProgress) {}

    Result<PlannedReplacement> run() {
        for (const auto phase : {&ReplacementPlanning::lookForWanted, &ReplacementPlanning::getCandidate,
                                 &ReplacementPlanning::examineCandidate, &ReplacementPlanning::judgeBoth,
                                 &ReplacementPlanning::chooseTags, &ReplacementPlanning::put}) {
            const auto taken = (this->*phase)();
            if (taken && !plan_.candidate.unfit) {
                continue;
            }
            // Nothing stays of what was fetched for it.
            const auto forgotten = forgetUnneededOffers(catalogue_);
            if (!taken || !forgotten) {
                return taken ? forgotten.error() : taken.error();
            }
            break;
        }
        return std::move(plan_);
    }

  private:
    Outcome lookForWanted() {
        auto volumes = Volumes(catalogue_).all();
        RETURN_IF_FAILED(volumes);
        volumes_ = std::move(*volumes);
        const auto holding = holdingAt(request_.holding);
        RETURN_IF_FAILED(holding);
        if (!*holding || (*holding)->state != HoldingState::present) {
            return Error{Cause::notFound, request_.holding,
                         displayPath(request_.holding) + " is no holding that is there and at hand."};
        }
        auto wanted = wantedDetail(catalogue_, (*holding)->id);
        RETURN_IF_FAILED(wanted);
        if (!wanted->atHand) {
            return Error{Cause::refused, request_.holding,
                         displayPath(request_.holding) + " is away; attach its volume first."};
        }
        if (!wanted->evidence) {
            return Error{Cause::refused, request_.holding,
                         displayPath(request_.holding) +
                             " was not examined: survey it at full effort first."};
        }
        wanted_ = std::move(*wanted);
        return done();
    }

    Result<std::optional<Holding>> holdingAt(const BytePath& path) const {
        const auto volume = volumeHolding(volumes_, path);
        return volume ? Holdings(catalogue_).at((*volume)->id, *relativeTo(path, (*volume)->root))
                      : Result(std::optional<Holding>());
    }

    Outcome getCandidate() {
        plan_.candidate.path = request_.by;
        if (!isAddress(request_.by)) {
            plan_.candidate.source = CandidateSource::file;
            source_ = request_.by;
            return done();
        }
        plan_.candidate.source = CandidateSource::offer;
        const auto shelf = ServiceStore(catalogue_).address(ServiceKind::offerShelf);
        RETURN_IF_FAILED(shelf);
        if (!*shelf) {
            return Error{Cause::refused, request_.by,
                         "No offer shelf was set up, and no other service is asked."};
        }
        const OfferShelf at(**shelf);
        OfferSource offers(at);
        const auto answered = offers.candidatesFor(std::span(&wanted_, 1), control_);
        RETURN_IF_FAILED(answered);
        const auto same = std::ranges::find(answered->front(), request_.by, &Candidate::path);
        const auto offer = offers.offers().find(request_.by);
        if (same == answered->front().end() || offer == offers.offers().end()) {
            plan_.candidate.unfit = Unfit::notOnOffer;
            plan_.candidate.reasons = {"the shelf does not offer it any more"};
            return done();
        }
        plan_.candidate = *same;
        if (plan_.candidate.unfit) {
            return done();
        }
        Progress progress;
        progress.totalBytes = offer->second.bytes;
        progress.at = displayPath(request_.by);
        auto fetched = fetchOffer(at, offer->second, fetchedFolder(catalogue_.path()), control_,
                                  [&](std::uint64_t bytes) {
                                      progress.bytes += bytes;
                                      onProgress_(progress);
                                  });
        RETURN_IF_FAILED(fetched);
        source_ = std::move(*fetched);
        return done();
    }

    Outcome examineCandidate() {
        const auto known = isAddress(request_.by) ? Result(std::optional<Holding>()) : holdingAt(source_);
        RETURN_IF_FAILED(known);
        if (*known && (*known)->state == HoldingState::present) {
            auto evidence = EvidenceStore(catalogue_).of((*known)->id);
            RETURN_IF_FAILED(evidence);
            if (*evidence) {
                plan_.candidate.source = CandidateSource::volume;
                plan_.candidate.holding = (*known)->id;
                other_ = {std::move(**known), std::move(**evidence), true};
                return done();
            }
        }
        auto record = worker_.examine(source_, control_, [](std::uint64_t) {});
        RETURN_IF_FAILED(record);
        if (!record->evidence) {
            plan_.candidate.unfit = Unfit::unsound;
            plan_.candidate.reasons = {"it does not decode"};
            return done();
        }
        other_.holding.volume = wanted_.holding.volume; // where it is does not count
        other_.holding.path = nameOf(source_);
        other_.holding.size = record->stamp.size;
        other_.holding.mtime = record->stamp.mtime;
        other_.holding.inode = record->stamp.inode;
        other_.holding.checksum = record->checksums.file;
        other_.holding.claims = record->claims;
        other_.holding.tags = record->tags;
        other_.evidence = std::move(*record->evidence);
        return done();
    }

    Outcome judgeBoth() {
        const auto pair = knowledgeOfBoth();
        RETURN_IF_FAILED(pair);
        judge(plan_.candidate, wanted_, other_.holding, *pair, volumes_);
        return done();
    }

    /// As they were laid over each other before, or are now.
    Result<SetKnowledge> knowledgeOfBoth() {
        if (other_.holding.checksum == wanted_.holding.checksum) {
            return SetKnowledge();
        }
        if (other_.isHolding) {
            auto known = SetKnowledge::of(catalogue_, std::array{wanted_.holding, other_.holding});
            if (!known || known->isProvenPairwise(0, 1)) {
                return known;
            }
        }
        const auto& own = *wanted_.evidence;
        SetKnowledge pair;
        pair.add({true, false, own});
        pair.add({true, false, other_.evidence});
        if (own.payload == other_.evidence.payload) {
            pair.link(0, 1, Sameness::payload);
        } else if (own.samplesMd5 && own.samplesMd5 == other_.evidence.samplesMd5) {
            pair.link(0, 1, Sameness::samples);
        } else if (const auto laid =
                       layOver(worker_, wanted_.path, own, source_, other_.evidence, control_)) {
            if (const auto sameness = samenessOf(*laid, own.seconds, other_.evidence.seconds)) {
                pair.link(0, 1, *sameness, laid->comparison);
            }
        } else if (!tellsOfTheFile(laid.error())) {
            return laid.error();
        }
        return pair;
    }

    Outcome chooseTags() {
        if (const auto placed = choosePlace(); !placed) {
            return placed;
        }
        if (request_.tags) {
            plan_.tags = *request_.tags;
            return done();
        }
        const auto old = worker_.readTags(wanted_.path);
        const auto fresh = worker_.readTags(source_);
        for (const auto* read : {&old, &fresh}) {
            if (!*read && !tellsOfTheFile(read->error())) {
                return read->error();
            }
        }
        if (old && fresh) {
            plan_.tags = keptTags(*old, *fresh, request_.takeTags);
        }
        return done(); // what has no tags that we know has none to keep
    }

    Outcome choosePlace() {
        const auto ending = endingOf(source_);
        const auto within = [&]() -> Result<BytePath> {
            if (request_.layout.empty()) {
                return wanted_.path;
            }
            const auto volume = std::ranges::find(volumes_, wanted_.holding.volume, &Volume::id);
            const auto onto = targetPlaceAt(catalogue_, volume->root, "auto", std::nullopt);
            const auto layout = onto ? Layout::named(request_.layout) : Result<Layout>(onto.error());
            RETURN_IF_FAILED(layout);
            const auto replacements = usualReplacements();
            std::vector<TargetName> names{
                Filing(std::span(&wanted_.holding, 1))
                    .nameFor(wanted_.holding, wanted_.holding.path, *layout, *onto->rules, replacements)
                    .name};
            names.front().ending = ending;
            fitAll(*onto->rules, replacements, names, [&](const BytePath& path, std::size_t /*which*/) {
                const auto place = joinPath(onto->folder, path);
                return place != wanted_.path && isTaken(place);
            });
            return joinPath(onto->folder, pathOf(names.front()));
        }();
        RETURN_IF_FAILED(within);
        const auto name = std::string(nameOf(*within));
        plan_.target = joinPath(parentOf(*within), name.substr(0, name.size() - endingWithDot(name).size()) +
                                                       (ending.empty() ? "" : "." + ending));
        return done();
    }

    static std::string endingWithDot(const std::string& name) {
        const auto ending = endingOf(name);
        return ending.empty() ? std::string() : "." + ending;
    }

    Outcome put() {
        const auto acceptance = EvidenceStore(catalogue_).acceptanceOf(wanted_.holding.id);
        RETURN_IF_FAILED(acceptance);
        DocketAction action;
        action.kind = ActionKind::replace;
        action.holding = wanted_.holding.id;
        action.target = plan_.target;
        action.reason = "by " + displayPath(plan_.candidate.path) + ": " + plan_.candidate.reasons.front();
        action.added = timeNow();
        action.change =
            packReplacement({source_, other_.holding.checksum, other_.evidence.payload, other_.holding.size,
                             plan_.tags, *acceptance ? (*acceptance)->reason : std::string()});
        return DocketStore(catalogue_).add(std::array{action});
    }

    const Catalogue& catalogue_;
    const ReplaceRequest& request_;
    RunControl& control_;
    const ProgressSink& onProgress_;
    EvidenceWorker worker_;
    std::vector<Volume> volumes_;
    WantedHolding wanted_;
    BytePath source_;
    Examined other_;
    PlannedReplacement plan_;
};

WantedRow rowOf(WantedHolding wanted, std::vector<Candidate> all) {
    WantedRow row;
    if (wanted.evidence && wanted.evidence->bandwidth) {
        row.cutoff = wanted.evidence->bandwidth->cutoff;
    }
    wanted.evidence.reset();
    row.wanted = std::move(wanted);
    rank(all);
    for (auto& candidate : all) {
        (candidate.unfit ? row.refused : row.candidates).push_back(std::move(candidate));
    }
    return row;
}

} // namespace

Result<WantedLook> lookForBetter(const Catalogue& catalogue, std::span<const HoldingId> wanted, bool askShelf,
                                 RunControl& control, const ProgressSink& onProgress) {
    constexpr std::size_t together = 100; // their evidence lies in memory
    const auto address = ServiceStore(catalogue).address(ServiceKind::offerShelf);
    RETURN_IF_FAILED(address);
    std::optional<OfferSource> shelf;
    if (askShelf && *address) {
        shelf.emplace(OfferShelf(**address));
    }
    HoldingsSource holdings(catalogue);
    WantedLook look;
    Progress progress;
    progress.totalFiles = wanted.size();
    for (std::size_t at = 0; at < wanted.size(); at += together) {
        const auto ids = wanted.subspan(at, std::min(together, wanted.size() - at));
        auto details = wantedDetails(catalogue, ids);
        auto held = details ? holdings.candidatesFor(*details, control)
                            : Result<std::vector<std::vector<Candidate>>>(details.error());
        RETURN_IF_FAILED(held);
        if (shelf) {
            auto offered = shelf->candidatesFor(*details, control);
            if (!offered && offered.error().cause == Cause::interrupted) {
                return offered.error();
            }
            if (!offered) {
                look.problem = offered.error().sentence;
                shelf.reset(); // it is not asked again and again
            }
            for (std::size_t i = 0; offered && i < details->size(); ++i) {
                std::ranges::move((*offered)[i], std::back_inserter((*held)[i]));
            }
        }
        for (std::size_t i = 0; i < details->size(); ++i) {
            look.rows.push_back(rowOf(std::move((*details)[i]), std::move((*held)[i])));
        }
        progress.files += ids.size();
        onProgress(progress);
    }
    return look;
}

Result<PlannedReplacement> planReplacement(const Catalogue& catalogue, const ReplaceRequest& request,
                                           RunControl& control, const ProgressSink& onProgress) {
    return ReplacementPlanning(catalogue, request, control, onProgress).run();
}

Result<PlannedReplacement> planFitting(const Catalogue& catalogue, const ReplaceRequest& request,
                                       RunControl& control, const ProgressSink& onProgress) {
    auto planned = planReplacement(catalogue, request, control, onProgress);
    return planned && planned->candidate.unfit
               ? Result<PlannedReplacement>(Error{Cause::refused, request.by,
                                                  displayPath(request.by) + " does not fit (" +
                                                      std::string(word(*planned->candidate.unfit)) +
                                                      "): " + planned->candidate.reasons.front() + "."})
               : planned;
}

Result<CarriedOut> replaceHolding(Catalogue& catalogue, const ReplaceRequest& request, RunControl& control,
                                  const CarryOutHooks& hooks) {
    const auto planned = planFitting(catalogue, request, control, hooks.onProgress);
    RETURN_IF_FAILED(planned);
    auto carried = carryOut(catalogue, control, hooks, [&](const DocketAction& action) {
        return action.kind == ActionKind::replace && action.target == planned->target;
    });
    const auto forgotten = carried ? forgetUnneededOffers(catalogue) : done();
    return forgotten ? std::move(carried) : Result<CarriedOut>(forgotten.error());
}

Result<PlannedRows> planAdvised(const Catalogue& catalogue, std::span<const WantedRow> rows, bool takeTags,
                                RunControl& control, const ProgressSink& onProgress) {
    PlannedRows planned;
    Progress progress;
    progress.totalFiles = rows.size();
    for (const auto& row : rows) {
        ++progress.files;
        const auto best = std::ranges::find_if(row.candidates, &Candidate::atHand);
        if (best == row.candidates.end() || !row.wanted.atHand) {
            continue;
        }
        if (!control.proceed()) {
            break;
        }
        progress.at = displayPath(row.wanted.path);
        onProgress(progress);
        const auto one = planReplacement(catalogue, {row.wanted.path, best->path, takeTags}, control,
                                         [](const Progress&) {});
        if (!one && one.error().cause == Cause::interrupted) {
            break;
        }
        if (!one) {
            planned.refused.push_back({row.wanted.path, one.error().sentence});
        } else if (one->candidate.unfit) {
            planned.refused.push_back({row.wanted.path, displayPath(best->path) + " does not fit: " +
                                                            one->candidate.reasons.front() + "."});
        } else {
            planned.targets.push_back(one->target);
        }
    }
    return planned;
}

Result<CarriedOut> replaceAdvised(Catalogue& catalogue, std::span<const WantedRow> rows, bool takeTags,
                                  RunControl& control, const CarryOutHooks& hooks) {
    const auto planned = planAdvised(catalogue, rows, takeTags, control, hooks.onProgress);
    RETURN_IF_FAILED(planned);
    auto carried =
        planned->targets.empty()
            ? Result(CarriedOut{})
            : carryOut(catalogue, control, hooks, [&](const DocketAction& action) {
                  return action.kind == ActionKind::replace &&
                         std::ranges::find(planned->targets, action.target) != planned->targets.end();
              });
    const auto forgotten = carried ? forgetUnneededOffers(catalogue) : done();
    RETURN_IF_FAILED(forgotten);
    if (carried) {
        std::ranges::copy(planned->refused, std::back_inserter(carried->refused));
        carried->interrupted = carried->interrupted || control.isCancelled();
    }
    return carried;
}

Outcome forgetUnneededOffers(const Catalogue& catalogue) {
    const auto waiting = DocketStore(catalogue).all();
    RETURN_IF_FAILED(waiting);
    std::vector<BytePath> needed;
    for (const auto& action : *waiting) {
        const auto replacement =
            action.kind == ActionKind::replace ? unpackReplacement(action.change) : std::nullopt;
        if (replacement) {
            needed.push_back(replacement->source);
        }
    }
    return forgetFetched(fetchedFolder(catalogue.path()), needed);
}

} // namespace sober
