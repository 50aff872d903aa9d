#pragma once

#include "app/words.h"
#include "app/work_thread.h"
#include "core/audit/relink.h"
#include "core/base/run_control.h"
#include "core/catalogue/catalogue.h"
#include "core/catalogue/search.h"
#include "core/remedy/make_image.h"
#include "core/remedy/write_image.h"
#include "core/salvage/scan_image.h"
#include "core/survey/seek.h"
#include "core/survey/survey.h"
#include "core/survey/verify.h"
#include "core/transfer/plan.h"
#include "core/work/carry_out.h"
#include "core/work/prove_transfer.h"
#include "core/work/read_disc.h"
#include "core/work/replace_holding.h"
#include "core/work/run_transfer.h"
#include "core/work/take_arrivals.h"
#include "core/work/take_finds.h"

#include <QObject>
#include <QPointer>

#include <atomic>
#include <memory>
#include <mutex>
#include <optional>

namespace sober::app {

/// What long work is going on.
enum class LongWork {
    none,
    opening,
    survey,
    verify,
    seek,
    carryOut,
    undo,
    transfer,
    proof,
    scan,
    trash,
    imaging,
    imageWriting,
    inboxes,
    intake,
    better,
    disc,
    catalogue,
};

/// Questions of one kind, of which only the last that was asked counts.
class Latest {
    friend class Workbench;
    std::shared_ptr<std::atomic<bool>> outdated_;
};

/// The program's hands: keeps the catalogue open and does all work off the interface thread. Long
/// work, short decisions, questions, searches and looks at files run on threads of their own, so that none
/// waits for another. All members are called, and all signals arrive, on the interface thread.
class Workbench : public QObject {
    Q_OBJECT

  public:
    explicit Workbench(BytePath catalogue);
    ~Workbench() override;

    const BytePath& cataloguePath() const { return path_; }
    /// Opens the catalogue; `opened` or `couldNotOpen` follows.
    void open();
    bool isOpen() const { return open_; }

    LongWork longWork() const { return longWork_; }
    /// Long work is going on or waits for its turn.
    bool isBusy() const {
        return longWork_ != LongWork::none || !surveysWaiting_.empty() || !tendingWaiting_.empty();
    }
    /// Everything asked so far has been answered.
    bool isIdle() const { return unanswered_ == 0; }
    bool isPaused() const { return control_ && control_->isPaused(); }
    void pause();
    void goOn();
    void cancel();

    /// Surveys one after another; each ends with `surveyed` or `failed`. `first` is done before the first of
    /// these; where it fails they are left out.
    void survey(std::vector<SurveyRequest> requests, std::function<Outcome(const Catalogue&)> first = {});
    /// Looks after the catalogue itself, after what is going on; `tended` with what was done, or `failed`.
    using Tending = std::function<Result<std::string>(Catalogue&, RunControl&, const ProgressSink&)>;
    void tend(Tending work);
    /// Reads holdings again; ends with `verified` or `failed`.
    void verify(VerifyRequest request);
    /// Looks in a folder for healthy copies of what drifted or is missing; ends with `sought` or `failed`.
    void seek(const BytePath& folder);
    void carryOut();
    void undo(EntryId entry);
    /// Plans a transfer on a thread of its own: `planned` or `couldNotPlan` follows; a plan that is still
    /// being made is given up for the next. Nothing changes.
    void plan(TransferRequest request);
    void giveUpPlan();
    /// Carries out a transfer that was kept, or goes on with it; ends with `transferred` or `failed`.
    void runTransfer(TransferId transfer);
    /// Keeps a plan and carries it out.
    void runPlan(std::shared_ptr<const TransferPlan> plan);
    /// Proves it; ends with `proven` or `failed`.
    void proveTransfer(TransferId transfer);
    /// Looks through an image or a drive for audio, or goes on with it; `foundMore` follows now and then, at
    /// the end `scanned` or `failed`.
    void scan(ScanChoices choices);
    /// Makes an image of a drive, or goes on with it; `imaging` follows now and then, at the end `imaged` or
    /// `failed`.
    void makeImage(ImagingRequest request);
    /// Writes one over a drive; ends with `imageWritten` or `failed`.
    void writeImage(ImageWriting request);
    /// Surveys the inboxes and judges what lies there; ends with `arrivalsSeen` or `failed`. `first` may
    /// change which inboxes there are.
    void lookAtInboxes(std::function<Outcome(const Catalogue&)> first = {});
    /// Does with arrivals what is advised; ends with `tookIn` or `failed`.
    void takeArrivals(IntakeRequest request);
    /// Looks for something better than what could be, among holdings and at the offer shelf; ends with
    /// `betterFound` or `failed`.
    void lookForBetter(const std::string& text);
    /// Judges, fetches where needed, and puts on the docket what fits: `replacementPlanned` or `failed`.
    void planReplacement(ReplaceRequest request);
    /// Many by their best: `advisedPlanned` or `failed`.
    void planAdvised(std::shared_ptr<const std::vector<WantedRow>> rows);
    /// Reads a disc, or goes on with it; `discSectors` and `discTrack` follow meanwhile, at the end
    /// `discRead` or `failed`. Its files are on the docket then.
    void readDisc(DiscRequest request);
    /// Looks at what lies in the trash; ends with `scanned` or `failed`.
    void lookAtTrash();
    /// Puts finds on the docket; ends with `takePlanned` or `failed`.
    void planTake(TakeRequest request);
    /// Reads the players' lists that have changed, then emits `contentChanged`.
    void readPlayers();
    /// Takes lists in as a player's, then emits `contentChanged`.
    void takeInPlayer(const Player& player);
    /// Looks for the targets of broken references on a thread of its own, ends with `relinked`; a search that
    /// is still going on is given up for the next.
    void relink(RelinkRequest request);
    /// Looks through all that is catalogued on a thread of its own: `searched` follows, before it
    /// `searchBegan` where that takes a while. A search that is still going on is given up for the next.
    void search(HoldingFilter filter);
    /// Looks for volumes that came or went, unless long work is going on.
    void lookForVolumes();

