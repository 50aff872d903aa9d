#include "app/main_window.h"

#include "app/ask_path.h"
#include "app/desk_room.h"
#include "app/desks/claims/claims_desk.h"
#include "app/desks/condition/condition_desk.h"
#include "app/desks/copies/copies_desk.h"
#include "app/desks/disc/disc_desk.h"
#include "app/desks/find/find_desk.h"
#include "app/desks/fixity/fixity_desk.h"
#include "app/desks/intake/intake_desk.h"
#include "app/desks/intake/replacement_desk.h"
#include "app/desks/ledger/ledger_desk.h"
#include "app/desks/ledger/ledger_words.h"
#include "app/desks/salvage/salvage_desk.h"
#include "app/desks/transfer/transfer_desk.h"
#include "app/desks/whereabouts/whereabouts_desk.h"
#include "app/docket/docket_strip.h"
#include "app/docket/docket_window.h"
#include "app/docket/progress_strip.h"
#include "app/docket/schedule_window.h"
#include "app/shelf/shelf.h"
#include "app/shelf/spine.h"
#include "app/theme/theme.h"
#include "app/words.h"
#include "app/wrap_label.h"
#include "core/base/text.h"
#include "core/catalogue/volumes.h"
#include "core/players/list_reading.h"

#include <QCloseEvent>
#include <QDir>
#include <QDragEnterEvent>
#include <QFile>
#include <QHBoxLayout>
#include <QLabel>
#include <QMimeData>
#include <QPushButton>
#include <QScrollArea>
#include <QSettings>
#include <QTimer>
#include <QVBoxLayout>

#include <algorithm>

