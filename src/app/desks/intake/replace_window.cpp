#include "app/desks/intake/replace_window.h"

#include "app/desks/desk.h"
#include "app/desks/tags/takeover_form.h"
#include "app/words.h"

#include <QCheckBox>
#include <QLabel>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

namespace sober::app {

QStringList stepsFor(const WantedRow& row, const Candidate& candidate) {
    QStringList steps;
    if (candidate.source == CandidateSource::offer) {
        steps << ReplaceWindow::tr(
                     "%1 is fetched, examined and laid over what is held; what is no better is refused")
                     .arg(shownPath(candidate.path));
    } else {
        steps << ReplaceWindow::tr("%1 is laid over what is held, if that was not done before")
                     .arg(shownPath(candidate.path));
    }
    steps << ReplaceWindow::tr("it is copied beside what is held, with the tags chosen, and read back")
          << ReplaceWindow::tr("%1 goes to the trash; what led there leads to the new one")
                 .arg(shownPath(row.wanted.path));
    return steps;
}

ReplaceWindow::ReplaceWindow(Workbench& workbench, const WantedRow& row, const Candidate& candidate,
                             QWidget* parent)
    : QDialog(parent),
      request_{row.wanted.path, candidate.path},
      explanation_(paragraph(tr("What will be done"), this)),
      put_(keyButton(tr("Put on the docket"), QKeySequence(Qt::CTRL | Qt::Key_Return), this)) {
    setWindowTitle(tr("Replace by a better one"));
    setAttribute(Qt::WA_DeleteOnClose);
    resize(860, 560);
    auto* layout = titledLayout(windowTitle(), this);
    QStringList lines;
    for (const auto& step : stepsFor(row, candidate)) {
        lines << tr("%1. %2.").arg(lines.size() + 1).arg(step);
    }
    explanation_->setText(lines.join(QLatin1Char('\n')));
    layout->addWidget(explanation_);
    if (candidate.source == CandidateSource::offer) {
        takeTags_ = new QCheckBox(tr("Take the new file's tags where both say something"), this);
        takeTags_->setToolTip(tr("Else what the old file says is written into the new one"));
        layout->addWidget(takeTags_);
        layout->addStretch(1);
        resize(860, 260);
    } else {
        tagsSay_ = quietLabel(tr("Reading the tags of both …"), this);
        layout->addWidget(tagsSay_);
        form_ = new TakeoverForm(this);
        auto* area = new QScrollArea(this);
        area->setWidgetResizable(true);
        area->setFrameShape(QFrame::NoFrame);
        area->setWidget(form_);
        layout->addWidget(area, 1);
        put_->setEnabled(false);
        readTags(workbench);
    }
    put_->setDefault(true);
    addEnding(*layout, this, put_, quietLabel(tr("Nothing changes before the docket is carried out."), this));
    connect(put_, &QPushButton::clicked, this, [this] {
        if (form_ != nullptr) {
            request_.tags = form_->chosen();
        } else {
            request_.takeTags = takeTags_->isChecked();
        }
        emit agreed(request_);
        accept();
    });
}

void ReplaceWindow::readTags(Workbench& workbench) {
    workbench.look<TagTakeover>(
        this,
        [request = request_](RunControl&) { return Result(takeoverOfFiles(request.by, request.holding)); },
        [this](const TagTakeover& takeover) {
            put_->setEnabled(true);
            if (takeover.isEmpty()) {
                tagsSay_->setText(tr("The new file's tags say all that the old one's say."));
                return;
            }
            tagsSay_->setText(tr("Tags of the new file. What the old one says is kept, unless you choose."));
            form_->show(
                takeover, [](std::size_t) { return tr("the old file"); }, TakeoverForm::Prefer::others);
        });
}

} // namespace sober::app
