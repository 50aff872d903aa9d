#include "app/docket/progress_strip.h"

#include "app/theme/theme.h"
#include "app/words.h"
#include "app/wrap_label.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QProgressBar>
#include <QPushButton>
#include <QVBoxLayout>

namespace sober::app {
namespace {

QString nameOfWork(LongWork work) {
    switch (work) {
    case LongWork::survey:
        return ProgressStrip::tr("Surveying");
    case LongWork::verify:
        return ProgressStrip::tr("Verifying");
    case LongWork::seek:
        return ProgressStrip::tr("Looking for copies");
    case LongWork::carryOut:
        return ProgressStrip::tr("Carrying out");
    case LongWork::undo:
        return ProgressStrip::tr("Taking back");
    case LongWork::transfer:
        return ProgressStrip::tr("Transferring");
    case LongWork::proof:
        return ProgressStrip::tr("Proving");
    case LongWork::scan:
        return ProgressStrip::tr("Salvaging");
    case LongWork::inboxes:
        return ProgressStrip::tr("Looking at the inboxes");
    case LongWork::better:
        return ProgressStrip::tr("Looking for better ones");
    case LongWork::disc:
        return ProgressStrip::tr("Reading a disc");
    case LongWork::catalogue:
        return ProgressStrip::tr("Looking after the catalogue");
    case LongWork::intake:
        return ProgressStrip::tr("Taking in");
    case LongWork::imageWriting:
        return ProgressStrip::tr("Writing an image");
    case LongWork::imaging:
        return ProgressStrip::tr("Making an image");
    case LongWork::trash:
        return ProgressStrip::tr("Looking at what was found");
    case LongWork::opening:
    case LongWork::none:
        break;
    }
    return {};
}

} // namespace

QString progressText(const Progress& progress) {
    QStringList parts;
    if (progress.totalFiles > 0) {
        parts << ProgressStrip::tr("%1 of %2 files")
                     .arg(told(humanCount(progress.files)), told(humanCount(progress.totalFiles)));
    } else if (progress.files > 0) {
        parts << ProgressStrip::tr("%1 found").arg(told(humanCount(progress.files)));
    }
    if (progress.totalBytes > 0) {
        parts << ProgressStrip::tr("%1 of %2")
                     .arg(told(humanBytes(progress.bytes)), told(humanBytes(progress.totalBytes)));
        parts << ProgressStrip::tr("%1/s").arg(
            told(humanBytes(static_cast<std::uint64_t>(progress.bytesPerSecond()))));
    }
    if (const double left = progress.remaining(); left >= 0) {
        parts << ProgressStrip::tr("%1 left").arg(told(humanSeconds(left)));
    }
    if (progress.errors > 0) {
        parts << ProgressStrip::tr("%1 could not be read").arg(told(humanCount(progress.errors)));
    }
    return parts.join(QStringLiteral(" · "));
}

ProgressStrip::ProgressStrip(Workbench& workbench, QWidget* parent)
    : QFrame(parent),
      workbench_(workbench),
      text_(new WrapLabel(this)),
      at_(new QLabel(this)),
      bar_(new QProgressBar(this)),
      pause_(new QPushButton(tr("Pause"), this)),
      cancel_(new QPushButton(tr("Cancel"), this)) {
    setObjectName(QStringLiteral("strip"));
    auto* layout = new QHBoxLayout(this);
    layout->setContentsMargins(20, 6, 20, 6);
    layout->setSpacing(12);
    auto* words = new QVBoxLayout;
    words->setSpacing(2);
    text_->setWordWrap(true);
    words->addWidget(text_);
    at_->setProperty("tone", "quiet");
    at_->setFont(Theme::bytes(11));
    at_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
    words->addWidget(at_);
    layout->addLayout(words, 3);
    bar_->setTextVisible(false);
    bar_->setRange(0, 1000);
    layout->addWidget(bar_, 1);
    layout->addWidget(pause_);
    layout->addWidget(cancel_);
    connect(&workbench_, &Workbench::longWorkChanged, this, &ProgressStrip::followWork);
    connect(&workbench_, &Workbench::progressed, this, &ProgressStrip::show);
    connect(pause_, &QPushButton::clicked, this,
            [this] { workbench_.isPaused() ? workbench_.goOn() : workbench_.pause(); });
    connect(cancel_, &QPushButton::clicked, this, [this] {
        cancel_->setEnabled(false);
        workbench_.cancel();
    });
    followWork();
}

void ProgressStrip::followWork() {
    const auto work = workbench_.longWork();
    const bool shownWork = work != LongWork::none && work != LongWork::opening;
    if (shownWork && !isVisible()) {
        bar_->setValue(0);
        at_->clear();
        cancel_->setEnabled(true);
        text_->setText(nameOfWork(work) + QStringLiteral(" …"));
    }
    setVisible(shownWork);
    pause_->setText(workbench_.isPaused() ? tr("Go on") : tr("Pause"));
    cancel_->setText(work == LongWork::survey || work == LongWork::verify || work == LongWork::seek ||
                             work == LongWork::scan || work == LongWork::trash || work == LongWork::imaging ||
                             work == LongWork::imageWriting || work == LongWork::inboxes
                         ? tr("Cancel")
                         : tr("Stop after this file"));
}

void ProgressStrip::show(const Progress& progress) {
    const QString paused = workbench_.isPaused() ? tr(" (paused)") : QString();
    text_->setText(nameOfWork(workbench_.longWork()) + paused + QStringLiteral(": ") +
                   progressText(progress));
    at_->setText(
        at_->fontMetrics().elidedText(shown(progress.at), Qt::ElideMiddle, std::max(80, at_->width())));
    const double share = progress.totalBytes > 0
                             ? static_cast<double>(progress.bytes) / static_cast<double>(progress.totalBytes)
                         : progress.totalFiles > 0
                             ? static_cast<double>(progress.files) / static_cast<double>(progress.totalFiles)
                             : 0;
    bar_->setValue(static_cast<int>(share * 1000));
}

} // namespace sober::app
