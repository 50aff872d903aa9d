#include "app/desks/preference_window.h"

#include "app/desks/desk.h"
#include "app/theme/theme.h"
#include "app/words.h"

#include <QComboBox>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>

namespace sober::app {

PreferenceWindow::PreferenceWindow(Workbench& workbench, std::vector<SetId> shownSets,
                                   std::vector<SetId> chosen, std::vector<Volume> volumes, QWidget* parent)
    : QDialog(parent),
      workbench_(workbench),
      shown_(std::move(shownSets)),
      chosen_(std::move(chosen)),
      volumes_(std::move(volumes)),
      preference_(new QComboBox(this)),
      scope_(new QComboBox(this)),
      outcome_(new QLabel(this)),
      put_(new QPushButton(tr("Put on the docket"), this)) {
    setWindowTitle(tr("Decide many sets"));
    setMinimumWidth(520);
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(20, 16, 20, 16);
    layout->setSpacing(12);
    auto* title = new QLabel(tr("Decide many sets"), this);
    title->setFont(Theme::title(20));
    layout->addWidget(title);

    preference_->setAccessibleName(tr("What to prefer"));
    preference_->addItem(tr("the copy that the evidence speaks for"),
                         QPoint(static_cast<int>(Preference::evidence), 0));
    preference_->addItem(tr("the better-named copy"), QPoint(static_cast<int>(Preference::betterNamed), 0));
    preference_->addItem(tr("the copy written first"), QPoint(static_cast<int>(Preference::older), 0));
    for (const auto& volume : volumes_) {
        preference_->addItem(tr("the copy on %1").arg(shown(volume.label)),
                             QPoint(static_cast<int>(Preference::onVolume), static_cast<int>(volume.id)));
    }
    scope_->setAccessibleName(tr("Which sets"));
    if (!chosen_.empty()) {
        scope_->addItem(tr("the %1 selected sets").arg(shown(humanCount(chosen_.size()))));
    }
    scope_->addItem(tr("all %1 sets in the list").arg(shown(humanCount(shown_.size()))));
    auto* form = new QFormLayout;
    form->setSpacing(8);
    form->addRow(tr("Keep"), preference_);
    form->addRow(tr("In"), scope_);
    layout->addLayout(form);

    outcome_->setWordWrap(true);
    outcome_->setMinimumHeight(96);
    outcome_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
    outcome_->setAccessibleName(tr("What this would do"));
    layout->addWidget(outcome_, 1);

    auto* buttons = new QHBoxLayout;
    auto* close = new QPushButton(tr("Cancel"), this);
    put_->setProperty("weight", "main");
    put_->setDefault(true);
    buttons->addStretch(1);
    buttons->addWidget(close);
    buttons->addWidget(put_);
    layout->addLayout(buttons);

    connect(close, &QPushButton::clicked, this, &QDialog::reject);
    connect(put_, &QPushButton::clicked, this, [this] {
        workbench_.decide(
            [preview = preview_](const Catalogue& catalogue) { return applyPreview(catalogue, *preview); });
        accept();
    });
    connect(preference_, &QComboBox::currentIndexChanged, this, [this] { askPreview(); });
    connect(scope_, &QComboBox::currentIndexChanged, this, [this] { askPreview(); });
    askPreview();
}

PreferenceWindow::~PreferenceWindow() {
    if (control_) {
        control_->cancel();
    }
}

void PreferenceWindow::askPreview() {
    if (control_) {
        control_->cancel();
    }
    control_ = std::make_shared<RunControl>();
    put_->setEnabled(false);
    outcome_->setText(tr("Working out what this would do …"));
    const QPoint picked = preference_->currentData().toPoint();
    const KeeperPreference preference{static_cast<Preference>(picked.x()), picked.y()};
    const bool onlyChosen = !chosen_.empty() && scope_->currentIndex() == 0;
    workbench_.ask<std::optional<PreferencePreview>>(
        this,
        [ids = onlyChosen ? chosen_ : shown_, preference,
         control = control_](const Catalogue& catalogue) -> Result<std::optional<PreferencePreview>> {
            auto preview = previewPreference(catalogue, ids, preference, *control);
            if (!preview && preview.error().cause == Cause::interrupted) {
                return std::optional<PreferencePreview>();
            }
            return preview ? Result<std::optional<PreferencePreview>>(std::optional(std::move(*preview)))
                           : Result<std::optional<PreferencePreview>>(preview.error());
        },
        [this, control = control_](const std::optional<PreferencePreview>& preview) {
            if (control == control_ && preview) {
                takePreview(*preview);
            }
        });
}

void PreferenceWindow::takePreview(const PreferencePreview& preview) {
    preview_ = std::make_shared<const PreferencePreview>(preview);
    QStringList freed;
    for (const auto& [id, bytes] : preview.freesByVolume) {
        const auto volume = std::ranges::find(volumes_, id, &Volume::id);
        if (volume != volumes_.end()) {
            freed << QStringLiteral("%1 %2").arg(shown(volume->label), shown(humanBytes(bytes)));
        }
    }
    QStringList lines;
    lines << tr("Of %1, %2 would be decided: %3 would go on the docket.")
                 .arg(shown(counted(preview.sets, "set")), shown(humanCount(preview.decided)),
                      shown(counted(preview.actions.size(), "holding")));
    if (preview.frees > 0) {
        lines << tr("That frees %1 once the trash is emptied: %2.")
                     .arg(shown(humanBytes(preview.frees)), freed.join(QStringLiteral(", ")));
    }
    if (preview.left > 0) {
        lines << tr("%1 would be left: no copy meets the preference, or nothing would be freed.")
                     .arg(shown(counted(preview.left, "set")));
    }
    if (preview.alreadyDecided > 0) {
        lines << tr("%1 stay as you decided before.").arg(shown(counted(preview.alreadyDecided, "set")));
    }
    lines << tr("Nothing changes on any volume until the docket is carried out.");
    outcome_->setText(lines.join(QStringLiteral("\n")));
    put_->setEnabled(!preview.actions.empty());
}

} // namespace sober::app