namespace sober::app {
namespace {

constexpr int spineWidth = 200; ///< pixels, at least
constexpr int widestSpine = 260;
constexpr int lookInterval = 10'000; // milliseconds between looks for volumes

} // namespace

MainWindow::MainWindow(Workbench& workbench)
    : workbench_(workbench),
      spine_(new Spine(this)),
      shelf_(new Shelf(workbench, this)),
      middle_(new DeskRoom(this)),
      condition_(new ConditionDesk(workbench)),
      copies_(new CopiesDesk(workbench)),
      claims_(new ClaimsDesk(workbench)),
      fixity_(new FixityDesk(workbench)),
      whereabouts_(new WhereaboutsDesk(workbench)),
      ledger_(new LedgerDesk(workbench)),
      find_(new FindDesk(workbench)),
      transfer_(new TransferDesk(workbench)),
      salvage_(new SalvageDesk(workbench)),
      intake_(new IntakeDesk(workbench)),
      replacement_(new ReplacementDesk(workbench)),
      disc_(new DiscDesk(workbench)),
      closedPage_(new QWidget(this)),
      closedText_(new QLabel(closedPage_)),
      progress_(new ProgressStrip(workbench, this)),
      docket_(new DocketStrip(workbench, this)),
      message_(new WrapLabel(this)) {
    setWindowTitle(tr("Sober Archivist"));
    setAcceptDrops(true);
    buildFrame();
    buildMenus();
    connectWork();
    restore();
}

void MainWindow::buildFrame() {
    desks_ = {condition_, copies_, claims_,   fixity_,  whereabouts_,
              ledger_,    find_,   transfer_, salvage_, intake_};
    for (auto* desk : desks_) {
        spine_->addDesk(desk->name());
        middle_->addWidget(desk);
    }
    middle_->addWidget(replacement_);
    middle_->addWidget(disc_);
    auto* closedLayout = new QVBoxLayout(closedPage_);
    closedPage_->setObjectName(QStringLiteral("desk"));
    closedText_->setWordWrap(true);
    closedText_->setAlignment(Qt::AlignCenter);
    closedText_->setAccessibleName(tr("Why the catalogue is closed"));
    auto* again = new QPushButton(tr("Try again"), closedPage_);
    connect(again, &QPushButton::clicked, &workbench_, &Workbench::open);
    closedLayout->addStretch(2);
    closedLayout->addWidget(closedText_);
    closedLayout->addWidget(again, 0, Qt::AlignCenter);
    closedLayout->addStretch(3);
    middle_->addWidget(closedPage_);

    auto* side = new QWidget(this);
    side->setObjectName(QStringLiteral("spine"));
    side->setFixedWidth(std::clamp(spine_->sizeHint().width() + 24, spineWidth, widestSpine));
    auto* sideLayout = new QVBoxLayout(side);
    sideLayout->setContentsMargins(12, 12, 12, 12);
    sideLayout->setSpacing(8);
    sideLayout->addWidget(spine_);
    sideLayout->addSpacing(16);
    sideLayout->addWidget(quietLabel(tr("Shelf"), side));
    auto* scroll = new QScrollArea(side);
    scroll->setWidgetResizable(true);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    auto* shelfRoom = new QWidget(scroll);
    shelfRoom->setObjectName(QStringLiteral("spine"));
    auto* shelfLayout = new QVBoxLayout(shelfRoom);
    shelfLayout->setContentsMargins(0, 0, 0, 0);
    shelfLayout->addWidget(shelf_);
    shelfLayout->addStretch(1);
    scroll->setWidget(shelfRoom);
    scroll->setMinimumHeight(44);
    sideLayout->addWidget(scroll, 1);
    auto* add = new QPushButton(tr("Survey a folder…"), side);
    add->setToolTip(tr("Ctrl+N, or drop a folder on this window"));
    connect(add, &QPushButton::clicked, this, &MainWindow::chooseFolder);
    sideLayout->addWidget(add);

    auto* line = new QFrame(this);
    line->setObjectName(QStringLiteral("hairline"));
    line->setFixedWidth(1);
    auto* upper = new QHBoxLayout;
    upper->setSpacing(0);
    upper->addWidget(side);
    upper->addWidget(line);
    upper->addWidget(middle_, 1);

    message_->setContentsMargins(20, 4, 20, 4);
    message_->setWordWrap(true);
    message_->setAccessibleName(tr("Message"));
    message_->hide();

    auto* whole = new QWidget(this);
    auto* layout = new QVBoxLayout(whole);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(0);
    layout->addLayout(upper, 1);
    layout->addWidget(message_);
    layout->addWidget(progress_);
    layout->addWidget(docket_);
    setCentralWidget(whole);
}

void MainWindow::connectWork() {
    connect(spine_, &Spine::deskChosen, this, &MainWindow::openDesk);
    connect(docket_, &DocketStrip::readThroughWanted, this, &MainWindow::openDocket);
    connect(shelf_, &Shelf::surveyWanted, this,
            [this](const SurveyRequest& request) { workbench_.survey({request}); });
    connect(condition_, &ConditionDesk::surveyWanted, this, &MainWindow::chooseFolder);
    connect(condition_, &ConditionDesk::examinationWanted, this, [this] { surveyAgain(Effort::full); });
    connect(condition_, &ConditionDesk::whereaboutsWanted, this, [this] { showDesk(whereabouts_); });
    connect(condition_, &ConditionDesk::fixityWanted, this, [this] { showDesk(fixity_); });
    connect(condition_, &ConditionDesk::claimsWanted, this, [this](const QString& list) {
        claims_->showList(list);
        showDesk(claims_);
    });
    connect(condition_, &ConditionDesk::copiesWanted, this, [this](const QString& text) {
        copies_->setFilterText(text);
        showDesk(copies_);
    });
    connect(intake_, &IntakeDesk::replacementWanted, this, &MainWindow::showReplacement);
    connect(replacement_, &ReplacementDesk::arrivalsWanted, this, [this] { showDesk(intake_); });
    connect(intake_, &IntakeDesk::discWanted, this, [this] { showPage(disc_); });
    connect(disc_, &DiscDesk::arrivalsWanted, this, [this] { showDesk(intake_); });
    connect(disc_, &DiscDesk::replacementWanted, this, [this](const QString& text) {
        replacement_->showAlone(text);
        showReplacement();
    });
    connect(claims_, &ClaimsDesk::replacementWanted, this, [this](const QString& text) {
        replacement_->showAlone(text);
        showReplacement();
    });
    connect(condition_, &ConditionDesk::replacementWanted, this, [this] {
        replacement_->showAlone({});
        showReplacement();
    });
    connect(find_, &FindDesk::transferWanted, this, [this](const QString& name, const HoldingFilter& filter) {
        transfer_->bringAlong(name, filter);
        showDesk(transfer_);
    });
    connect(&workbench_, &Workbench::opened, this, [this](const QStringList& recovered) {
        openDesk(QSettings().value(QStringLiteral("desk"), 0).toInt());
        if (!recovered.isEmpty()) {
            say(tr("After an interruption: %1").arg(recovered.join(QLatin1Char(' '))));
        }
    });
    connect(&workbench_, &Workbench::settled, this, [this](const QStringList& sentences) {
        say(tr("After an interruption: %1").arg(sentences.join(QLatin1Char(' '))));
    });
    connect(&workbench_, &Workbench::couldNotOpen, this, [this](const QString& sentence) {
        closedText_->setText(sentence);
        middle_->setCurrentWidget(closedPage_);
    });
    connect(&workbench_, &Workbench::failed, this, &MainWindow::say);
    connect(&workbench_, &Workbench::tended, this, &MainWindow::say);
    connect(&workbench_, &Workbench::surveyed, this, [this](const SurveyReport& report) {
        say(tr("%1: %2 seen, %3 added, %4 changed, %5 moved, %6 missing, %7 could not be read%8.")
                .arg(shown(report.label), told(humanCount(report.seen)), told(humanCount(report.added)),
                     told(humanCount(report.changed)), told(humanCount(report.moved)),
                     told(humanCount(report.missing)), told(humanCount(report.errors.size())),
                     report.interrupted ? tr("; cancelled, what was read is kept") : QString()));
    });
    connect(&workbench_, &Workbench::verified, this, [this](const VerifyReport& report) {
        say(tr("Verified: %1 read, %2 as recorded, %3 drifted; %4 missing, %5 could not be read%6.")
                .arg(told(counted(report.checked, "holding")), told(humanCount(report.unchanged)),
                     told(humanCount(report.drifted())), told(humanCount(report.missing())),
                     told(humanCount(report.errors.size())),
                     report.interrupted ? tr("; cancelled, the next goes on there") : QString()));
    });
    connect(&workbench_, &Workbench::sought, this, [this](const SeekReport& report) {
        say(tr("Looked through %1: %2 of what has drifted or is missing.")
                .arg(told(counted(report.files, "file")),
                     told(counted(report.found.size(), "copy", "copies"))));
    });
    connect(&workbench_, &Workbench::undone, this, [this](const CarriedOut& result) {
        QString text = tr("Taken back: %1.").arg(told(counted(result.done, "action")));
        for (const auto& refused : result.refused) {
            text += QLatin1Char(' ') + told(refused.sentence);
        }
        say(text + unflushedText(result));
    });
    connect(&workbench_, &Workbench::contentChanged, this, [this] {
        shelf_->reload();
        countOpen();
        countFinds();
        for (auto* desk : desks_) {
            desk->contentChanged();
        }
        replacement_->contentChanged();
    });
    connect(&workbench_, &Workbench::docketChanged, this, [this] {
        for (auto* desk : desks_) {
            desk->docketChanged();
        }
        replacement_->docketChanged();
        docket_->reload(); // after them: its sums take longer than the rows in sight
    });
    auto* looking = new QTimer(this);
    connect(looking, &QTimer::timeout, &workbench_, &Workbench::lookForVolumes);
    looking->start(lookInterval);
}

void MainWindow::countOpen() {
    workbench_.ask<Condition>(
        this, [](const Catalogue& catalogue) { return conditionOf(catalogue); },
        [this](const Condition& condition) {
            setOpen(copies_, condition.copySets);
            setOpen(claims_, condition.total.claims);
            setOpen(fixity_, condition.drift);
            setOpen(whereabouts_, condition.total.missing + condition.brokenReferences);
        });
}

void MainWindow::countFinds() {
    workbench_.ask<std::uint64_t>(
        this, [](const Catalogue& catalogue) { return SalvageStore(catalogue).waitingForHome(); },
        [this](std::uint64_t finds) { setOpen(salvage_, finds); });
}

void MainWindow::openDesk(int desk) {
    if (desk < 0 || desk >= static_cast<int>(desks_.size()) || !workbench_.isOpen()) {
        return;
    }
    spine_->setCurrent(desk);
    middle_->setCurrentWidget(desks_[static_cast<std::size_t>(desk)]);
    desks_[static_cast<std::size_t>(desk)]->setFocus();
    QSettings().setValue(QStringLiteral("desk"), desk);
}

void MainWindow::showDesk(const Desk* desk) {
    openDesk(static_cast<int>(std::ranges::find(desks_, desk) - desks_.begin()));
}

void MainWindow::showReplacement() {
    showPage(replacement_);
}

/// One of Intake's.
void MainWindow::showPage(Desk* page) {
    showDesk(intake_);
    middle_->setCurrentWidget(page);
    page->setFocus();
}

void MainWindow::setOpen(const Desk* desk, std::uint64_t count) {
    spine_->setCount(static_cast<int>(std::ranges::find(desks_, desk) - desks_.begin()),
                     static_cast<qint64>(count));
}

void MainWindow::openSchedule() {
    const auto program = QFile::encodeName(QCoreApplication::applicationDirPath()).toStdString();
    (new ScheduleWindow(workbench_, joinPath(program, "sober"), this))->open();
}

void MainWindow::openDocket() {
    if (!workbench_.isOpen()) {
        return;
    }
    if (!docketWindow_) {
        docketWindow_ = new DocketWindow(workbench_, this);
        docketWindow_->setAttribute(Qt::WA_DeleteOnClose);
    }
    docketWindow_->open();
}

void MainWindow::chooseFolder() {
    askForFolder(this, tr("Survey a folder or drive"), [this](const BytePath& folder) {
        workbench_.survey({{folder, {}, {}, {}}});
    });
}

void MainWindow::surveyAgain(std::optional<Effort> effort) {
    workbench_.ask<std::vector<Volume>>(
        this, [](const Catalogue& catalogue) { return Volumes(catalogue).all(); },
        [this, effort](const std::vector<Volume>& volumes) {
            std::vector<SurveyRequest> requests;
            for (const auto& volume : volumes) {
                if (volume.atHand) {
                    requests.push_back({volume.root, {}, {}, effort});
                }
            }
            workbench_.survey(requests);
        });
}

void MainWindow::usePaper(Paper paper) {
    Theme::apply(*qApp, paper);
    QSettings().setValue(QStringLiteral("paper"), static_cast<int>(paper));
    for (auto* widget : findChildren<QWidget*>()) {
        widget->update();
    }
}

void MainWindow::say(const QString& text) {
    message_->setText(text);
    message_->show();
    QTimer::singleShot(20'000, message_, [this, text] {
        if (message_->text() == text) {
            message_->hide();
        }
    });
}

