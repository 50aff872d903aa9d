#include "app/desks/intake/intake_window.h"

#include "app/desks/desk.h"
#include "app/theme/theme.h"
#include "app/words.h"

#include <QLabel>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QVBoxLayout>

namespace sober::app {

QStringList stepsFor(const Arrival& arrival, bool withProposals) {
    QStringList steps;
    if (arrival.advice == IntakeAdvice::retire) {
        return {IntakeWindow::tr("goes to the trash: %1").arg(told(arrival.reasons.front()))};
    }
    if (withProposals) {
        for (const auto& proposal : arrival.proposals) {
            steps << (proposal.shall.empty() ? IntakeWindow::tr("%1 is emptied").arg(shown(proposal.field))
                                             : IntakeWindow::tr("%1 becomes “%2”")
                                                   .arg(shown(proposal.field), shown(proposal.shall)));
        }
    }
    steps << IntakeWindow::tr("is filed in %1%2")
                 .arg(shownPath(BytePath(parentOf(arrival.target))),
                      withProposals && !arrival.proposals.empty()
                          ? IntakeWindow::tr(" or where its mended tags say")
                          : QString());
    if (arrival.advice == IntakeAdvice::replace) {
        for (const auto& held : arrival.held) {
            if (held.atHand) {
                steps << IntakeWindow::tr("%1 goes to the trash, and what led there leads to the new one")
                             .arg(shownPath(held.path));
            }
        }
    }
    return steps;
}

IntakeWindow::IntakeWindow(const std::vector<const Arrival*>& arrivals, bool withProposals, QWidget* parent)
    : QDialog(parent) {
    setWindowTitle(tr("Take in"));
    setAttribute(Qt::WA_DeleteOnClose);
    resize(820, 520);
    auto* layout = titledLayout(windowTitle(), this);
    layout->addWidget(quietLabel(
        tr("Nothing has changed yet. What is filed is read back and proven before anything goes; all "
           "of it can be taken back from the ledger."),
        this));
    auto* text = new QPlainTextEdit(this);
    text->setReadOnly(true);
    text->setAccessibleName(tr("What will be done"));
    QStringList lines;
    for (const auto* arrival : arrivals) {
        lines << shownPath(arrival->path);
        for (const auto& step : stepsFor(*arrival, withProposals)) {
            lines << QStringLiteral("    ") + step;
        }
    }
    text->setPlainText(lines.join(QLatin1Char('\n')));
    layout->addWidget(text, 1);
    auto* go = keyButton(tr("Carry out"), QKeySequence(Qt::CTRL | Qt::Key_Return), this);
    go->setDefault(true);
    addEnding(*layout, this, go, nullptr, tr("Close"));
    connect(go, &QPushButton::clicked, this, [this] {
        emit agreed();
        accept();
    });
}

} // namespace sober::app
