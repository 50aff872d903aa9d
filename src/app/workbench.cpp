#include "app/workbench.h"

#include "app/words.h"
#include "core/audit/refresh_findings.h"
#include "core/catalogue/findings.h"
#include "core/players/read_players.h"
#include "core/remedy/journal/taking_back.h"
#include "core/salvage/trash_finds.h"
#include "core/survey/volume_identity.h"
#include "core/work/carry_out.h"
#include "core/work/open_for_work.h"
#include "core/work/take_in_survey.h"

#include <array>
#include <chrono>

namespace sober::app {

Workbench::Workbench(BytePath catalogue)
    : path_(std::move(catalogue)),
      writer_(std::make_shared<std::optional<Catalogue>>()),
      decider_(std::make_shared<std::optional<Catalogue>>()),
      reader_(std::make_shared<std::optional<Catalogue>>()),
      relinker_(std::make_shared<std::optional<Catalogue>>()),
      searcher_(std::make_shared<std::optional<Catalogue>>()),
      planner_(std::make_shared<std::optional<Catalogue>>()),
      long_(std::make_unique<WorkThread>()),
      decisions_(std::make_unique<WorkThread>()),
      questions_(std::make_unique<WorkThread>()),
      looks_(std::make_unique<WorkThread>()),
      relinks_(std::make_unique<WorkThread>()),
      searches_(std::make_unique<WorkThread>()),
      plans_(std::make_unique<WorkThread>()) {}

Workbench::~Workbench() {
    cancel();
    if (lookControl_) {
        lookControl_->cancel();
    }
    if (relinkControl_) {
        relinkControl_->cancel();
    }
    giveUpSearch();
    giveUpPlan();
    looks_.reset();
    plans_.reset();
    relinks_.reset();
    searches_.reset();
    long_.reset();
    decisions_.reset();
    questions_.reset();
}

void Workbench::open() {
    begin(LongWork::opening);
    long_->post([this] {
        // What came or went is looked at afterwards, so that the first screen does not wait for it.
        auto opened = openAndRecover(path_);
        std::optional<Error> failure;
        QStringList recovered;
        if (opened) {
            auto decider = Catalogue::openBeside(opened->catalogue);
            auto reader = Catalogue::openForReading(path_);
            auto relinker = Catalogue::openForReading(path_);
            auto searcher = Catalogue::openForReading(path_);
            auto planner = Catalogue::openForReading(path_);
            if (decider && reader && relinker && searcher && planner) {
                planner_->emplace(std::move(*planner));
                relinker_->emplace(std::move(*relinker));
                searcher_->emplace(std::move(*searcher));
                decider_->emplace(std::move(*decider));
                reader_->emplace(std::move(*reader));
                writer_->emplace(std::move(opened->catalogue));
            } else {
                failure = !decider    ? decider.error()
                          : !reader   ? reader.error()
                          : !relinker ? relinker.error()
                          : !searcher ? searcher.error()
                                      : planner.error();
            }
            for (const auto& sentence : opened->recovered) {
                recovered << told(sentence);
            }
        } else {
            failure = opened.error();
        }
        QMetaObject::invokeMethod(this, [this, failure, recovered] {
            end();
            open_ = !failure;
            if (failure) {
                emit couldNotOpen(told(failure->sentence));
            } else {
                emit this->opened(recovered);
                emit contentChanged();
                emit docketChanged();
                lookForVolumes();
                readPlayers();
            }
        });
    });
}

void Workbench::begin(LongWork work) {
    longWork_ = work;
    control_ = std::make_shared<RunControl>();
    emit longWorkChanged();
}

void Workbench::end() {
    longWork_ = LongWork::none;
    control_.reset();
    emit longWorkChanged();
    QMetaObject::invokeMethod(
        this,
        [this] {
            tend({});
            survey({});
        },
        Qt::QueuedConnection);
}

void Workbench::pause() {
    if (control_) {
        control_->pause();
        emit longWorkChanged();
    }
}

void Workbench::goOn() {
    if (control_) {
        control_->goOn();
        emit longWorkChanged();
    }
}

void Workbench::cancel() {
    surveysWaiting_.clear();
    if (control_) {
        control_->cancel();
    }
}

/// Hands progress over at most twenty times a second.
ProgressSink Workbench::progressSink() {
    auto last = std::make_shared<std::chrono::steady_clock::time_point>();
    return [this, last](const Progress& progress) {
        const auto now = std::chrono::steady_clock::now();
        if (now - *last < std::chrono::milliseconds(50)) {
            return;
        }
        *last = now;
        QMetaObject::invokeMethod(this, [this, progress] { emit progressed(progress); });
    };
}

/// Runs `work(catalogue, control)` on the long thread, brings the findings up to date, and calls
/// `then(result)` here.
template <typename Work, typename Then>
void Workbench::runLong(LongWork kind, Work work, Then then) {
    begin(kind);
    long_->post([this, work, then, control = control_] {
        auto result = work(**writer_, *control);
        const auto refreshed = refreshFindings(**writer_);
        QMetaObject::invokeMethod(this, [this, then, result, refreshed] {
            end();
            if (!result) {
                emit failed(told(result.error().sentence));
            }
            if (!refreshed) {
                emit failed(told(refreshed.error().sentence));
            }
            emit contentChanged();
            emit docketChanged();
            if (result) {
                then(*result);
            }
        });
    });
}

void Workbench::survey(std::vector<SurveyRequest> requests, std::function<Outcome(const Catalogue&)> first) {
    for (auto& request : requests) {
        surveysWaiting_.push_back({std::move(request), std::exchange(first, {})});
    }
    if (longWork_ != LongWork::none || surveysWaiting_.empty() || !open_) {
        return;
    }
    const auto waiting = surveysWaiting_.front();
    surveysWaiting_.erase(surveysWaiting_.begin());
    runLong(
        LongWork::survey,
        [waiting, sink = progressSink()](Catalogue& catalogue, RunControl& control) -> Result<SurveyReport> {
            RETURN_IF_FAILED(waiting.first ? waiting.first(catalogue) : done());
            auto report = surveyVolume(catalogue, waiting.request, control, sink);
            if (report) {
                const auto taken = takeInSurvey(catalogue, *report, control, sink);
                RETURN_IF_FAILED(taken);
                report->interrupted = report->interrupted || *taken;
            }
            return report;
        },
        [this](const SurveyReport& report) { emit surveyed(report); });
}

void Workbench::tend(Tending work) {
    if (work) {
        tendingWaiting_.push_back(std::move(work));
    }
    if (longWork_ != LongWork::none || tendingWaiting_.empty() || !open_) {
        return;
    }
    auto next = std::move(tendingWaiting_.front());
    tendingWaiting_.erase(tendingWaiting_.begin());
    runLong(
        LongWork::catalogue,
        [work = std::move(next), sink = progressSink()](Catalogue& catalogue, RunControl& control) {
            return work(catalogue, control, sink);
        },
        [this](const std::string& sentence) {
            emit tended(told(sentence));
            emit volumesChanged();
        });
}

void Workbench::verify(VerifyRequest request) {
    if (longWork_ != LongWork::none || !open_) {
        return;
    }
    runLong(
        LongWork::verify,
        [request = std::move(request), sink = progressSink()](Catalogue& catalogue, RunControl& control) {
            return verifyHoldings(catalogue, request, control, sink);
        },
        [this](const VerifyReport& report) { emit verified(report); });
}

void Workbench::seek(const BytePath& folder) {
    if (longWork_ != LongWork::none || !open_) {
        return;
    }
    runLong(
        LongWork::seek,
        [folder, sink = progressSink()](Catalogue& catalogue, RunControl& control) {
            return seekHealthyCopies(catalogue, std::array{folder}, control, sink);
        },
        [this](const SeekReport& report) { emit sought(report); });
}

void Workbench::carryOut() {
    if (longWork_ != LongWork::none || !open_) {
        return;
    }
    runLong(
        LongWork::carryOut,
        [sink = progressSink()](Catalogue& catalogue, RunControl& control) {
            CarryOutHooks hooks;
            hooks.onProgress = sink;
            return sober::carryOut(catalogue, control, hooks);
        },
        [this](const CarriedOut& result) { emit carriedOut(result); });
}

void Workbench::undo(EntryId entry) {
    if (longWork_ != LongWork::none || !open_) {
        return;
    }
    runLong(
        LongWork::undo,
        [entry, sink = progressSink()](Catalogue& catalogue, RunControl& control) {
            CarryOutHooks hooks;
            hooks.onProgress = sink;
            return undoEntry(catalogue, entry, control, hooks);
        },
        [this](const CarriedOut& result) { emit undone(result); });
}

void Workbench::giveUpPlan() {
    if (planControl_) {
        planControl_->cancel();
    }
}

void Workbench::plan(TransferRequest request) {
    giveUpPlan();
    planControl_ = std::make_shared<RunControl>();
    using Planned = std::shared_ptr<const Result<TransferPlan>>;
    post<Planned>(
        plans_, planner_, this,
        [request = std::move(request),
         control = planControl_](const Catalogue& catalogue) -> Result<Planned> {
            return Planned(
                std::make_shared<Result<TransferPlan>>(planTransfer(catalogue, request, *control)));
        },
        [this, control = planControl_](const Planned& plan) {
            if (control->isCancelled()) {
                return;
            }
            if (*plan) {
                emit planned({plan, &plan->value()});
            } else {
                emit couldNotPlan(told(plan->error().sentence));
            }
        });
}

void Workbench::runTransfer(TransferId transfer) {
    runKept([transfer](const Catalogue&) { return Result(transfer); });
}

void Workbench::runPlan(std::shared_ptr<const TransferPlan> plan) {
    runKept([plan = std::move(plan)](const Catalogue& catalogue) { return keepPlan(catalogue, *plan); });
}

void Workbench::runKept(std::function<Result<TransferId>(const Catalogue&)> which) {
    if (longWork_ != LongWork::none || !open_) {
        return;
    }
    runLong(
        LongWork::transfer,
        [which = std::move(which), sink = progressSink()](Catalogue& catalogue, RunControl& control) {
            const auto transfer = which(catalogue);
            if (!transfer) {
                return Result<CarriedOut>(transfer.error());
            }
            CarryOutHooks hooks;
            hooks.onProgress = sink;
            const auto run = sober::runTransfer(catalogue, *transfer, control, hooks);
            return run ? Result(run->carried) : Result<CarriedOut>(run.error());
        },
        [this](const CarriedOut& carried) { emit transferred(carried); });
}

void Workbench::proveTransfer(TransferId transfer) {
    if (longWork_ != LongWork::none || !open_) {
        return;
    }
    using Proof = std::shared_ptr<const TransferProof>;
    runLong(
        LongWork::proof,
        [transfer, sink = progressSink()](Catalogue& catalogue, RunControl& control) -> Result<Proof> {
            auto proven = sober::proveTransfer(catalogue, transfer, control, sink);
            return proven ? Result(Proof(std::make_shared<TransferProof>(std::move(proven->proof))))
                          : Result<Proof>(proven.error());
        },
        [this](const Proof& proof) { emit this->proven(proof); });
}

void Workbench::scan(ScanChoices choices) {
    if (longWork_ != LongWork::none || !open_) {
        return;
    }
    using namespace std::chrono;
    const auto onFound = [this, last = std::make_shared<steady_clock::time_point>()] {
        constexpr auto apart = milliseconds(700); // what is shown is asked for anew
        if (const auto now = steady_clock::now(); now - *last > apart) {
            *last = now;
            QMetaObject::invokeMethod(this, [this] { emit foundMore(); });
        }
    };
    runLong(
        LongWork::scan,
        [choices = std::move(choices), sink = progressSink(), onFound](Catalogue& catalogue,
                                                                       RunControl& control) {
            return scanForAudio(catalogue, choices, control, sink, onFound);
        },
        [this](const SalvageSource& source) { emit scanned(source); });
}

void Workbench::makeImage(ImagingRequest request) {
    if (longWork_ != LongWork::none || !open_) {
        return;
    }
    const auto onMap = [this](const ImageMap& map) {
        QMetaObject::invokeMethod(this, [this, map] { emit imaging(map); });
    };
    runLong(
        LongWork::imaging,
        [request, sink = progressSink(), onMap](Catalogue& /*catalogue*/, RunControl& control) {
            return sober::makeImage(request, control, sink, onMap);
        },
        [this, image = request.image](const ImageMap& map) { emit imaged(image, map); });
}

void Workbench::writeImage(ImageWriting request) {
    if (longWork_ != LongWork::none || !open_) {
        return;
    }
    runLong(
        LongWork::imageWriting,
        [request = std::move(request), sink = progressSink()](Catalogue& catalogue, RunControl& control) {
            return sober::writeImage(catalogue, request, control, sink);
        },
        [this](const WrittenImage& written) {
            emit imageWritten(written);
            emit contentChanged();
        });
}

void Workbench::lookAtInboxes(std::function<Outcome(const Catalogue&)> first) {
    if (longWork_ != LongWork::none || !open_) {
        return;
    }
    using Arrivals = std::shared_ptr<const std::vector<Arrival>>;
    runLong(
        LongWork::inboxes,
        [first = std::move(first), sink = progressSink()](Catalogue& catalogue,
                                                          RunControl& control) -> Result<Arrivals> {
            const auto changed = first ? first(catalogue) : done();
            const auto surveyed = changed ? surveyInboxes(catalogue, control, sink) : changed;
            auto arrivals = surveyed ? lookAtArrivals(catalogue, control)
                                     : Result<std::vector<Arrival>>(surveyed.error());
            return arrivals ? Result(Arrivals(std::make_shared<std::vector<Arrival>>(std::move(*arrivals))))
                            : Result<Arrivals>(arrivals.error());
        },
        [this](const Arrivals& arrivals) {
            emit contentChanged();
            emit arrivalsSeen(arrivals);
        });
}

void Workbench::takeArrivals(IntakeRequest request) {
    if (longWork_ != LongWork::none || !open_) {
        return;
    }
    runLong(
        LongWork::intake,
        [request = std::move(request), sink = progressSink()](Catalogue& catalogue, RunControl& control) {
            CarryOutHooks hooks;
            hooks.onProgress = sink;
            return sober::takeArrivals(catalogue, request, control, hooks);
        },
        [this](const CarriedOut& result) {
            emit contentChanged();
            emit docketChanged();
            emit tookIn(result);
        });
}

void Workbench::lookForBetter(const std::string& text) {
    if (longWork_ != LongWork::none || !open_) {
        return;
    }
    using Look = std::shared_ptr<const WantedLook>;
    runLong(
        LongWork::better,
        [text, sink = progressSink()](Catalogue& catalogue, RunControl& control) -> Result<Look> {
            const auto wanted = wantedHoldings(catalogue, text);
            auto look = wanted ? sober::lookForBetter(catalogue, *wanted, true, control, sink)
                               : Result<WantedLook>(wanted.error());
            return look ? Result(Look(std::make_shared<WantedLook>(std::move(*look))))
                        : Result<Look>(look.error());
        },
        [this](const Look& look) { emit betterFound(look); });
}

void Workbench::planReplacement(ReplaceRequest request) {
    if (longWork_ != LongWork::none || !open_) {
        return;
    }
    runLong(
        LongWork::better,
        [request = std::move(request), sink = progressSink()](Catalogue& catalogue, RunControl& control) {
            return sober::planReplacement(catalogue, request, control, sink);
        },
        [this](const PlannedReplacement& planned) {
            emit docketChanged();
            emit replacementPlanned(planned);
        });
}

void Workbench::readDisc(DiscRequest request) {
    if (longWork_ != LongWork::none || !open_) {
        return;
    }
    using Read = std::shared_ptr<const DiscRead>;
    DiscHooks hooks;
    hooks.onProgress = progressSink();
    hooks.onSectors = [this](int first, std::span<const SectorReading> sectors) {
        QMetaObject::invokeMethod(
            this, [this, first, all = std::vector<SectorReading>(sectors.begin(), sectors.end())] {
                emit discSectors(first, all);
            });
    };
    hooks.onTrack = [this](const RippedTrack& track) {
        QMetaObject::invokeMethod(this, [this, track] { emit discTrack(track); });
    };
    runLong(
        LongWork::disc,
        [request = std::move(request), hooks](Catalogue& catalogue, RunControl& control) -> Result<Read> {
            auto read = sober::readDisc(catalogue, request, control, hooks);
            return read ? Result(Read(std::make_shared<DiscRead>(std::move(*read))))
                        : Result<Read>(read.error());
        },
        [this](const Read& read) { emit discRead(read); });
}

void Workbench::planAdvised(std::shared_ptr<const std::vector<WantedRow>> rows) {
    if (longWork_ != LongWork::none || !open_) {
        return;
    }
    runLong(
        LongWork::better,
        [rows = std::move(rows), sink = progressSink()](Catalogue& catalogue, RunControl& control) {
            return sober::planAdvised(catalogue, *rows, false, control, sink);
        },
        [this](const PlannedRows& planned) {
            emit docketChanged();
            emit advisedPlanned(planned);
        });
}

void Workbench::lookAtTrash() {
    if (longWork_ != LongWork::none || !open_) {
        return;
    }
    runLong(
        LongWork::trash,
        [sink = progressSink()](Catalogue& catalogue, RunControl& control) -> Result<SalvageSource> {
            const auto listing = listTrash(catalogue, 0, control, sink);
            RETURN_IF_FAILED(listing);
            const auto source = SalvageStore(catalogue).sourceOf({});
            return source ? Result(source->value_or(SalvageSource{})) : Result<SalvageSource>(source.error());
        },
        [this](const SalvageSource& source) { emit scanned(source); });
}

void Workbench::planTake(TakeRequest request) {
    if (longWork_ != LongWork::none || !open_) {
        return;
    }
    runLong(
        LongWork::trash,
        [request = std::move(request)](Catalogue& catalogue, RunControl& control) {
            return sober::planTake(catalogue, request, control);
        },
        [this](const std::vector<PlannedTake>& planned) { emit takePlanned(planned); });
}

void Workbench::readPlayers() {
    post<PlayersRead>(
        decisions_, decider_, this,
        [](const Catalogue& catalogue) {
            RunControl control;
            return sober::readPlayers(catalogue, control);
        },
        [this](const PlayersRead& read) {
            if (read.lists > 0) {
                emit contentChanged();
            }
        });
}

void Workbench::takeInPlayer(const Player& player) {
    post<Player>(
        decisions_, decider_, this,
        [player](const Catalogue& catalogue) {
            RunControl control;
            return sober::takeInPlayer(catalogue, player, control);
        },
        [this](const Player&) { emit contentChanged(); });
}

void Workbench::relink(RelinkRequest request) {
    if (relinkControl_) {
        relinkControl_->cancel();
    }
    relinkControl_ = std::make_shared<RunControl>();
    post<std::shared_ptr<const Relinking>>(
        relinks_, relinker_, this,
        [request = std::move(request),
         control = relinkControl_](const Catalogue& catalogue) -> Result<std::shared_ptr<const Relinking>> {
            if (control->isCancelled()) {
                return std::shared_ptr<const Relinking>();
            }
            auto relinking = sober::relink(catalogue, request, *control);
            return relinking ? Result(std::shared_ptr<const Relinking>(
                                   std::make_shared<Relinking>(std::move(*relinking))))
                             : Result<std::shared_ptr<const Relinking>>(relinking.error());
        },
        [this](const std::shared_ptr<const Relinking>& relinking) {
            if (relinking && !relinking->interrupted) {
                emit relinked(relinking);
            }
        });
}

void Workbench::giveUp(const Latest& latest) {
    if (!latest.outdated_) {
        return;
    }
    *latest.outdated_ = true;
    const std::lock_guard lock(askingMutex_);
    if (asking_ == latest.outdated_ && reader_->has_value()) {
        (*reader_)->interrupt();
    }
}

bool Workbench::beginQuestion(const std::shared_ptr<std::atomic<bool>>& outdated) {
    if (!outdated) {
        return true;
    }
    const std::lock_guard lock(askingMutex_);
    asking_ = outdated;
    return !*outdated;
}

void Workbench::endQuestion(const std::shared_ptr<std::atomic<bool>>& outdated) {
    if (outdated) {
        const std::lock_guard lock(askingMutex_);
        asking_.reset();
    }
}

void Workbench::giveUpSearch() {
    if (searchControl_) {
        searchControl_->cancel();
        if (open_) {
            (*searcher_)->interrupt();
        }
    }
}

void Workbench::search(HoldingFilter filter) {
    giveUpSearch();
    searchControl_ = std::make_shared<RunControl>();
    using Found = std::shared_ptr<const SearchResult>;
    post<Found>(
        searches_, searcher_, this,
        [this, filter = std::move(filter),
         control = searchControl_](const Catalogue& catalogue) -> Result<Found> {
            if (control->isCancelled()) {
                return Found();
            }
            auto result =
                sober::search(catalogue, filter, *control, [&](const std::vector<HoldingId>& first) {
                    QMetaObject::invokeMethod(this, [this, control, first] {
                        if (!control->isCancelled()) {
                            emit searchBegan(first);
                        }
                    });
                });
            if (!result && control->isCancelled()) {
                return Found();
            }
            return result ? Result(Found(std::make_shared<SearchResult>(std::move(*result))))
                          : Result<Found>(result.error());
        },
        [this, control = searchControl_](const Found& result) {
            if (result && !control->isCancelled()) {
                emit searched(result);
            }
        });
}

void Workbench::lookForVolumes() {
    if (longWork_ != LongWork::none || !open_) {
        return;
    }
    long_->post([this] {
        const auto stale = Findings(**writer_).areStale();
        const auto changed = lookAgain(**writer_);
        if (!changed) {
            return;
        }
        QStringList recovered;
        for (const auto& sentence : changed->recovered) {
            recovered << told(sentence);
        }
        if (changed->volumesChanged || (stale && *stale)) {
            QMetaObject::invokeMethod(this, [this, recovered] {
                if (!recovered.isEmpty()) {
                    emit settled(recovered);
                }
                emit volumesChanged();
                emit contentChanged();
                emit docketChanged();
            });
        }
    });
}

void Workbench::decide(std::function<Outcome(const Catalogue&)> work) {
    post<Nothing>(decisions_, decider_, this, std::move(work),
                  [this](const Nothing&) { emit docketChanged(); });
}

} // namespace sober::app
