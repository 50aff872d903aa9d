#include "app/desks/find/move_window.h"

#include "app/desks/desk.h"
#include "app/theme/theme.h"
#include "app/words.h"
#include "app/wrap_label.h"
#include "core/base/inner_path.h"

#include <QFormLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>

namespace sober::app {

MoveWindow::MoveWindow(Workbench& workbench, const What& what, QWidget* parent)
    : QDialog(parent),
      what_(what),
      tree_(new PlaceTree(workbench, this)),
      below_(new QLineEdit(this)),
      name_(new QLineEdit(this)),
      target_(new WrapLabel(this)),
      done_(new QPushButton(tr("Put on the docket"), this)) {
    const QString title = what.inside ? tr("Copy out") : tr("Move");
    setWindowTitle(title);
    setAttribute(Qt::WA_DeleteOnClose);
    setMinimumSize(560, 480);
    auto* layout = titledLayout(title, this);
    auto* explanation = new WrapLabel(
        (what.inside ? tr("To be copied out of its archive: %1. The archive stays as it is.")
                     : tr("To be moved: %1. Players' lists follow. A move stays on its drive: what would "
                          "leave it is refused on the docket."))
            .arg(what.words),
        this);
    explanation->setWordWrap(true);
    explanation->setTextFormat(Qt::PlainText);
    layout->addWidget(explanation);
    layout->addWidget(tree_, 1);
    auto* form = new QFormLayout;
    below_->setAccessibleName(tr("New folder below it"));
    below_->setPlaceholderText(tr("none"));
    form->addRow(tr("In a new folder"), below_);
    name_->setAccessibleName(tr("Under the name"));
    name_->setText(shownPath(what.name.value_or(BytePath())));
    if (what.name) {
        form->addRow(tr("Under the name"), name_);
    } else {
        name_->hide();
    }
    layout->addLayout(form);
    target_->setFont(Theme::bytes());
    target_->setWordWrap(true);
    target_->setTextFormat(Qt::PlainText);
    target_->setAccessibleName(tr("Where it will be"));
    layout->addWidget(target_);
    done_->setDefault(true);
    addEnding(*layout, this, done_);
    connect(tree_, &PlaceTree::placeChosen, this, &MoveWindow::follow);
    connect(tree_, &PlaceTree::reloaded, this, &MoveWindow::follow);
    connect(below_, &QLineEdit::textChanged, this, &MoveWindow::follow);
    connect(name_, &QLineEdit::textChanged, this, &MoveWindow::follow);
    connect(done_, &QPushButton::clicked, this, [this] {
        auto into = tree_->chosen();
        into.folder = joinPath(into.folder, below_->text().toStdString());
        const bool asItWas = name_->text() == shownPath(what_.name.value_or(BytePath()));
        emit chosen(into, asItWas ? what_.name : std::optional<BytePath>(name_->text().toStdString()));
        accept();
    });
    tree_->setDragDropMode(QAbstractItemView::NoDragDrop);
    tree_->choose(what.from);
    tree_->reload();
    tree_->setFocus();
    follow();
}

/// Says what would come of it, or why nothing can.
void MoveWindow::follow() {
    const auto& into = tree_->chosen();
    const QString below = below_->text();
    const QString name = name_->text();
    const auto isBad = [](const QString& part) {
        return part == QLatin1String(".") || part == QLatin1String("..");
    };
    const auto parts = below.split(QLatin1Char('/'));
    const bool badFolder =
        !below.isEmpty() && (std::ranges::any_of(parts, isBad) || parts.contains(QString()));
    const bool badName = what_.name && (name.isEmpty() || isBad(name) || name.contains(QLatin1Char('/')));
    const bool isThere = what_.name && !what_.inside && into == what_.from && below.isEmpty() &&
                         name == shownPath(*what_.name);
    const bool isArchive = isInsideArchive(joinPath(into.folder, below.toStdString()) + "/");
    done_->setEnabled(into.volume && !isArchive && !badFolder && !badName && !isThere);
    QString text = !into.volume ? tr("Choose a volume or a folder.")
                   : isArchive  ? tr("That is an archive, and those are never written to.")
                   : badFolder  ? tr("A new folder is named as \"Choir\" or \"Choir/1974\".")
                   : badName    ? tr("A name is needed, without a slash.")
                   : isThere    ? tr("It is there now. Choose another folder, or another name.")
                                : tree_->chosenWords().trimmed();
    if (done_->isEnabled()) {
        text += below.isEmpty() ? QString() : QLatin1Char('/') + below;
        text += what_.name ? QLatin1Char('/') + name : QString();
    }
    target_->setText(text);
}

} // namespace sober::app
