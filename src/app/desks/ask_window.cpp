#include "app/desks/ask_window.h"

#include "app/desks/desk.h"
#include "app/theme/theme.h"
#include "app/wrap_label.h"

#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>

namespace sober::app {

AskWindow::AskWindow(const Words& words, QWidget* parent) : QDialog(parent), line_(new QComboBox(this)) {
    setWindowTitle(words.title);
    setAttribute(Qt::WA_DeleteOnClose);
    auto* layout = titledLayout(words.title, this);
    auto* explanation = new WrapLabel(words.explanation, this);
    explanation->setWordWrap(true);
    layout->addWidget(explanation);
    line_->setEditable(true);
    line_->addItems(words.offered);
    if (words.offered.isEmpty()) { // nothing to drop down
        line_->setStyleSheet(QStringLiteral("QComboBox::drop-down { width: 0; border: none; } "
                                            "QComboBox::down-arrow { image: none; }"));
    }
    line_->setEditText(words.text);
    line_->setAccessibleName(words.title);
    layout->addWidget(line_);

    auto* done = new QPushButton(words.done, this);
    done->setDefault(true);
    done->setEnabled(words.mayBeEmpty || !words.text.isEmpty());
    addEnding(*layout, this, done);
    beAtLeast(460, *this);
    connect(line_, &QComboBox::editTextChanged, done,
            [done, mayBeEmpty = words.mayBeEmpty](const QString& text) {
                done->setEnabled(mayBeEmpty || !text.trimmed().isEmpty());
            });
    connect(done, &QPushButton::clicked, this, [this] {
        emit answered(line_->currentText().trimmed());
        accept();
    });
    line_->lineEdit()->selectAll();
    line_->setFocus();
}

} // namespace sober::app
