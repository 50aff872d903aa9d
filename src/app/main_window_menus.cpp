// What the main window's menus hold, and what they do that no desk does: the other half of main_window.cpp.
#include "app/ask_path.h"
#include "app/carry_window.h"
#include "app/desks/find/find_desk.h"
#include "app/help/help_window.h"
#include "app/language/translated_page.h"
#include "app/main_window.h"
#include "app/meet_window.h"
#include "app/report_window.h"
#include "app/theme/theme.h"
#include "app/words.h"
#include "core/base/text.h"
#include "core/catalogue/catalogue_copy.h"
#include "core/remedy/write_report.h"
#include "core/report/volume_labels.h"
#include "core/work/make_report.h"
#include "core/work/open_for_work.h"

#include <QActionGroup>
#include <QMenuBar>
#include <QSettings>

#include <algorithm>

namespace sober::app {

void MainWindow::buildMenus() {
    auto* collection = menuBar()->addMenu(tr("&Collection"));
    collection->addAction(tr("&Survey a folder or drive…"), QKeySequence(Qt::CTRL | Qt::Key_N), this,
                          &MainWindow::chooseFolder);
    collection->addAction(tr("Survey all volumes &again"), QKeySequence(Qt::Key_F5), this,
                          [this] { surveyAgain({}); });
    collection->addSeparator();
    collection->addAction(tr("&Check on a schedule…"), QKeySequence(Qt::CTRL | Qt::Key_T), this,
                          &MainWindow::openSchedule);
    collection->addAction(tr("&Labels for the drives…"), this, &MainWindow::writeLabels);
    collection->addAction(tr("Make a &report…"), QKeySequence(Qt::CTRL | Qt::Key_R), this,
                          [this] { makeReportOfIt(); });
    collection->addSeparator();
    collection->addAction(tr("Sa&ve the catalogue…"), this, [this] { saveCatalogueAs(); });
    collection->addAction(tr("&Bring a saved catalogue back…"), this, [this] { bringCatalogueBackFrom(); });
    collection->addAction(tr("Carry it al&ong…"), this,
                          [this] { (new CarryWindow(workbench_, this))->open(); });
    collection->addAction(tr("&Take another catalogue in…"), this, [this] {
        askForFile(this, tr("Which catalogue?"), {},
                   [this](const BytePath& other) { (new MeetWindow(workbench_, other, this))->open(); });
    });
    collection->addSeparator();
    collection->addAction(tr("&Quit"), QKeySequence(Qt::CTRL | Qt::Key_Q), this, &QWidget::close);

    auto* desks = menuBar()->addMenu(tr("&Desk"));
    for (std::size_t i = 0; i < desks_.size(); ++i) {
        const int desk = static_cast<int>(i);
        desks->addAction(desks_[i]->name(), QKeySequence(QStringLiteral("Alt+%1").arg((desk + 1) % 10)), this,
                         [this, desk] { openDesk(desk); });
    }
    desks->addSeparator();
    desks->addAction(tr("&Find a recording"), QKeySequence(Qt::CTRL | Qt::Key_F), this, [this] {
        showDesk(find_);
        find_->beginTyping();
    });
    desks->addAction(tr("Read the &docket through…"), QKeySequence(Qt::CTRL | Qt::Key_D), this,
                     &MainWindow::openDocket);

    auto* view = menuBar()->addMenu(tr("&View"));
    auto* papers = new QActionGroup(this);
    for (const auto& [paper, name] : {std::pair{Paper::light, tr("&Light paper")},
                                      {Paper::dark, tr("&Dark paper")},
                                      {Paper::contrast, tr("&High contrast")}}) {
        auto* action = view->addAction(name, this, [this, paper = paper] { usePaper(paper); });
        action->setCheckable(true);
        action->setChecked(Theme::paper() == paper);
        papers->addAction(action);
    }

    view->addSeparator();
    auto* sizes = new QActionGroup(this);
    for (const int size : {100, 125, 150, 200}) {
        auto* action = view->addAction(tr("Size %1 %").arg(size), this, [this, size] {
            QSettings().setValue(QStringLiteral("size"), size);
            say(tr("Everything is shown at %1 % from the next start on.").arg(size));
        });
        action->setCheckable(true);
        action->setChecked(QSettings().value(QStringLiteral("size"), 100).toInt() == size);
        sizes->addAction(action);
    }

    auto* languages = view->addMenu(tr("La&nguage"));
    auto* language = new QActionGroup(this);
    QList<Language> choices{{{}, tr("As the desktop has it")}};
    for (const auto& each : choices << allLanguages()) {
        auto* action = languages->addAction(each.name, this, [this, each] {
            chooseLanguage(each.code);
            say(tr("The program speaks this language from the next start on."));
        });
        action->setCheckable(true);
        action->setChecked(languageChosen() == each.code);
        language->addAction(action);
    }

    auto* help = menuBar()->addMenu(tr("&Help"));
    help->addAction(tr("About this &desk"), QKeySequence(Qt::Key_F1), this, [this] {
        const auto all = findChildren<Desk*>();
        const auto shown = std::ranges::find_if(all, &QWidget::isVisible);
        openHelp(shown != all.end() ? guideHeadingOf(**shown) : QString());
    });
    help->addAction(tr("All &keys"), QKeySequence(Qt::SHIFT | Qt::Key_F1), this,
                    [this] { openHelp(HelpWindow::tr("All keys")); });
    help->addAction(tr("What the ma&rks mean"), this,
                    [this] { openHelp(HelpWindow::tr("What the marks mean")); });
    help->addAction(tr("What it is &made of"), this,
                    [this] { openHelp(HelpWindow::tr("What it is made of")); });
}

void MainWindow::openHelp(const QString& heading) {
    if (!help_) {
        help_ = new HelpWindow(keysPage(*this), this);
    }
    help_->showPage(heading);
    help_->show();
    help_->raise();
    help_->activateWindow();
}

void MainWindow::makeReportOfIt() {
    auto* window = new ReportWindow(this);
    connect(window, &ReportWindow::wanted, this, [this](const ReportChoices& choices, ReportForm form) {
        askWhereToWrite(
            this, tr("Write the report to"), {},
            [this, choices, form](const BytePath& to) {
                workbench_.tend([choices, form, to](Catalogue& catalogue, RunControl& control,
                                                    const ProgressSink& sink) -> Result<std::string> {
                    const auto made = makeReport(catalogue, choices, form, to, control, sink, translatedPage);
                    return made ? "The report was written to " + displayPath(to) + "."
                                : Result<std::string>(made.error());
                });
            },
            reportFileName(form));
    });
    window->open();
}

void MainWindow::writeLabels() {
    askWhereToWrite(
        this, tr("Write the labels to"), {},
        [this](const BytePath& to) {
            workbench_.tend([to](Catalogue& catalogue, RunControl&,
                                 const ProgressSink&) -> Result<std::string> {
                const auto page = volumeLabels(catalogue);
                const auto written = page ? writeReportTo(to, translatedPage(*page)) : Outcome(page.error());
                return written
                           ? "The labels were written to " + displayPath(to) + ". Print them from a browser."
                           : Result<std::string>(written.error());
            });
        },
        QStringLiteral("labels.html"));
}

void MainWindow::saveCatalogueAs() {
    askWhereToWrite(this, tr("Save the catalogue as"), {}, [this](const BytePath& to) {
        workbench_.tend(
            [to](Catalogue& catalogue, RunControl& control, const ProgressSink& sink) -> Result<std::string> {
                const auto saved = saveCatalogue(catalogue, to, control, sink);
                return saved ? "The catalogue was saved as " + displayPath(to) + "."
                             : Result<std::string>(saved.error());
            });
    });
}

void MainWindow::bringCatalogueBackFrom() {
    askForFile(this, tr("Which saved catalogue?"), BytePath(parentOf(workbench_.cataloguePath())),
               [this](const BytePath& from) {
                   workbench_.tend([from](Catalogue& catalogue, RunControl& control,
                                          const ProgressSink& sink) -> Result<std::string> {
                       const auto brought = bringBack(catalogue, from, control, sink);
                       return brought
                                  ? "The catalogue is what it was when it was saved. What it was before is "
                                    "kept as " +
                                        displayPath(brought->kept) +
                                        ". Survey the volumes to see what is there now."
                                  : Result<std::string>(brought.error());
                   });
               });
}

} // namespace sober::app
