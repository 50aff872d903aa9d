#pragma once

#include "app/desks/desk.h"
#include "app/theme/inks.h"
#include "core/catalogue/records.h"

#include <QMainWindow>

class QLabel;

namespace sober::app {

class DeskRoom;
class ClaimsDesk;
class ConditionDesk;
class CopiesDesk;
class DocketStrip;
class DocketWindow;
class HelpWindow;
class FindDesk;
class SalvageDesk;
class IntakeDesk;
class DiscDesk;
class ReplacementDesk;
class TransferDesk;
class LedgerDesk;
class ProgressStrip;
class Shelf;
class Spine;
class FixityDesk;
class WhereaboutsDesk;

/// The frame: spine and shelf at the left, the desk in the middle, the docket along the bottom.
class MainWindow : public QMainWindow {
    Q_OBJECT

  public:
    explicit MainWindow(Workbench& workbench);
    /// Takes what is called like a list in as a player's, and surveys the rest.
    void takeIn(const std::vector<BytePath>& places);

    void openDesk(int desk);
    void showDesk(const Desk* desk);
    void showReplacement();
    void showPage(Desk* page);
    void openDocket();
    void openSchedule();
    /// Asks for a folder and surveys it.
    void chooseFolder();

  protected:
    void closeEvent(QCloseEvent* event) override;
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dropEvent(QDropEvent* event) override;

  private:
    void buildFrame();
    void buildMenus();
    void openHelp(const QString& heading);
    void makeReportOfIt();
    void writeLabels();
    void saveCatalogueAs();
    void bringCatalogueBackFrom();
    void connectWork();
    void countOpen();
    void countFinds();
    void setOpen(const Desk* desk, std::uint64_t count);
    void surveyAgain(std::optional<Effort> effort);
    void usePaper(Paper paper);
    void say(const QString& text);
    void restore();

    Workbench& workbench_;
    Spine* spine_;
    Shelf* shelf_;
    DeskRoom* middle_;
    std::vector<Desk*> desks_;
    ConditionDesk* condition_;
    CopiesDesk* copies_;
    ClaimsDesk* claims_;
    FixityDesk* fixity_;
    WhereaboutsDesk* whereabouts_;
    LedgerDesk* ledger_;
    FindDesk* find_;
    TransferDesk* transfer_;
    SalvageDesk* salvage_;
    IntakeDesk* intake_;
    ReplacementDesk* replacement_; ///< a page of Intake
    DiscDesk* disc_;               ///< another
    QWidget* closedPage_;
    QLabel* closedText_;
    ProgressStrip* progress_;
    DocketStrip* docket_;
    QLabel* message_;
    QPointer<DocketWindow> docketWindow_;
    QPointer<HelpWindow> help_;
};

} // namespace sober::app
