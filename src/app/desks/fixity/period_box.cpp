#include "app/desks/fixity/period_box.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QSignalBlocker>
#include <QSpinBox>

#include <algorithm>

namespace sober::app {

PeriodBox::PeriodBox(QWidget* parent)
    : QWidget(parent), volumes_(new QComboBox(this)), days_(new QSpinBox(this)) {
    auto* layout = new QHBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(8);
    volumes_->addItem(tr("all volumes"));
    volumes_->setAccessibleName(tr("Whose period"));
    volumes_->setSizeAdjustPolicy(QComboBox::AdjustToContents);
    days_->setRange(1, 3650);
    days_->setPrefix(tr("due after "));
    days_->setSuffix(tr(" days"));
    days_->setButtonSymbols(QSpinBox::NoButtons);
    days_->setAccessibleName(tr("Days after which a holding is due to be read again"));
    layout->addWidget(volumes_);
    layout->addWidget(days_);
    connect(volumes_, &QComboBox::currentIndexChanged, this, [this] { showChosen(); });
    connect(days_, &QSpinBox::editingFinished, this, [this] { choose(); });
}

void PeriodBox::setPeriods(std::vector<Period> periods) {
    if (periods == periods_) {
        return;
    }
    periods_ = std::move(periods);
    const QString before = volumes_->currentText();
    {
        const QSignalBlocker quiet(volumes_);
        volumes_->clear();
        volumes_->addItem(tr("all volumes"));
        for (const auto& period : periods_) {
            volumes_->addItem(period.label);
        }
        volumes_->setCurrentIndex(std::max(0, volumes_->findText(before)));
    }
    showChosen();
}

int PeriodBox::known() const {
    const int at = volumes_->currentIndex();
    if (periods_.empty()) {
        return 0;
    }
    return at > 0 ? periods_[static_cast<std::size_t>(at - 1)].days
                  : std::ranges::max_element(periods_, {}, &Period::days)->days;
}

void PeriodBox::showChosen() {
    if (known() > 0) {
        days_->setValue(known());
    }
}

/// Also called when the focus leaves: only what the user has changed is kept.
void PeriodBox::choose() {
    if (periods_.empty() || days_->value() == known()) {
        return;
    }
    std::vector<VolumeId> volumes;
    const int at = volumes_->currentIndex();
    for (std::size_t i = 0; i < periods_.size(); ++i) {
        if (at == 0 || static_cast<int>(i) == at - 1) {
            volumes.push_back(periods_[i].volume);
        }
    }
    emit periodChosen(volumes, days_->value());
}

} // namespace sober::app
