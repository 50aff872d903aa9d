#include "app/desks/copies/policy_window.h"

#include "app/desks/copies/preference_list.h"
#include "app/desks/desk.h"
#include "app/theme/theme.h"
#include "app/words.h"
#include "app/wrap_label.h"
#include "core/audit/sameness.h"

#include <QCheckBox>
#include <QComboBox>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QSignalBlocker>
#include <QVBoxLayout>

#include <algorithm>

namespace sober::app {

PolicyWindow::PolicyWindow(Workbench& workbench, std::vector<SetId> shownSets, std::vector<SetId> chosen,
                           std::vector<Volume> volumes, QWidget* parent)
    : QDialog(parent),
      workbench_(workbench),
      shown_(std::move(shownSets)),
      chosen_(std::move(chosen)),
      volumes_(std::move(volumes)),
      policy_(new QComboBox(this)),
      name_(new QLineEdit(this)),
      keep_(new QPushButton(tr("Keep it under this name"), this)),
      remove_(new QPushButton(tr("Remove"), this)),
      preferences_(new PreferenceList(volumes_, this)),
      weakest_(new QComboBox(this)),
      onlyWhereMet_(new QCheckBox(tr("leave sets whose best copy does not meet the first preference"), this)),
      scope_(new QComboBox(this)),
      outcome_(new WrapLabel(this)),
      put_(new QPushButton(tr("Put on the docket"), this)) {
    setWindowTitle(tr("Decide many sets"));
    auto* layout = titledLayout(tr("Decide many sets"), this);
    buildPolicy(*layout);

    outcome_->setWordWrap(true);
    outcome_->keepHeight(132);
    outcome_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
    outcome_->setAccessibleName(tr("What this would do"));
    layout->addWidget(outcome_, 1);

    addEnding(*layout, this, put_);
    beAtLeast(640, *this);
    // Return in the name keeps the policy; it never puts anything on the docket by the way.
    for (auto* button : findChildren<QPushButton*>()) {
        button->setAutoDefault(false);
    }
    connect(name_, &QLineEdit::returnPressed, keep_, &QPushButton::click);

    connect(put_, &QPushButton::clicked, this, [this] {
        workbench_.decide(
            [preview = preview_](const Catalogue& catalogue) { return applyPreview(catalogue, *preview); });
        accept();
    });
    connect(policy_, &QComboBox::currentIndexChanged, this, [this](int index) {
        showPolicy(index > 0 ? policies_[static_cast<std::size_t>(index) - 1] : Policy{});
    });
    connect(keep_, &QPushButton::clicked, this, [this] { keepPolicy(); });
    connect(remove_, &QPushButton::clicked, this, [this] { removePolicy(); });
    connect(name_, &QLineEdit::textChanged, this,
            [this] { keep_->setEnabled(!name_->text().trimmed().isEmpty()); });
    connect(preferences_, &PreferenceList::preferencesChanged, this, [this] { changed(); });
    connect(weakest_, &QComboBox::currentIndexChanged, this, [this] { changed(); });
    connect(onlyWhereMet_, &QCheckBox::toggled, this, [this] { changed(); });
    connect(scope_, &QComboBox::currentIndexChanged, this, [this] { askPreview(); });
    askPolicies({});
    showPolicy({});
}

PolicyWindow::~PolicyWindow() {
    if (control_) {
        control_->cancel();
    }
}

void PolicyWindow::buildPolicy(QVBoxLayout& layout) {
    policy_->setAccessibleName(tr("Policy"));
    policy_->addItem(tr("what the evidence says"));
    name_->setAccessibleName(tr("Name of the policy"));
    name_->setPlaceholderText(tr("a name, to use it again"));
    name_->setMaxLength(80);
    weakest_->setAccessibleName(tr("Decides sets down to"));
    for (const auto sameness : {Sameness::bytes, Sameness::payload, Sameness::samples, Sameness::lossyCopy,
                                Sameness::otherMaster, Sameness::part}) {
        weakest_->addItem(told(samenessWords(sameness)), static_cast<int>(sameness));
    }
    scope_->setAccessibleName(tr("Which sets"));
    if (!chosen_.empty()) {
        scope_->addItem(tr("the %1 selected sets").arg(told(humanCount(chosen_.size()))));
    }
    scope_->addItem(tr("all %1 sets in the list").arg(told(humanCount(shown_.size()))));

    auto* form = new QFormLayout;
    form->setSpacing(8);
    auto* which = new QHBoxLayout;
    which->setSpacing(8);
    which->addWidget(policy_, 1);
    which->addWidget(remove_);
    form->addRow(tr("Policy"), which);
    auto* naming = new QHBoxLayout;
    naming->setSpacing(8);
    naming->addWidget(name_, 1);
    naming->addWidget(keep_);
    form->addRow(tr("Name"), naming);
    // Broken by hand: a form gives wrapped words too little height.
    auto* evidence = quietLabel(tr("The evidence, always: sound before damaged, measured before claimed,\n"
                                   "whole, fewer lossy generations. Where it does not decide:"),
                                this);
    form->addRow(tr("First"), evidence);
    form->addRow(tr("Then"), preferences_);
    form->addRow(QString(), onlyWhereMet_);
    form->addRow(tr("Down to"), weakest_);
    form->addRow(tr("In"), scope_);
    layout.addLayout(form);
}

void PolicyWindow::askPolicies(const QString& choose) {
    workbench_.ask<std::vector<Policy>>(
        this, [](const Catalogue& catalogue) { return Policies(catalogue).all(); },
        [this, choose](const std::vector<Policy>& policies) { takePolicies(policies, choose); });
}

void PolicyWindow::takePolicies(std::vector<Policy> policies, const QString& choose) {
    {
        const QSignalBlocker quiet(policy_);
        policies_ = std::move(policies);
        while (policy_->count() > 1) {
            policy_->removeItem(1);
        }
        for (const auto& policy : policies_) {
            policy_->addItem(shown(policy.name));
        }
        policy_->setCurrentIndex(choose.isEmpty() ? 0 : std::max(0, policy_->findText(choose)));
    }
    remove_->setEnabled(policy_->currentIndex() > 0);
}

void PolicyWindow::showPolicy(const Policy& policy) {
    const QSignalBlocker quietWeakest(weakest_);
    const QSignalBlocker quietMet(onlyWhereMet_);
    name_->setText(shown(policy.name));
    keep_->setEnabled(!policy.name.empty());
    remove_->setEnabled(policy_->currentIndex() > 0);
    preferences_->setPreferences(policy.preferences);
    weakest_->setCurrentIndex(weakest_->findData(static_cast<int>(policy.weakest)));
    onlyWhereMet_->setChecked(policy.onlyWhereMet);
    changed();
}

Policy PolicyWindow::policyNow() const {
    return {0, name_->text().trimmed().toStdString(), preferences_->preferences(),
            static_cast<Sameness>(weakest_->currentData().toInt()), onlyWhereMet_->isChecked()};
}

void PolicyWindow::keepPolicy() {
    const auto policy = policyNow();
    workbench_.decide([policy](const Catalogue& catalogue) -> Outcome {
        const auto kept = Policies(catalogue).keep(policy);
        return kept ? sober::done() : Outcome(kept.error());
    });
    connect(
        &workbench_, &Workbench::docketChanged, this, [this, policy] { askPolicies(shown(policy.name)); },
        Qt::SingleShotConnection);
}

void PolicyWindow::removePolicy() {
    const int index = policy_->currentIndex();
    if (index <= 0) {
        return;
    }
    const auto id = policies_[static_cast<std::size_t>(index) - 1].id;
    workbench_.decide([id](const Catalogue& catalogue) { return Policies(catalogue).remove(id); });
    connect(
        &workbench_, &Workbench::docketChanged, this, [this] { askPolicies({}); }, Qt::SingleShotConnection);
    policy_->setCurrentIndex(0);
}

void PolicyWindow::changed() {
    const auto& preferences = preferences_->preferences();
    const bool asksForPlace = !preferences.empty() && (preferences.front().kind == PreferenceKind::onVolume ||
                                                       preferences.front().kind == PreferenceKind::inFolder);
    onlyWhereMet_->setEnabled(asksForPlace);
    askPreview();
}

void PolicyWindow::askPreview() {
    if (control_) {
        control_->cancel();
    }
    control_ = std::make_shared<RunControl>();
    put_->setEnabled(false);
    outcome_->setText(tr("Working out what this would do …"));
    const bool onlyChosen = !chosen_.empty() && scope_->currentIndex() == 0;
    workbench_.ask<std::optional<PolicyPreview>>(
        this,
        [ids = onlyChosen ? chosen_ : shown_, policy = policyNow(),
         control = control_](const Catalogue& catalogue) -> Result<std::optional<PolicyPreview>> {
            auto preview = previewPolicy(catalogue, ids, policy, *control);
            if (!preview && preview.error().cause == Cause::interrupted) {
                return std::optional<PolicyPreview>();
            }
            return preview ? Result<std::optional<PolicyPreview>>(std::optional(std::move(*preview)))
                           : Result<std::optional<PolicyPreview>>(preview.error());
        },
        [this, control = control_](const std::optional<PolicyPreview>& preview) {
            if (control == control_ && preview) {
                takePreview(*preview);
            }
        });
}

void PolicyWindow::takePreview(const PolicyPreview& preview) {
    preview_ = std::make_shared<const PolicyPreview>(preview);
    QStringList freed;
    for (const auto& [id, bytes] : preview.freesByVolume) {
        const auto volume = std::ranges::find(volumes_, id, &Volume::id);
        if (volume != volumes_.end()) {
            freed << QStringLiteral("%1 %2").arg(volumeName(*volume), told(humanBytes(bytes)));
        }
    }
    QStringList lines;
    lines << tr("Of %1, %2 would be decided: %3 would go on the docket.")
                 .arg(told(counted(preview.sets, "set")), told(humanCount(preview.decided)),
                      told(counted(preview.actions.size(), "holding")));
    if (preview.frees > 0) {
        lines << tr("That frees %1 once the trash is emptied: %2.")
                     .arg(told(humanBytes(preview.frees)), freed.join(QStringLiteral(", ")));
    }
    for (const auto& [why, sets] : preview.left) {
        lines << tr("%1 would be left: %2.")
                     .arg(told(counted(sets, "set")), told(std::string(undecidedWords(why))));
    }
    if (preview.alreadyDecided > 0) {
        lines << tr("%1 stay as you decided before.").arg(told(counted(preview.alreadyDecided, "set")));
    }
    lines << tr("Nothing changes on any volume until the docket is carried out.");
    outcome_->setText(lines.join(QStringLiteral("\n")));
    put_->setEnabled(!preview.actions.empty());
}

} // namespace sober::app
