#include "app/report_window.h"

#include "app/desks/desk.h"

#include <QCheckBox>
#include <QComboBox>
#include <QDate>
#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

namespace sober::app {

ReportWindow::ReportWindow(QWidget* parent)
    : QDialog(parent),
      leaveOut_(new QCheckBox(tr("Leave &paths and names out"), this)),
      form_(new QComboBox(this)),
      write_(new QPushButton(tr("Write it…"), this)) {
    setWindowTitle(tr("Make a report"));
    setAttribute(Qt::WA_DeleteOnClose);
    resize(660, 470);
    auto* layout = titledLayout(windowTitle(), this);
    auto* words = paragraph(tr("What a report is"), this);
    words->setText(
        tr("What is known of the collection, for yourself, your family or an archive. It is taken from "
           "the catalogue: what is away counts as it was last seen."));
    layout->addWidget(words);
    auto* grid = new QGridLayout;
    grid->setHorizontalSpacing(24);
    grid->setVerticalSpacing(10);
    for (const auto& [part, name] : {std::pair{ReportPart::condition, tr("&Condition of each volume")},
                                     {ReportPart::copies, tr("C&opies, and what is advised")},
                                     {ReportPart::claims, tr("C&laims that the evidence contradicts")},
                                     {ReportPart::damage, tr("&Damage, second by second")},
                                     {ReportPart::fixity, tr("&Fixity: checks, and what drifted")},
                                     {ReportPart::missing, tr("What is &missing")},
                                     {ReportPart::proofs, tr("P&roven transfers")}}) {
        auto* box = new QCheckBox(name, this);
        box->setChecked(true);
        connect(box, &QCheckBox::toggled, this, [this] { showWhetherAnything(); });
        const int at = static_cast<int>(parts_.size());
        grid->addWidget(box, at / 2, at % 2);
        parts_.emplace_back(part, box);
    }
    layout->addLayout(grid);
    layout->addWidget(leaveOut_);
    auto* left = paragraph(tr("What leaving out does"), this);
    left->setText(
        tr("A holding is then called by a number and by its volume's label, so that the report can be shown "
           "to somebody who is not to know what you have."));
    layout->addWidget(left);
    form_->addItems({tr("A page to read and to print (HTML)"), tr("A table, a line for each finding (CSV)"),
                     tr("For other programs (JSON)")});
    form_->setAccessibleName(tr("Form"));
    layout->addWidget(form_);
    layout->addStretch(1);
    addEnding(*layout, this, write_);
    connect(write_, &QPushButton::clicked, this, [this] {
        emit wanted(choices(), static_cast<ReportForm>(form_->currentIndex()));
        accept();
    });
}

ReportChoices ReportWindow::choices() const {
    ReportChoices choices;
    choices.parts.clear();
    for (const auto& [part, box] : parts_) {
        if (box->isChecked()) {
            choices.parts.insert(part);
        }
    }
    choices.paths = !leaveOut_->isChecked();
    return choices;
}

void ReportWindow::showWhetherAnything() {
    write_->setEnabled(!choices().parts.empty());
}

QString reportFileName(ReportForm form) {
    const auto ending = form == ReportForm::html  ? QStringLiteral("html")
                        : form == ReportForm::csv ? QStringLiteral("csv")
                                                  : QStringLiteral("json");
    return ReportWindow::tr("Collection on %1").arg(QDate::currentDate().toString(Qt::ISODate)) + "." +
           ending;
}

} // namespace sober::app
