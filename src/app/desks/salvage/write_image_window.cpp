#include "app/desks/salvage/write_image_window.h"

#include "app/desks/desk.h"
#include "app/theme/theme.h"
#include "app/words.h"

#include <QFormLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QRegularExpression>
#include <QVBoxLayout>

namespace sober::app {

WriteImageWindow::WriteImageWindow(Workbench& workbench, BytePath image, WriteTarget target, QWidget* parent)
    : QDialog(parent),
      workbench_(workbench),
      image_(std::move(image)),
      target_(std::move(target)),
      label_(new QLineEdit(this)),
      size_(new QLineEdit(this)),
      write_(new QPushButton(tr("Write over it"), this)) {
    setWindowTitle(tr("Write an image over a drive"));
    setAttribute(Qt::WA_DeleteOnClose);
    auto* layout = titledLayout(windowTitle(), this);
    auto* what = paragraph(tr("What is lost"), this);
    what->setText(
        tr("%1 is written onto %2. All that is on it now is lost, and nothing brings it back. It has %3 "
           "(%4 bytes) and its label is “%5”.")
            .arg(shownPath(image_), shownPath(target_.path), told(humanBytes(target_.bytes)),
                 told(humanCount(target_.bytes)), shown(target_.label)));
    layout->addWidget(what);
    layout->addWidget(
        quietLabel(tr("Type its label and its size in bytes, to say that it is the right one."), this));
    auto* form = new QFormLayout;
    label_->setAccessibleName(tr("Label of the drive"));
    size_->setAccessibleName(tr("Size of the drive in bytes"));
    form->addRow(tr("Label"), label_);
    form->addRow(tr("Size in bytes"), size_);
    layout->addLayout(form);
    addEnding(*layout, this, write_);
    beAtLeast(560, *this);
    connect(write_, &QPushButton::clicked, this, [this] {
        workbench_.writeImage({image_, target_.path, label_->text().toStdString(), typedBytes()});
        accept();
    });
    for (auto* line : {label_, size_}) {
        connect(line, &QLineEdit::textChanged, this, &WriteImageWindow::check);
    }
    check();
}

std::uint64_t WriteImageWindow::typedBytes() const {
    auto text = size_->text();
    text.remove(QRegularExpression(QStringLiteral("\\D"))); // parted in threes as it is shown
    return text.toULongLong();
}

void WriteImageWindow::check() {
    write_->setEnabled(label_->text().toStdString() == target_.label && typedBytes() == target_.bytes);
}

} // namespace sober::app
