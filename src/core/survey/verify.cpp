#include "core/survey/verify.h"

#include "core/base/text.h"
#include "core/catalogue/evidence_store.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/ledger_store.h"
#include "core/catalogue/volumes.h"
#include "core/evidence/file_content.h"
#include "core/evidence/worker/evidence_worker.h"
#include "core/survey/volume_identity.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <chrono>

namespace sober {
namespace {

constexpr std::size_t together = 256; // holdings between two writes

class Verifier {
  public:
    Verifier(Catalogue& catalogue, const VerifyRequest& request, RunControl& control,
             const ProgressSink& onProgress, std::vector<Volume> volumes)
        : catalogue_(catalogue),
          store_(catalogue),
          request_(request),
          control_(control),
          onProgress_(onProgress),
          volumes_(std::move(volumes)),
          random_(request.seed) {}

    Result<VerifyReport> run(const std::vector<VerifyTarget>& targets) {
        std::vector<VerifyPlan> plans;
        for (const auto& target : targets) {
            auto plan = planVerification(
                store_, target, {request_.scope, request_.reading.strong, request_.extent, request_.missRisk},
                random_);
            RETURN_IF_FAILED(plan);
            progress_.totalFiles += plan->toRead.size();
            progress_.totalBytes += plan->bytes;
            plans.push_back(std::move(*plan));
        }
        for (std::size_t at = 0; at < plans.size() && !control_.isCancelled(); ++at) {
            RETURN_IF_FAILED(verify(plans[at]));
        }
        report_.interrupted = control_.isCancelled();
        return std::move(report_);
    }

  private:
    Outcome verify(const VerifyPlan& plan) {
        const auto& target = plan.target;
        for (const auto id : plan.missing) {
            if (const auto reported = reportMissing(id, target.volume.root, true); !reported) {
                return reported;
            }
        }
        check_ = plan.goesOn.value_or(FixityCheck{0, target.volume.id, timeNow(), 0, request_.scope,
                                                  request_.reading.strong, plan.toRead.size()});
        if (check_.id == 0 && target.isWholeVolume()) {
            const auto begun = store_.beginCheck(check_);
            RETURN_IF_FAILED(begun);
            check_.id = *begun;
        }
        const auto checkedBefore = report_.checked;
        const auto bytesBefore = report_.bytesRead;
        const auto base = check_;
        for (std::size_t at = 0; at < plan.toRead.size() && control_.proceed(); at += together) {
            const auto some = std::span(plan.toRead).subspan(at, std::min(together, plan.toRead.size() - at));
            if (const auto read = readSome(target, some); !read) {
                return read;
            }
            check_.checked = base.checked + report_.checked - checkedBefore;
            check_.bytes = base.bytes + report_.bytesRead - bytesBefore;
            if (const auto kept = check_.id != 0 ? store_.updateCheck(check_) : done(); !kept) {
                return kept;
            }
        }
        if (control_.isCancelled() || check_.id == 0) {
            return done();
        }
        check_.ended = timeNow();
        return store_.updateCheck(check_);
    }

    Outcome readSome(const VerifyTarget& target, std::span<const HoldingId> ids) {
        const auto recorded = store_.recorded(ids);
        RETURN_IF_FAILED(recorded);
        const auto& plan = *recorded;
        if (plan.empty()) {
            return done();
        }
        std::vector<BytePath> paths;
        std::ranges::transform(plan, std::back_inserter(paths), [&](const FixityStore::Recorded& each) {
            const auto path = joinPath(target.volume.root, each.path);
            return target.volume.choices.followLinks ? realPathOf(path).value_or(path) : path;
        });
        std::vector<std::optional<Result<FixityReading>>> readings(plan.size());
        readForFixity(
            paths, request_.reading, control_,
            [&](std::uint64_t bytes) {
                progress_.bytes += bytes;
                report_.bytesRead += bytes;
                tellSometimes(paths.front());
            },
            [&](std::size_t at, Result<FixityReading> reading) { readings[at] = std::move(reading); });
        std::vector<HoldingId> good;
        for (std::size_t at = 0; at < plan.size(); ++at) {
            if (!readings[at]) {
                continue; // cancelled before it
            }
            const auto judged = judge(target, plan[at], paths[at], *readings[at]);
            RETURN_IF_FAILED(judged);
            if (*judged) {
                good.push_back(plan[at].id);
            }
            ++progress_.files;
        }
        tell(paths.front());
        return store_.markVerified(good, timeNow());
    }