void MainWindow::restore() {
    const QSettings settings;
    if (!restoreGeometry(settings.value(QStringLiteral("geometry")).toByteArray())) {
        resize(1280, 800);
    }
}

void MainWindow::closeEvent(QCloseEvent* event) {
    QSettings().setValue(QStringLiteral("geometry"), saveGeometry());
    workbench_.cancel();
    event->accept();
}

void MainWindow::dragEnterEvent(QDragEnterEvent* event) {
    if (event->mimeData()->hasUrls()) {
        event->acceptProposedAction();
    }
}

void MainWindow::dropEvent(QDropEvent* event) {
    std::vector<BytePath> places;
    for (const auto& url : event->mimeData()->urls()) {
        if (url.isLocalFile()) {
            // The URL's own bytes, so that names that are no UTF-8 survive.
            const auto bytes = QByteArray::fromPercentEncoding(url.path(QUrl::FullyEncoded).toLatin1());
            places.push_back(bytes.toStdString());
        }
    }
    if (!places.empty()) {
        event->acceptProposedAction();
        takeIn(places);
    }
}

/// Told by their names: nothing waits for a drive here.
void MainWindow::takeIn(const std::vector<BytePath>& places) {
    std::vector<SurveyRequest> requests;
    Player player;
    for (const auto& place : places) {
        if (isListName(place)) {
            player.places.push_back(place);
        } else {
            requests.push_back({place, {}, {}, {}});
        }
    }
    if (!player.places.empty()) {
        workbench_.takeInPlayer(player);
    }
    if (!requests.empty()) {
        workbench_.survey(std::move(requests));
    }
}

} // namespace sober::app
