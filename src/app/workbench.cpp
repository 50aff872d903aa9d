#include "app/workbench.h"

#include "app/workbench_run.h"
#include "core/catalogue/findings.h"
#include "core/survey/volume_identity.h"
#include "core/work/open_for_work.h"
#include "core/work/take_in_survey.h"

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
    ++unanswered_;
    long_->post([this] {
        const auto stale = Findings(**writer_).areStale();
        const auto changed = lookAgain(**writer_);
        QStringList recovered;
        for (const auto& sentence : changed ? changed->recovered : std::vector<std::string>()) {
            recovered << told(sentence);
        }
        const bool isNew = changed && (changed->volumesChanged || (stale && *stale));
        QMetaObject::invokeMethod(this, [this, recovered, isNew] {
            --unanswered_;
            if (!recovered.isEmpty()) {
                emit settled(recovered);
            }
            if (isNew) {
                emit volumesChanged();
                emit contentChanged();
                emit docketChanged();
            }
        });
    });
}

void Workbench::decide(std::function<Outcome(const Catalogue&)> work) {
    post<Nothing>(decisions_, decider_, this, std::move(work),
                  [this](const Nothing&) { emit docketChanged(); });
}

} // namespace sober::app