    /// True where the holding is what was last written down of it.
    Result<bool> judge(const VerifyTarget& target, const FixityStore::Recorded& holding, const BytePath& path,
                       const Result<FixityReading>& reading) {
        if (!reading) {
            switch (reading.error().cause) {
            case Cause::interrupted:
                return false;
            case Cause::notFound:
                return reportGone(target, holding);
            default:
                ++report_.checked;
                ++check_.unreadable;
                report_.errors.push_back({path, reading.error().sentence});
                return false;
            }
        }
        ++report_.checked;
        if (!reading->unreadable.empty()) {
            return noteUnreadable(holding, path, reading->unreadable);
        }
        const auto recorded = store_.blocksOf(holding.id);
        RETURN_IF_FAILED(recorded);
        const bool same = reading->blocks == *recorded && hasSameDigest(holding, *reading);
        if (!same) {
            const auto taken = takeChanged(target, holding, path);
            return taken ? Result<bool>(false) : Result<bool>(taken.error());
        }
        if (holding.drifted) {
            RETURN_IF_FAILED(learnKind(target, holding, path));
            const auto reported = reportDrift(holding, path);
            return reported ? Result<bool>(true) : Result<bool>(reported.error());
        }
        ++report_.unchanged;
        return true;
    }

    /// What a survey at index effort has seen of a change does not always tell its kind.
    Outcome learnKind(const VerifyTarget& target, const FixityStore::Recorded& holding,
                      const BytePath& path) {
        const auto facts = store_.factsOf(holding.id);
        if (!facts || !*facts || (*facts)->payload) {
            return facts ? done() : Outcome(facts.error());
        }
        const auto record = worker_.examine(path, control_, [](std::uint64_t) {});
        if (!record) {
            return done();
        }
        HoldingWriter writer(catalogue_, target.volume.id, timeNow());
        writer.rewrite(holding.id, *record, "changed", holding.path);
        return writer.commit();
    }

    /// Where a SHA-256 was recorded and read, it has to hold too.
    bool hasSameDigest(const FixityStore::Recorded& holding, const FixityReading& reading) const {
        if (!reading.sha256) {
            return true;
        }
        const auto known = Holdings(catalogue_).byIds(std::array{holding.id});
        return !known || known->empty() || !known->front().sha256 || known->front().sha256 == reading.sha256;
    }

    /// The content is another: it is examined, and written down with its baseline kept.
    Outcome takeChanged(const VerifyTarget& target, const FixityStore::Recorded& holding,
                        const BytePath& path) {
        auto record = worker_.examine(path, control_, [](std::uint64_t) {});
        if (!record && !control_.isCancelled()) {
            record = recordOfBytes(path, control_); // that it is another is known, whatever its decoder says
        }
        if (!record && control_.isCancelled()) {
            return done();
        }
        if (!record) {
            ++check_.unreadable;
            report_.errors.push_back({path, record.error().sentence});
            return done();
        }
        HoldingWriter writer(catalogue_, target.volume.id, timeNow());
        writer.rewrite(holding.id, *record, "changed", holding.path);
        if (const auto written = writer.commit(); !written) {
            return written;
        }
        return reportDrift(holding, path);
    }

    Outcome reportDrift(const FixityStore::Recorded& holding, const BytePath& path) {
        const auto id = holding.id;
        const auto drift = store_.of(id);
        const auto now = store_.blocksOf(id);
        if (!drift || !now) {
            return drift ? now.error() : drift.error();
        }
        if (!*drift || (*drift)->accepted != 0) {
            ++report_.unchanged; // it is what was recorded again
            return done();
        }
        ++check_.drifted;
        return add(
            {id, path, (*drift)->kind, differingBlocks((*drift)->recorded.blocks, *now), {}, holding.drifted},
            **drift);
    }

    Outcome reportMissing(HoldingId id, const BytePath& root, bool known) {
        const auto holdings = Holdings(catalogue_).byIds(std::array{id});
        RETURN_IF_FAILED(holdings);
        return holdings->empty()
                   ? done()
                   : add({id, joinPath(root, holdings->front().path), DriftKind::missing, {}, {}, known},
                         lossOf(holdings->front()));
    }

    /// What is recorded of the missing is their baseline.
    static Drift lossOf(const Holding& missing) {
        Drift drift;
        drift.holding = missing.id;
        drift.kind = DriftKind::missing;
        drift.recorded.content = missing.checksum;
        return drift;
    }

