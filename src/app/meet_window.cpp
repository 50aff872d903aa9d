#include "app/meet_window.h"

#include "app/desks/desk.h"
#include "app/words.h"
#include "core/work/meet_catalogue.h"

#include <QLabel>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

namespace sober::app {
namespace {

QString linesOf(const CatalogueMeeting& meeting) {
    QStringList lines;
    for (const auto& sentence : meetingWords(meeting)) {
        lines << told(sentence);
    }
    return lines.join(QStringLiteral("\n\n"));
}

} // namespace

MeetWindow::MeetWindow(Workbench& workbench, const BytePath& other, QWidget* parent) : QDialog(parent) {
    const auto title = tr("Take another catalogue in");
    setWindowTitle(title);
    setAttribute(Qt::WA_DeleteOnClose);
    resize(620, 420);
    auto* layout = titledLayout(title, this);
    auto* place =
        quietLabel(tr("%1. It is only read. What was seen last wins, and what only it knows is added.")
                       .arg(shownPath(other)),
                   this);
    place->setWordWrap(true);
    layout->addWidget(place);
    auto* words = paragraph(tr("What it knows"), this);
    words->setText(tr("Holding both against each other…"));
    words->setAlignment(Qt::AlignTop | Qt::AlignLeft);
    auto* room = new QScrollArea(this);
    room->setWidget(words);
    room->setWidgetResizable(true);
    room->setFrameShape(QFrame::NoFrame);
    layout->addWidget(room, 1);
    auto* take = new QPushButton(tr("Take it in"), this);
    take->setEnabled(false);
    addEnding(*layout, this, take);
    using Compared = std::pair<QString, bool>; ///< what is said, and whether it can be taken in
    workbench.ask<Compared>(
        this,
        [other](const Catalogue& catalogue) -> Result<Compared> {
            RunControl control;
            const auto meeting = compareCatalogue(catalogue, other, control);
            return meeting ? Compared(linesOf(*meeting), !meeting->volumes.empty())
                           : Compared(told(meeting.error().sentence), false);
        },
        [words, take, &workbench](const Compared& compared) {
            words->setText(compared.first);
            take->setEnabled(compared.second && !workbench.isBusy());
        });
    connect(take, &QPushButton::clicked, this, [this, &workbench, other] {
        workbench.tend([other](Catalogue& catalogue, RunControl& control,
                               const ProgressSink& sink) -> Result<std::string> {
            const auto taken = takeInCatalogue(catalogue, other, control, sink);
            return !taken ? Result<std::string>(taken.error())
                   : taken->interrupted
                       ? std::string(
                             "Stopped. What was taken in stays; take it in again, and it goes on from there.")
                       : counted(taken->volumes.size(), "volume") + " of the other catalogue " +
                             (taken->volumes.size() == 1 ? "is" : "are") + " known here as there.";
        });
        accept();
    });
}

} // namespace sober::app
