#include "core/report/report.h"

#include "core/audit/set_choice.h"
#include "core/base/text.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/volumes.h"

#include <fmt/format.h>

namespace sober {
namespace {

constexpr std::size_t atOnce = 500; // holdings that are asked for together

class Gathering {
  public:
    Gathering(const Catalogue& catalogue, const ReportChoices& choices, RunControl& control,
              const ProgressSink& onProgress)
        : catalogue_(catalogue), control_(control), onProgress_(onProgress) {
        report_.choices = choices;
        report_.made = timeNow();
    }

    Result<Report> gather() {
        auto condition = conditionOf(catalogue_);
        RETURN_IF_FAILED(condition);
        report_.condition = std::move(*condition);
        for (const auto& [part, taken] : {std::pair{ReportPart::copies, &Gathering::takeSets},
                                          {ReportPart::claims, &Gathering::takeClaims},
                                          {ReportPart::damage, &Gathering::takeDamage},
                                          {ReportPart::fixity, &Gathering::takeFixity},
                                          {ReportPart::missing, &Gathering::takeMissing},
                                          {ReportPart::proofs, &Gathering::takeProofs}}) {
            const auto outcome = report_.choices.parts.contains(part) ? (this->*taken)() : done();
            RETURN_IF_FAILED(outcome);
        }
        return std::move(report_);
    }

  private:
    const std::vector<Volume>& volumes() const { return report_.condition.volumes; }

    ReportedHolding named(const Holding& holding) {
        const auto number = numbers_.try_emplace(holding.id, numbers_.size() + 1).first->second;
        const auto volume = std::ranges::find(volumes(), holding.volume, &Volume::id);
        const bool isKnown = volume != volumes().end();
        return {number, isKnown ? volume->label : std::string(),
                report_.choices.paths && isKnown ? joinPath(volume->root, holding.path) : BytePath(),
                holding.size};
    }

    /// False once the run is cancelled.
    bool goesOn(std::string_view what, std::size_t so, std::size_t of) {
        Progress progress;
        progress.files = so;
        progress.totalFiles = of;
        progress.at = what;
        onProgress_(progress);
        return control_.proceed();
    }
    static Error stopped() { return {Cause::interrupted, {}, "The report was stopped."}; }

    /// Visits holdings in the order of `ids`.
    template <typename Visit>
    Outcome each(std::string_view what, std::span<const HoldingId> ids, Visit visit) {
        for (std::size_t at = 0; at < ids.size(); at += atOnce) {
            if (!goesOn(what, at, ids.size())) {
                return stopped();
            }
            const auto holdings =
                Holdings(catalogue_).byIds(ids.subspan(at, std::min(atOnce, ids.size() - at)));
            RETURN_IF_FAILED(holdings);
            for (const auto& holding : *holdings) {
                if (const Outcome visited = visit(holding); !visited) {
                    return visited;
                }
            }
        }
        return done();
    }

    Outcome takeSets() {
        const Findings findings(catalogue_);
        const auto ids = findings.setOrder(SetOrder::mostBytes, {});
        const auto sets = ids ? findings.sets(*ids) : Result<std::vector<CopySet>>(ids.error());
        RETURN_IF_FAILED(sets);
        for (const auto& set : *sets) {
            if (!goesOn("copies", report_.sets.size(), sets->size())) {
                return stopped();
            }
            const auto detail = detailOf(catalogue_, set, volumes());
            RETURN_IF_FAILED(detail);
            auto& reported = report_.sets.emplace_back(ReportedSet{set.sameness, freedByAdvice(*detail), {}});
            for (std::size_t i = 0; i < detail->members.size(); ++i) {
                const auto& advice = detail->advice[i];
                reported.members.push_back(
                    {named(detail->members[i]), advice.advice,
                     report_.choices.paths ? advice.reasons : std::vector<std::string>()});
            }
        }
        return done();
    }

    Outcome takeClaims() {
        const EvidenceStore store(catalogue_);
        HoldingFilter contradicted;
        contradicted.verdicts = {VerdictClass::doubtful, VerdictClass::transcoded};
        const auto points = store.points(contradicted);
        RETURN_IF_FAILED(points);
        std::vector<HoldingId> ids;
        std::set<HoldingId> accepted;
        for (const auto& point : *points) {
            ids.push_back(point.holding);
            if (point.accepted) {
                accepted.insert(point.holding);
            }
        }
        return each("claims", ids, [&](const Holding& holding) -> Outcome {
            const auto evidence = store.of(holding.id);
            RETURN_IF_FAILED(evidence);
            if (*evidence) {
                const auto& bandwidth = (*evidence)->bandwidth;
                report_.claims.push_back({named(holding), holding.claims,
                                          bandwidth ? static_cast<double>(bandwidth->cutoff) : 0,
                                          (*evidence)->verdict, accepted.contains(holding.id)});
            }
            return done();
        });
    }

