// What the workbench is told to do and works at for long: the other half of workbench.cpp.
#include "app/workbench_run.h"
#include "core/players/read_players.h"
#include "core/remedy/journal/taking_back.h"
#include "core/salvage/trash_finds.h"
#include "core/work/carry_out.h"

#include <array>

namespace sober::app {

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
        [this, sink = progressSink()](Catalogue& catalogue, RunControl& control) -> Result<SalvageSource> {
            const auto listing = listTrash(catalogue, 0, control, sink);
            RETURN_IF_FAILED(listing);
            QMetaObject::invokeMethod(this, [this, unread = listing->unread] { tellUnread(unread); });
            const auto source = SalvageStore(catalogue).sourceOf({});
            return source ? Result(source->value_or(SalvageSource{})) : Result<SalvageSource>(source.error());
        },
        [this](const SalvageSource& source) { emit scanned(source); });
}

/// What of the trash could not be looked into.
void Workbench::tellUnread(const std::vector<Error>& unread) {
    if (!unread.empty()) {
        const auto others = static_cast<int>(unread.size()) - 1;
        emit failed(told(unread.front().sentence) +
                    (others > 0 ? tr(" %n more could not be looked into.", nullptr, others) : QString()));
    }
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

} // namespace sober::app
