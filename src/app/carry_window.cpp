#include "app/carry_window.h"

#include "app/ask_path.h"
#include "app/desks/desk.h"
#include "app/theme/theme.h"
#include "app/words.h"
#include "core/base/file_handle.h"

#include <QCheckBox>
#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QSettings>
#include <QVBoxLayout>

namespace sober::app {
namespace {

/// What the windows keep, for those that are opened there.
void carrySettings(const BytePath& folder) {
    QSettings there(QString::fromStdString(folder + "/settings/sober-archivist/sober-archivist.ini"),
                    QSettings::IniFormat);
    const QSettings here;
    for (const auto& key : here.allKeys()) {
        there.setValue(key, here.value(key));
    }
}

} // namespace

CarryWindow::CarryWindow(Workbench& workbench, QWidget* parent)
    : QDialog(parent),
      workbench_(workbench),
      size_(quietLabel(tr("Looking how large it is…"), this)),
      program_(new QCheckBox(tr("The p&rogram goes along: nothing has to be installed there"), this)),
      placeText_(paragraph(tr("Place"), this)),
      packageText_(paragraph(tr("Package"), this)),
      go_(new QPushButton(tr("Carry along"), this)) {
    const auto title = tr("Carry the catalogue along");
    setWindowTitle(title);
    setAttribute(Qt::WA_DeleteOnClose);
    resize(640, 370);
    auto* layout = titledLayout(title, this);
    auto* words = paragraph(tr("What carrying along is"), this);
    words->setText(
        tr("The catalogue, its excerpts and what these windows keep are written into a folder \"%1\" on a "
           "stick or drive. There they are opened on another machine by one command (sh start), and what "
           "you do is kept on the stick. At home, take it in again by Collection, Take another "
           "catalogue in.")
            .arg(QString::fromUtf8(carriedFolderName.data(), static_cast<int>(carriedFolderName.size()))));
    layout->addWidget(words);
    auto* grid = new QGridLayout;
    grid->setHorizontalSpacing(12);
    grid->setVerticalSpacing(8);
    grid->setColumnStretch(1, 1);
    for (auto* text : {placeText_, packageText_}) {
        text->setAlignment(Qt::AlignVCenter | Qt::AlignLeft);
    }
    auto* choosePlace = new QPushButton(tr("&Place…"), this);
    auto* choosePackage = new QPushButton(tr("Pac&kage…"), this);
    choosePackage->setToolTip(tr("The program's Debian package, to be installed on the other machine"));
    grid->addWidget(choosePlace, 0, 0);
    grid->addWidget(placeText_, 0, 1);
    grid->addWidget(choosePackage, 2, 0);
    grid->addWidget(packageText_, 2, 1);
    program_->setChecked(true);
    program_->setToolTip(
        tr("With the libraries, fonts and plugins that it needs, for a machine of the same kind"));
    grid->addWidget(program_, 1, 0, 1, 2);
    layout->addLayout(grid);
    layout->addWidget(size_);
    layout->addStretch(1);
    addEnding(*layout, this, go_);
    showChosen();
    workbench_.ask<CarryingNeeds>(
        this, [](const Catalogue& catalogue) { return carryingNeeds(catalogue); },
        [this](const CarryingNeeds& needs) {
            needs_ = needs;
            if (needs.program == 0) {
                program_->setChecked(false);
                program_->setEnabled(false);
                program_->setText(tr("The program cannot go along from here: its parts were not found"));
            }
            showSize();
        });
    connect(program_, &QCheckBox::toggled, this, [this] { showSize(); });
    connect(choosePlace, &QPushButton::clicked, this, [this] {
        askForFolder(this, tr("Carry the catalogue along on"), [this](const BytePath& place) {
            place_ = place;
            showChosen();
        });
    });
    connect(choosePackage, &QPushButton::clicked, this, [this] {
        askForFile(this, tr("The program's Debian package"), {}, [this](const BytePath& file) {
            package_ = file;
            showChosen();
        });
    });
    connect(go_, &QPushButton::clicked, this, [this] { carry(); });
}

void CarryWindow::showChosen() {
    placeText_->setText(place_.empty() ? tr("none chosen yet")
                                       : shownPath(joinPath(place_, carriedFolderName)));
    packageText_->setText(package_ ? shownPath(*package_) : tr("does not go along"));
    go_->setEnabled(!place_.empty() && !workbench_.isBusy());
    showSize();
}

void CarryWindow::showSize() {
    if (!needs_) {
        return;
    }
    const auto stamp = stampAt(package_.value_or(""));
    const auto package = stamp ? stamp->size : 0;
    const auto program = program_->isChecked() ? needs_->program : 0;
    const auto all = needs_->catalogue + program + package;
    size_->setText(program == 0 ? tr("It takes about %1.").arg(told(humanBytes(all)))
                                : tr("It takes about %1, of which the program is %2.")
                                      .arg(told(humanBytes(all)), told(humanBytes(program))));
}

void CarryWindow::carry() {
    const CarriedMeans means{program_->isChecked(), package_};
    workbench_.tend([place = place_, means](Catalogue& catalogue, RunControl& control,
                                            const ProgressSink& sink) -> Result<std::string> {
        const auto carried = carryAlong(catalogue, place, means, control, sink);
        RETURN_IF_FAILED(carried);
        carrySettings(carried->folder);
        return "Carried along in " + displayPath(carried->folder) + ". Open it there with: sh start" +
               (carried->leftOver.empty()
                    ? std::string()
                    : ". What was there before has files or deeds of its own; it is kept as " +
                          displayPath(carried->leftOver));
    });
    accept();
}

} // namespace sober::app
