#include "app/shelf/volume_changes.h"

#include "app/ask_path.h"
#include "app/desks/ask_window.h"
#include "app/desks/desk.h"
#include "app/theme/theme.h"
#include "app/words.h"
#include "app/wrap_label.h"
#include "core/catalogue/volume_leaving.h"
#include "core/catalogue/volumes.h"
#include "core/work/succeed_volume.h"

#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

namespace sober::app {
namespace {

QString leavingWords(const Volume& volume, const VolumeLeaving& leaving) {
    QStringList sentences;
    sentences
        << ForgetWindow::tr(
               "%1 (%2) leave the catalogue with it. %3 of them are on another volume too, %4 nowhere else.")
               .arg(told(counted(leaving.holdings, "holding")), told(humanBytes(leaving.bytes)),
                    told(humanCount(leaving.heldElsewhere)), told(humanCount(leaving.heldNowhereElse())));
    if (leaving.references > 0) {
        sentences << ForgetWindow::tr("%1 of players' lists lead there. The lists stay as they are.")
                         .arg(told(counted(leaving.references, "reference")));
    }
    if (leaving.lists > 0) {
        sentences << ForgetWindow::tr(
                         "%1 of players lie on it. They stay theirs, and are read where they lie.")
                         .arg(told(counted(leaving.lists, "list")));
    }
    if (leaving.canBeUndone > 0) {
        sentences << ForgetWindow::tr("What was done there cannot be taken back any more: %1 of the ledger. "
                                      "Their history stays.")
                         .arg(told(counted(leaving.canBeUndone, "action")));
    }
    if (const auto why = whyNotForgotten(volume, leaving); !why.empty()) {
        sentences << told(why);
    }
    return sentences.join(QStringLiteral("\n\n"));
}

} // namespace

ForgetWindow::ForgetWindow(Workbench& workbench, const Volume& volume, QWidget* parent)
    : QDialog(parent), workbench_(workbench) {
    const auto title = tr("Forget %1").arg(volumeName(volume));
    setWindowTitle(title);
    setAttribute(Qt::WA_DeleteOnClose);
    auto* layout = titledLayout(title, this);
    auto* place = quietLabel(tr("%1, %2. Nothing on it is changed.")
                                 .arg(shownPath(volume.root), volume.atHand ? tr("at hand") : tr("away")),
                             this);
    place->setWordWrap(true);
    layout->addWidget(place);
    auto* words = new WrapLabel(tr("Looking at what leaves with it…"), this);
    words->setObjectName(QStringLiteral("what is lost"));
    words->setWordWrap(true);
    layout->addWidget(words);
    auto* done = new QPushButton(tr("Forget this volume"), this);
    done->setEnabled(false);
    addEnding(*layout, this, done);
    beAtLeast(520, *this);
    workbench_.ask<VolumeLeaving>(
        this, [id = volume.id](const Catalogue& catalogue) { return leavingOf(catalogue, id); },
        [words, done, volume, this](const VolumeLeaving& leaving) {
            words->setText(leavingWords(volume, leaving));
            done->setEnabled(whyNotForgotten(volume, leaving).empty());
            adjustSize();
        });
    connect(done, &QPushButton::clicked, this, [this, volume] {
        workbench_.tend(
            [volume](Catalogue& catalogue, RunControl&, const ProgressSink&) -> Result<std::string> {
                const auto forgotten = forgetVolume(catalogue, volume);
                return forgotten ? volume.label + " was forgotten. Nothing on it was changed."
                                 : Result<std::string>(forgotten.error());
            });
        accept();
    });
}

void VolumeChanges::relabel(const Volume& volume) {
    auto* window = new AskWindow({tr("Another label for %1").arg(shown(volume.label)),
                                  tr("What it is called here; nothing on the drive is changed."),
                                  tr("Use this label"),
                                  {},
                                  shown(volume.label)},
                                 window_);
    window->setAttribute(Qt::WA_DeleteOnClose);
    connect(window, &AskWindow::answered, this, [this, volume](const QString& label) {
        workbench_.tend([volume, label = label.toStdString()](Catalogue& catalogue, RunControl&,
                                                              const ProgressSink&) -> Result<std::string> {
            const auto renamed = Volumes(catalogue).relabel(volume, label);
            return renamed ? volume.label + " is called " + label + " now."
                           : Result<std::string>(renamed.error());
        });
    });
    window->open();
}

void VolumeChanges::succeed(const Volume& volume) {
    askForFolder(window_, tr("Where is the copy that takes the place of %1?").arg(shown(volume.label)),
                 [this, volume](const BytePath& folder) {
                     workbench_.survey({{folder, {}, {}, {}}}, [volume, folder](const Catalogue& catalogue) {
                         const auto succession = succeedVolume(catalogue, volume, folder);
                         return succession ? done() : Outcome(succession.error());
                     });
                 });
}

void VolumeChanges::forget(const Volume& volume) {
    (new ForgetWindow(workbench_, volume, window_))->open();
}

} // namespace sober::app
