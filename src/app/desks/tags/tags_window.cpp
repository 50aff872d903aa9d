#include "app/desks/tags/tags_window.h"

#include "app/desks/desk.h"
#include "app/desks/tags/takeover_form.h"
#include "app/theme/theme.h"
#include "app/words.h"
#include "app/wrap_label.h"

#include <QLabel>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

#include <algorithm>

namespace sober::app {
TagsWindow::TagsWindow(Workbench& workbench, std::shared_ptr<const SetDetail> detail, std::size_t keeper,
                       std::vector<Volume> volumes, QWidget* parent)
    : QDialog(parent),
      workbench_(workbench),
      detail_(std::move(detail)),
      volumes_(std::move(volumes)),
      keeper_(keeper),
      explanation_(new WrapLabel(tr("Reading the tags of all members …"), this)),
      form_(new TakeoverForm(this)),
      outcome_(new WrapLabel(this)),
      put_(new QPushButton(tr("Put on the docket"), this)) {
    setWindowTitle(tr("Take tags over"));
    resize(860, 560);
    auto* layout = titledLayout(tr("Take tags over"), this);
    explanation_->setWordWrap(true);
    explanation_->setAccessibleName(tr("What the others know"));
    layout->addWidget(explanation_);
    auto* area = new QScrollArea(this);
    area->setWidgetResizable(true);
    area->setFrameShape(QFrame::NoFrame);
    area->setWidget(form_);
    connect(form_, &TakeoverForm::changed, this, &TagsWindow::follow);
    layout->addWidget(area, 1);
    outcome_->setWordWrap(true);
    outcome_->setAccessibleName(tr("What would be written"));
    layout->addWidget(outcome_);

    put_->setDefault(true);
    put_->setEnabled(false);
    addEnding(*layout, this, put_);
    connect(put_, &QPushButton::clicked, this, [this] {
        const auto id = detail_->members[keeper_].id;
        workbench_.decide([id, change = form_->chosen(), from = chosenFrom()](const Catalogue& catalogue) {
            return planRetag(catalogue, id, change, from);
        });
        accept();
    });
    workbench_.look<SetTags>(
        this,
        [detail = detail_, keeper, volumes = volumes_](RunControl&) {
            return readSetTags(*detail, keeper, volumes);
        },
        [this](const SetTags& tags) { show(tags); });
}

void TagsWindow::show(const SetTags& tags) {
    tags_ = tags;
    const auto name = shownPath(BytePath(nameOf(detail_->members[keeper_].path)));
    if (tags_.takeover.isEmpty()) {
        explanation_->setText(
            tr("%1 stays, and the others know nothing that it does not say itself.").arg(name));
        return;
    }
    explanation_->setText(
        tr("%1 stays. What it lacks and the others agree on is chosen; where they disagree, it "
           "keeps its own unless you choose. Its audio data are not touched.")
            .arg(name));
    form_->show(
        tags_.takeover, [this](std::size_t other) { return nameOfOther(other); }, TakeoverForm::Prefer::own);
}

QString TagsWindow::nameOfOther(std::size_t other) const {
    const auto& member = detail_->members[tags_.others[other]];
    const auto volume = std::ranges::find(volumes_, member.volume, &Volume::id);
    return QStringLiteral("%1/%2").arg(volume != volumes_.end() ? shown(volume->label) : QString(),
                                       shownPath(BytePath(nameOf(member.path))));
}

std::string TagsWindow::chosenFrom() const {
    QStringList names;
    for (const auto other : form_->chosenFrom()) {
        names << nameOfOther(other);
    }
    return names.join(QStringLiteral(", ")).toStdString();
}

void TagsWindow::follow() {
    const auto change = form_->chosen();
    outcome_->setText(
        change.isEmpty()
            ? tr("Nothing would be written.")
            : tr("Would write %1. Nothing changes until the docket is carried out; what the file "
                 "was goes to the trash.")
                  .arg(shortened(told(changeWords(change)).simplified(), 160)));
    put_->setEnabled(!change.isEmpty());
}

} // namespace sober::app
