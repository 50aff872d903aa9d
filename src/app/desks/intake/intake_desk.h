#pragma once

#include "app/desks/desk.h"
#include "app/lists/list_view.h"
#include "app/lists/row_list_model.h"
#include "core/work/take_arrivals.h"

class QCheckBox;
class QFileSystemWatcher;
class QLabel;
class QTimer;

namespace sober::app {

class ArrivalChart;
class ListeningBar;

/// What came, and whether it is better than what is held. Inboxes are watched while the program runs: what
/// lands there is looked at once it rests.
class IntakeDesk : public Desk {
    Q_OBJECT

  public:
    explicit IntakeDesk(Workbench& workbench);

  signals:
    void replacementWanted();
    void discWanted();

  protected:
    void reload() override;

  private:
    void buildHeading();
    void buildRows();
    void buildEvidence();
    void show(const std::vector<Arrival>& arrivals);
    void watch(const std::vector<Inbox>& inboxes);
    void look();
    void askForInbox();
    void askForLatest(const Inbox& inbox);
    void removeInbox();
    void editTags();
    void retire();
    void replaceHeld();
    void take();
    void leave();
    void showChosen();
    std::vector<const Arrival*> selected() const;

    ArrivalChart* chart_;
    RowListModel<Arrival>* arrivals_ = nullptr;
    ListView* list_ = nullptr;
    QCheckBox* mend_ = nullptr;
    QLabel* title_ = nullptr;
    QLabel* reasons_ = nullptr;
    QLabel* held_ = nullptr;
    QLabel* proposals_ = nullptr;
    ListeningBar* listening_ = nullptr;
    QFileSystemWatcher* watcher_;
    QTimer* rests_; ///< until what has landed rests
    std::vector<Inbox> inboxes_;
    bool hasLooked_ = false;  ///< since the program was started
    std::set<BytePath> left_; ///< arrivals that somebody wants to leave, for now
};

} // namespace sober::app
