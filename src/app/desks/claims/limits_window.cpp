#include "app/desks/claims/limits_window.h"

#include "app/charts/trace_chart.h"
#include "app/desks/desk.h"
#include "app/theme/theme.h"
#include "core/audit/better_copies.h"
#include "core/catalogue/evidence_store.h"

#include <QFormLayout>
#include <QLabel>
#include <QPushButton>
#include <QSpinBox>
#include <QVBoxLayout>

namespace sober::app {

LimitsWindow::LimitsWindow(Workbench& workbench, const Limits& limits, QWidget* parent)
    : QDialog(parent), workbench_(workbench), before_(limits) {
    setWindowTitle(tr("What counts as a low bitrate"));
    setAttribute(Qt::WA_DeleteOnClose);
    auto* layout = titledLayout(tr("What counts as a low bitrate"), this);
    layout->addWidget(quietLabel(tr("Lossy files that state less than this are under the limit."), this));
    auto* form = new QFormLayout;
    for (const auto& [codec, bitrate] : limits) {
        auto* box = new QSpinBox(this);
        box->setRange(0, 2000);
        box->setSingleStep(16);
        box->setSuffix(tr(" kbit/s"));
        box->setSpecialValueText(tr("no limit"));
        box->setValue(static_cast<int>(bitrate / 1000));
        box->setButtonSymbols(QSpinBox::NoButtons);
        box->setAccessibleName(tr("Limit for %1").arg(codecName(codec)));
        form->addRow(codecName(codec), box);
        boxes_.push_back(box);
    }
    layout->addLayout(form);
    auto* done = new QPushButton(tr("Use these limits"), this);
    done->setDefault(true);
    addEnding(*layout, this, done);
    connect(done, &QPushButton::clicked, this, [this] {
        keep();
        accept();
    });
}

void LimitsWindow::keep() {
    Limits changed;
    for (std::size_t i = 0; i < boxes_.size(); ++i) {
        const std::int64_t bitrate = boxes_[i]->value() * std::int64_t{1000};
        if (bitrate != before_[i].second) {
            changed.emplace_back(before_[i].first, bitrate);
        }
    }
    if (changed.empty()) {
        return;
    }
    workbench_.decide([changed](const Catalogue& catalogue) -> Outcome {
        const EvidenceStore store(catalogue);
        for (const auto& [codec, bitrate] : changed) {
            if (auto kept = store.setBitrateLimit(codec, bitrate); !kept) {
                return kept;
            }
        }
        return findBetterCopies(catalogue);
    });
}

} // namespace sober::app
