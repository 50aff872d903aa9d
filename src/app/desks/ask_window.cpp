#include "app/desks/ask_window.h"

#include "app/desks/desk.h"
#include "app/theme/theme.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>

namespace sober::app {

AskWindow::AskWindow(const Words& words, QWidget* parent) : QDialog(parent), line_(new QComboBox(this)) {
    setWindowTitle(words.title);
    setMinimumWidth(460);
    setAttribute(Qt::WA_DeleteOnClose);
    auto* layout = titledLayout(words.title, this);
    auto* explanation = new QLabel(words.explanation, this);
    explanation->setWordWrap(true);
    layout->addWidget(explanation);
    line_->setEditable(true);
    line_->addItems(words.offered);
    line_->setEditText(words.text);
    line_->setAccessibleName(words.title);
    layout->addWidget(line_);

    auto* buttons = new QHBoxLayout;
    auto* cancel = new QPushButton(tr("Cancel"), this);
    auto* done = new QPushButton(words.done, this);
    done->setProperty("weight", "main");
    done->setDefault(true);
    done->setEnabled(!words.text.isEmpty());
    buttons->addStretch(1);
    buttons->addWidget(cancel);
    buttons->addWidget(done);
    layout->addLayout(buttons);
    connect(line_, &QComboBox::editTextChanged, done,
            [done](const QString& text) { done->setEnabled(!text.trimmed().isEmpty()); });
    connect(cancel, &QPushButton::clicked, this, &QDialog::reject);
    connect(done, &QPushButton::clicked, this, [this] {
        emit answered(line_->currentText().trimmed());
        accept();
    });
    line_->lineEdit()->selectAll();
    line_->setFocus();
}

} // namespace sober::app