    /// Does a short piece of writing, then emits `docketChanged`.
    void decide(std::function<Outcome(const Catalogue&)> work);

    /// Asks the catalogue; `answer` is called on the interface thread unless `asker` is gone by then.
    template <typename T>
    void ask(QObject* asker, std::function<Result<T>(const Catalogue&)> question,
             std::function<void(const T&)> answer) {
        post(questions_, reader_, asker, std::move(question), std::move(answer));
    }
    /// The same in place of what was asked before as `latest`: that is given up, in the middle too, and
    /// nobody hears of it.
    template <typename T>
    void askLatest(Latest& latest, QObject* asker, std::function<Result<T>(const Catalogue&)> question,
                   std::function<void(const T&)> answer) {
        giveUp(latest);
        latest.outdated_ = std::make_shared<std::atomic<bool>>(false);
        post(questions_, reader_, asker, std::move(question), std::move(answer), latest.outdated_);
    }
    /// What was asked last is not wanted any more.
    void giveUp(const Latest& latest);

    /// Looks at a file, without the catalogue, on a thread of its own; a look that is still going on is
    /// given up for the next.
    template <typename T>
    void look(QObject* asker, std::function<Result<T>(RunControl&)> work,
              std::function<void(const T&)> answer) {
        if (lookControl_) {
            lookControl_->cancel();
        }
        lookControl_ = std::make_shared<RunControl>();
        ++unanswered_;
        looks_->post([this, control = lookControl_, guard = QPointer<QObject>(asker), work = std::move(work),
                      answer = std::move(answer)] {
            auto result = std::make_shared<Result<T>>(work(*control));
            QMetaObject::invokeMethod(this, [this, guard, answer, result] {
                --unanswered_;
                if (*result && guard) {
                    answer(**result);
                } else if (!*result && result->error().cause != Cause::interrupted) {
                    emit failed(told(result->error().sentence));
                }
            });
        });
    }

