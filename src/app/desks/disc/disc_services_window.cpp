#include "app/desks/disc/disc_services_window.h"

#include "app/desks/desk.h"

#include <QFormLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>

namespace sober::app {

DiscServicesWindow::DiscServicesWindow(const QString& ripRegister, const QString& lookup, QWidget* parent)
    : QDialog(parent), register_(new QLineEdit(ripRegister, this)), lookup_(new QLineEdit(lookup, this)) {
    setAttribute(Qt::WA_DeleteOnClose);
    setWindowTitle(tr("Services about discs"));
    auto* layout = titledLayout(tr("Services about discs"), this);
    auto* words = paragraph(tr("What is sent"), this);
    words->setText(
        tr("A rip register knows which checksums others got from the same disc, a lookup what discs are "
           "called. Each is told a disc's id and where its tracks begin, and nothing else; empty for "
           "none. No other service is ever asked."));
    layout->addWidget(words);
    auto* form = new QFormLayout;
    register_->setAccessibleName(tr("Rip register"));
    lookup_->setAccessibleName(tr("Lookup"));
    register_->setPlaceholderText(QStringLiteral("http://127.0.0.1:8700/register"));
    lookup_->setPlaceholderText(QStringLiteral("http://127.0.0.1:8700/lookup"));
    form->addRow(tr("Rip register"), register_);
    form->addRow(tr("Lookup"), lookup_);
    layout->addLayout(form);
    auto* set = new QPushButton(tr("Set up"), this);
    addEnding(*layout, this, set);
    connect(set, &QPushButton::clicked, this, [this] {
        emit agreed(register_->text().trimmed(), lookup_->text().trimmed());
        accept();
    });
    resize(560, sizeHint().height());
}

} // namespace sober::app
