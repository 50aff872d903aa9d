#include "app/docket/docket_strip.h"

#include "app/desks/desk.h"
#include "app/theme/theme.h"
#include "app/words.h"
#include "app/wrap_label.h"
#include "core/catalogue/docket_store.h"
#include "core/work/open_for_work.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QStyle>
#include <QVBoxLayout>

namespace sober::app {

DocketStrip::DocketStrip(Workbench& workbench, QWidget* parent)
    : QFrame(parent),
      workbench_(workbench),
      text_(new WrapLabel(this)),
      waiting_(new WrapLabel(this)),
      read_(new QPushButton(tr("Read through…   Ctrl+D"), this)) {
    setObjectName(QStringLiteral("strip"));
    auto* rows = new QVBoxLayout(this);
    rows->setContentsMargins(20, 6, 20, 6);
    rows->setSpacing(4);
    auto* layout = new QHBoxLayout;
    rows->addLayout(layout);
    rows->addWidget(waiting_);
    auto* title = new QLabel(tr("Docket"), this);
    title->setFont(Theme::title(15));
    layout->addWidget(title);
    layout->addSpacing(12);
    layout->addWidget(text_, 1);
    layout->addWidget(read_);
    text_->setWordWrap(true);
    text_->setAccessibleName(tr("What waits on the docket"));
    waiting_->setAccessibleName(tr("What waits to be settled"));
    waiting_->setWordWrap(true);
    waiting_->hide();
    read_->setAccessibleName(tr("Read the docket through"));
    read_->setEnabled(false);
    connect(read_, &QPushButton::clicked, this, &DocketStrip::readThroughWanted);
}

/// What an interruption left on a volume that is away, or cannot be looked at.
void DocketStrip::showWaiting(const std::vector<std::string>& sentences) {
    waiting_->setVisible(!sentences.empty());
    if (sentences.empty()) {
        return;
    }
    QStringList all;
    for (const auto& sentence : sentences) {
        all << told(sentence);
    }
    const auto others = sentences.size() - 1;
    waiting_->setText(
        tr("Left by an interruption: %1%2")
            .arg(all.front(),
                 others == 0   ? QString()
                 : others == 1 ? tr(" And 1 more; the ledger lists both.")
                               : tr(" And %1 more; the ledger lists them.").arg(told(humanCount(others)))));
    waiting_->setToolTip(all.join(QLatin1Char('\n')));
}

void DocketStrip::reload() {
    workbench_.ask<std::vector<std::string>>(
        this, [](const Catalogue& catalogue) { return waitingToBeSettled(catalogue); },
        [this](const std::vector<std::string>& sentences) { showWaiting(sentences); });
    workbench_.ask<DocketTotals>(
        this, [](const Catalogue& catalogue) { return DocketStore(catalogue).totals(); },
        [this](const DocketTotals& totals) {
            read_->setEnabled(totals.actions > 0);
            if (totals.actions == 0) {
                text_->setText(tr("empty: nothing waits to be carried out"));
                text_->setProperty("tone", "quiet");
            } else {
                text_->setText(tr("%1%2 · takes %3 along · nothing has changed yet")
                                   .arg(totals.actions == 1
                                            ? tr("1 action waits")
                                            : tr("%1 actions wait").arg(told(humanCount(totals.actions))),
                                        totals.frees == 0 ? QString()
                                                          : tr(" · frees %1 once the trash is emptied")
                                                                .arg(told(humanBytes(totals.frees))),
                                        totals.references == 0
                                            ? tr("no references")
                                            : told(counted(totals.references, "reference"))));
                text_->setProperty("tone", "plain");
            }
            text_->style()->polish(text_);
        });
}

} // namespace sober::app