    Outcome add(FoundDrift drift, const Drift& recorded) {
        const auto copies = store_.carriersOf(recorded);
        RETURN_IF_FAILED(copies);
        for (const auto& copy : *copies) {
            const auto volume = std::ranges::find(volumes_, copy.volume, &Volume::id);
            if (copy.id != drift.holding && volume != volumes_.end() && volume->atHand) {
                drift.healthy.push_back(joinPath(volume->root, copy.path));
            }
        }
        const auto outside = store_.outsideCopiesOf(recorded.recorded.content);
        RETURN_IF_FAILED(outside);
        std::ranges::copy(*outside, std::back_inserter(drift.healthy));
        report_.drift.push_back(std::move(drift));
        return done();
    }

    /// Not at its place: missing, unless the whole volume has gone.
    Result<bool> reportGone(const VerifyTarget& target, const FixityStore::Recorded& holding) {
        if (!isAtHand(catalogue_, target.volume, mountsNow())) {
            return Error{Cause::notFound, target.volume.root,
                         "The volume " + target.volume.label +
                             " vanished while it was read. Nothing was taken for missing."};
        }
        const auto away = awayWithin(catalogue_, target.volume, mountsNow());
        RETURN_IF_FAILED(away);
        if (std::ranges::any_of(*away,
                                [&](const BytePath& folder) { return isWithin(holding.path, folder); })) {
            report_.errors.push_back({joinPath(target.volume.root, holding.path),
                                      displayPath(joinPath(target.volume.root, holding.path)) +
                                          ": what was mounted there is away; it is not missing."});
            return false;
        }
        ++report_.checked;
        ++check_.drifted;
        HoldingWriter writer(catalogue_, target.volume.id, timeNow());
        writer.markMissing(holding.id, holding.path, holding.verified);
        RETURN_IF_FAILED(writer.commit());
        const auto added = reportMissing(holding.id, target.volume.root, false);
        return added ? Result<bool>(false) : Result<bool>(added.error());
    }

    Result<bool> noteUnreadable(const FixityStore::Recorded& holding, const BytePath& path,
                                std::span<const ByteRange> ranges) {
        std::uint64_t bytes = 0;
        for (const auto& [first, past] : ranges) {
            bytes += past - first;
        }
        ++check_.unreadable;
        report_.errors.push_back(
            {path, fmt::format("{}: the drive could not read {} of it, from byte {} on.", displayPath(path),
                               humanBytes(bytes), humanCount(ranges.front().first))});
        const auto noted = store_.noteUnreadable(holding.id, ranges);
        return noted ? Result<bool>(false) : Result<bool>(noted.error());
    }

    double elapsed() const {
        return std::chrono::duration<double>(std::chrono::steady_clock::now() - began_).count();
    }

    /// Twenty times a second at most: it would take its time from the reading.
    void tellSometimes(const BytePath& at) {
        constexpr double often = 0.05; // seconds
        if (elapsed() - progress_.elapsed >= often) {
            tell(at);
        }
    }

    void tell(const BytePath& at) {
        progress_.elapsed = elapsed();
        progress_.errors = report_.errors.size() + report_.drift.size();
        progress_.at = displayPath(BytePath(parentOf(at)));
        onProgress_(progress_);
    }

    Catalogue& catalogue_;
    FixityStore store_;
    const VerifyRequest& request_;
    RunControl& control_;
    const ProgressSink& onProgress_;
    std::vector<Volume> volumes_;
    std::mt19937 random_;
    EvidenceWorker worker_;
    FixityCheck check_;
    VerifyReport report_;
    Progress progress_;
    std::chrono::steady_clock::time_point began_ = std::chrono::steady_clock::now();
};

std::string summaryOf(const VerifyReport& report) {
    return fmt::format("{} verified, {} unchanged, {} drifted, {} missing, {} unreadable{}",
                       counted(report.checked, "holding"), humanCount(report.unchanged),
                       humanCount(report.drifted()), humanCount(report.missing()),
                       humanCount(report.errors.size()),
                       report.interrupted ? ", stopped before the end" : "");
}

} // namespace

Result<VerifyReport> verifyHoldings(Catalogue& catalogue, const VerifyRequest& request, RunControl& control,
                                    const ProgressSink& onProgress) {
    auto volumes = Volumes(catalogue).all();
    RETURN_IF_FAILED(volumes);
    const auto targets = verifyTargets(*volumes, request.paths);
    RETURN_IF_FAILED(targets);
    const LedgerStore ledger(catalogue);
    const auto entry = ledger.open("verify", "verifying", std::nullopt);
    RETURN_IF_FAILED(entry);
    auto report = Verifier(catalogue, request, control, onProgress, std::move(*volumes)).run(*targets);
    const auto closed = ledger.close(*entry, report ? summaryOf(*report) : report.error().sentence);
    return closed ? std::move(report) : Result<VerifyReport>(closed.error());
}

} // namespace sober
