#include "app/docket/schedule_window.h"

#include "app/desks/desk.h"
#include "app/theme/theme.h"
#include "app/words.h"
#include "app/wrap_label.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QVBoxLayout>

namespace sober::app {

ScheduleWindow::ScheduleWindow(Workbench& workbench, BytePath program, QWidget* parent)
    : QDialog(parent),
      workbench_(workbench),
      program_(std::move(program)),
      catalogue_(placeOf(workbench.cataloguePath()).value_or(workbench.cataloguePath())),
      every_(new QComboBox(this)),
      files_(new QPlainTextEdit(this)),
      state_(new WrapLabel(this)),
      act_(new QPushButton(this)) {
    setWindowTitle(tr("Check on a schedule"));
    setAttribute(Qt::WA_DeleteOnClose);
    resize(860, 640);
    auto* layout = titledLayout(windowTitle(), this);
    auto* words = new WrapLabel(
        tr("systemd reads again what is due while you are logged in, without these windows, and the desktop "
           "tells you when something is found that was not known. These two files are written for it, "
           "and nothing else."),
        this);
    words->setWordWrap(true);
    layout->addWidget(words);
    auto* row = new QHBoxLayout;
    row->setSpacing(8);
    every_->addItems({tr("every day"), tr("every week"), tr("every month")});
    every_->setCurrentIndex(1);
    every_->setAccessibleName(tr("How often"));
    row->addWidget(every_);
    row->addWidget(state_, 1);
    state_->setAccessibleName(tr("Whether a check is scheduled"));
    state_->setWordWrap(true);
    layout->addLayout(row);
    files_->setReadOnly(true);
    files_->setStyleSheet(
        QStringLiteral("font-family: \"%1\"; font-size: 12px;").arg(Theme::bytes(12).family()));
    files_->setLineWrapMode(QPlainTextEdit::NoWrap);
    files_->setAccessibleName(tr("The files"));
    layout->addWidget(files_, 1);
    auto* buttons = new QHBoxLayout;
    auto* close = new QPushButton(tr("Close"), this);
    close->setAutoDefault(false);
    act_->setProperty("weight", "main");
    act_->setDefault(true);
    buttons->addStretch(1);
    buttons->addWidget(close);
    buttons->addWidget(act_);
    layout->addLayout(buttons);
    connect(close, &QPushButton::clicked, this, &QDialog::reject);
    connect(act_, &QPushButton::clicked, this, [this] { act(); });
    connect(every_, &QComboBox::currentIndexChanged, this, [this] { showState(); });
    showState();
    every_->setFocus();
}

CheckEvery ScheduleWindow::every() const {
    return static_cast<CheckEvery>(every_->currentIndex());
}

void ScheduleWindow::showState() {
    const bool scheduled = isCheckScheduled();
    state_->setText(scheduled ? tr("A check is scheduled.") : tr("No check is scheduled."));
    act_->setText(scheduled ? tr("Remove it") : tr("Install it"));
    every_->setEnabled(!scheduled);
    QString text;
    for (const auto& unit : scheduledCheckUnits(program_, catalogue_, every())) {
        text += QStringLiteral("# %1\n%2\n").arg(shownPath(unit.path), shown(unit.text));
    }
    files_->setPlainText(text + tr("# To remove it by hand:\n%1").arg(shown(howToUnschedule())));
}

/// systemd is asked off the interface thread: it may take its time.
void ScheduleWindow::act() {
    act_->setEnabled(false);
    state_->setText(tr("Asking systemd…"));
    workbench_.look<std::string>(
        this,
        [program = program_, catalogue = catalogue_, often = every()](RunControl&) {
            const auto outcome =
                isCheckScheduled() ? unscheduleCheck() : scheduleCheck(program, catalogue, often);
            return Result<std::string>(outcome ? std::string() : outcome.error().sentence);
        },
        [this](const std::string& trouble) {
            act_->setEnabled(true);
            showState();
            if (!trouble.empty()) {
                state_->setText(told(trouble));
            }
        });
}

} // namespace sober::app