  signals:
    void opened(const QStringList& recovered);
    /// What waited for a volume was ended once that came to hand.
    void settled(const QStringList& sentences);
    void couldNotOpen(const QString& sentence);
    void longWorkChanged();
    void progressed(const sober::Progress& progress);
    void surveyed(const sober::SurveyReport& report);
    void verified(const sober::VerifyReport& report);
    void sought(const sober::SeekReport& report);
    void relinked(std::shared_ptr<const sober::Relinking> relinking);
    void searchBegan(const std::vector<sober::HoldingId>& first); ///< some of what will be found
    void searched(std::shared_ptr<const sober::SearchResult> result);
    void planned(std::shared_ptr<const sober::TransferPlan> plan);
    void couldNotPlan(const QString& sentence);
    void transferred(const sober::CarriedOut& result);
    void proven(std::shared_ptr<const sober::TransferProof> proof);
    void foundMore();
    void imaging(const sober::ImageMap& map);
    void imaged(const sober::BytePath& image, const sober::ImageMap& map);
    void tookIn(const sober::CarriedOut& result);
    void arrivalsSeen(std::shared_ptr<const std::vector<sober::Arrival>> arrivals);
    void betterFound(std::shared_ptr<const sober::WantedLook> look);
    void replacementPlanned(const sober::PlannedReplacement& planned);
    void discSectors(int first, const std::vector<sober::SectorReading>& sectors);
    void discTrack(const sober::RippedTrack& track);
    void discRead(std::shared_ptr<const sober::DiscRead> read);
    void advisedPlanned(const sober::PlannedRows& planned);
    void imageWritten(const sober::WrittenImage& written);
    void scanned(const sober::SalvageSource& source);
    void takePlanned(const std::vector<sober::PlannedTake>& planned);
    void tended(const QString& sentence);
    void carriedOut(const sober::CarriedOut& result);
    void undone(const sober::CarriedOut& result);
    void contentChanged(); ///< holdings, findings or the ledger are others now
    void docketChanged();
    void volumesChanged();
    void failed(const QString& sentence);

  private:
    void tellUnread(const std::vector<Error>& unread);
    template <typename T>
    void post(std::unique_ptr<WorkThread>& thread, std::shared_ptr<std::optional<Catalogue>>& catalogue,
              QObject* asker, std::function<Result<T>(const Catalogue&)> question,
              std::function<void(const T&)> answer, std::shared_ptr<std::atomic<bool>> outdated = {}) {
        if (!thread) {
            return;
        }
        ++unanswered_;
        thread->post([this, catalogue, outdated, guard = QPointer<QObject>(asker),
                      question = std::move(question), answer = std::move(answer)] {
            if (!catalogue->has_value() || !beginQuestion(outdated)) {
                QMetaObject::invokeMethod(this, [this] { --unanswered_; });
                return;
            }
            auto result = std::make_shared<Result<T>>(question(**catalogue));
            endQuestion(outdated);
            QMetaObject::invokeMethod(this, [this, outdated, guard, answer, result] {
                --unanswered_;
                if (outdated && *outdated) {
                    return;
                }
                if (!*result) {
                    emit failed(told(result->error().sentence));
                } else if (guard) {
                    answer(**result);
                }
            });
        });
    }

    /// On the thread of the questions: false where nobody wants to know any more.
    bool beginQuestion(const std::shared_ptr<std::atomic<bool>>& outdated);
    void endQuestion(const std::shared_ptr<std::atomic<bool>>& outdated);
    void begin(LongWork work);
    void end();
    void giveUpSearch();
    void runKept(std::function<Result<TransferId>(const Catalogue&)> which);
    template <typename Work, typename Then>
    void runLong(LongWork kind, Work work, Then then);
    ProgressSink progressSink();

    BytePath path_;
    bool open_ = false;
    LongWork longWork_ = LongWork::none;
    int unanswered_ = 0;
    struct WaitingSurvey {
        SurveyRequest request;
        std::function<Outcome(const Catalogue&)> first; ///< may be empty
    };
    std::vector<WaitingSurvey> surveysWaiting_;
    std::vector<Tending> tendingWaiting_;
    std::shared_ptr<RunControl> control_;
    std::shared_ptr<std::optional<Catalogue>> writer_;
    std::shared_ptr<std::optional<Catalogue>> decider_;
    std::shared_ptr<std::optional<Catalogue>> reader_;
    std::mutex askingMutex_;
    std::shared_ptr<std::atomic<bool>>
        asking_; ///< of the question that is being answered, where it may be given up
    std::shared_ptr<std::optional<Catalogue>> relinker_;
    std::shared_ptr<std::optional<Catalogue>> searcher_;
    std::shared_ptr<std::optional<Catalogue>> planner_;
    std::unique_ptr<WorkThread> long_;
    std::unique_ptr<WorkThread> decisions_;
    std::unique_ptr<WorkThread> questions_;
    std::unique_ptr<WorkThread> looks_;
    std::unique_ptr<WorkThread> relinks_;
    std::unique_ptr<WorkThread> searches_;
    std::unique_ptr<WorkThread> plans_;
    std::shared_ptr<RunControl> lookControl_;
    std::shared_ptr<RunControl> relinkControl_;
    std::shared_ptr<RunControl> searchControl_;
    std::shared_ptr<RunControl> planControl_;
};

} // namespace sober::app