    Outcome takeDamage() {
        const EvidenceStore store(catalogue_);
        const auto unsound = store.unsound();
        RETURN_IF_FAILED(unsound);
        std::vector<HoldingId> damaged;
        const auto visited = Holdings(catalogue_).eachOutline([&](const HoldingOutline& outline) {
            if (outline.state == HoldingState::present &&
                (outline.troubled || unsound->contains(outline.id))) {
                damaged.push_back(outline.id);
            }
        });
        return !visited ? visited : each("damage", damaged, [&](const Holding& holding) -> Outcome {
            const auto evidence = store.of(holding.id);
            RETURN_IF_FAILED(evidence);
            report_.damage.push_back(
                {named(holding), *evidence ? (*evidence)->problems : std::vector<DecodeProblem>()});
            return done();
        });
    }

    Outcome takeFixity() {
        const FixityStore store(catalogue_);
        constexpr Nanoseconds day = 86'400'000'000'000;
        for (const auto& volume : volumes()) {
            auto& read = report_.lastRead.emplace_back(LastRead{volume.label, {}});
            const auto visited = store.eachRecordedOn(volume.id, [&](const FixityStore::Recorded& recorded) {
                if (recorded.state == HoldingState::present) {
                    const auto days = (report_.made - recorded.verified) / day;
                    const auto span =
                        std::ranges::find_if(LastRead::days, [&](int most) { return days < most; });
                    ++read.holdings[static_cast<std::size_t>(span - LastRead::days.begin())];
                }
            });
            if (!visited) {
                return visited;
            }
        }
        auto checks = store.checks();
        const auto open = store.open();
        if (!checks || !open) {
            return checks ? open.error() : checks.error();
        }
        report_.checks = std::move(*checks);
        std::vector<HoldingId> ids;
        std::map<HoldingId, const Drift*> known;
        for (const auto& drift : *open) {
            ids.push_back(drift.holding);
            known.emplace(drift.holding, &drift);
        }
        return each("fixity", ids, [&](const Holding& holding) -> Outcome {
            const auto& drift = *known.at(holding.id);
            report_.drift.push_back({named(holding), drift.kind, drift.found});
            return done();
        });
    }

    Outcome takeMissing() {
        const Holdings store(catalogue_);
        const auto missing = store.missing();
        return !missing ? Outcome(missing.error())
                        : each("missing", *missing, [&](const Holding& holding) -> Outcome {
                              const auto carrying = store.carrying(holding.checksum);
                              RETURN_IF_FAILED(carrying);
                              report_.missing.push_back({named(holding), holding.lastSeen, carrying->size()});
                              return done();
                          });
    }

    Outcome takeProofs() {
        const auto transfers = TransferStore(catalogue_).all();
        RETURN_IF_FAILED(transfers);
        for (const auto& transfer : *transfers) {
            if (transfer.proven != 0) {
                report_.proofs.push_back(
                    {transfer.id, report_.choices.paths ? transfer.folder : BytePath(), transfer.proven});
            }
        }
        return done();
    }

    const Catalogue& catalogue_;
    RunControl& control_;
    const ProgressSink& onProgress_;
    Report report_;
    std::map<HoldingId, std::size_t> numbers_;
};

constexpr std::array<std::string_view, everyReportPart.size()> words{
    "condition", "copies", "claims", "damage", "fixity", "missing", "proofs"};

} // namespace

std::string_view word(ReportPart part) {
    return words[static_cast<std::size_t>(part)];
}

std::optional<ReportPart> reportPartOf(std::string_view word) {
    const auto found = std::ranges::find(words, word);
    return found != words.end()
               ? std::optional(everyReportPart[static_cast<std::size_t>(found - words.begin())])
               : std::nullopt;
}

std::string joined(const std::vector<std::string>& reasons) {
    return fmt::format("{}", fmt::join(reasons, "; "));
}

Result<Report> reportOf(const Catalogue& catalogue, const ReportChoices& choices, RunControl& control,
                        const ProgressSink& onProgress) {
    return Gathering(catalogue, choices, control, onProgress).gather();
}

} // namespace sober
