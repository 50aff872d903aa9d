#include "app/shelf/choices_window.h"

#include "app/desks/desk.h"
#include "app/theme/theme.h"
#include "app/words.h"
#include "core/media/excerpt.h"

#include <QCheckBox>
#include <QComboBox>
#include <QFormLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QSpinBox>
#include <QVBoxLayout>

namespace sober::app {
namespace {

constexpr std::uint64_t kilobyte = 1000;

QSpinBox* sizeBox(std::uint64_t bytes, const QString& none, QWidget* parent) {
    auto* box = new QSpinBox(parent);
    box->setRange(0, 2'000'000'000);
    box->setSuffix(QStringLiteral(" kB"));
    box->setSpecialValueText(none);
    box->setValue(static_cast<int>(bytes / kilobyte));
    box->setButtonSymbols(QSpinBox::NoButtons);
    return box;
}

} // namespace

ChoicesWindow::ChoicesWindow(const Volume& volume, std::uint64_t holdings, QWidget* parent)
    : QDialog(parent),
      volume_(volume),
      label_(new QLineEdit(shown(volume.label), this)),
      effort_(new QComboBox(this)),
      leaveHidden_(new QCheckBox(tr("Leave out hidden files and folders"), this)),
      followLinks_(new QCheckBox(tr("Follow symbolic links"), this)),
      keepExcerpts_(new QCheckBox(tr("Keep an excerpt of each, to listen to while it is away"), this)),
      lookInside_(new QCheckBox(tr("Look inside archives and images of drives"), this)),
      room_(quietLabel({}, this)),
      patterns_(new QPlainTextEdit(this)),
      minSize_(sizeBox(volume.choices.minSize, tr("no limit"), this)),
      maxSize_(sizeBox(volume.choices.maxSize, tr("no limit"), this)),
      depth_(new QSpinBox(this)) {
    setWindowTitle(tr("What a survey takes in"));
    auto* layout = titledLayout(tr("What a survey of %1 takes in").arg(shown(volume.label)), this);

    effort_->addItem(tr("index: checksums, claims and tags"), static_cast<int>(Effort::index));
    effort_->addItem(tr("full: everything is decoded and examined"), static_cast<int>(Effort::full));
    effort_->setCurrentIndex(effort_->findData(static_cast<int>(volume.effort)));
    leaveHidden_->setChecked(volume.choices.leaveHidden);
    followLinks_->setChecked(volume.choices.followLinks);
    lookInside_->setChecked(volume.choices.lookInside);
    keepExcerpts_->setChecked(volume.choices.keepExcerpts);
    keepExcerpts_->setToolTip(
        tr("%1 seconds of the loudest part, its outline and its cover: about %2 each, in a file beside the "
           "catalogue. Only at full effort.")
            .arg(Excerpt::usualSeconds)
            .arg(told(humanBytes(Excerpt::usualBytes))));
    const auto showRoom = [this, holdings] {
        const bool isFull = effort_->currentData().toInt() == static_cast<int>(Effort::full);
        keepExcerpts_->setEnabled(isFull);
        room_->setText(!isFull         ? tr("Excerpts are kept at full effort.")
                       : holdings == 0 ? tr("About %1 each.").arg(told(humanBytes(Excerpt::usualBytes)))
                                       : tr("About %1 for its %2.")
                                             .arg(told(humanBytes(holdings * Excerpt::usualBytes)),
                                                  told(counted(holdings, "holding"))));
    };
    connect(effort_, &QComboBox::currentIndexChanged, this, showRoom);
    showRoom();
    QStringList patterns;
    for (const auto& pattern : volume.choices.leavePatterns) {
        patterns << shown(pattern);
    }
    patterns_->setPlainText(patterns.join(QLatin1Char('\n')));
    patterns_->setPlaceholderText(tr("one shell pattern a line, such as *.tmp or Samples/*"));
    patterns_->setFixedHeight(72);
    patterns_->setTabChangesFocus(true);
    patterns_->setAccessibleName(tr("Patterns to leave out"));
    minSize_->setToolTip(tr("0 is no limit"));
    maxSize_->setToolTip(tr("0 is no limit"));
    depth_->setToolTip(tr("0 is all levels"));
    depth_->setButtonSymbols(QSpinBox::NoButtons);
    depth_->setRange(0, 1000);
    depth_->setSpecialValueText(tr("all levels"));
    depth_->setValue(volume.choices.maxDepth);

    auto* form = new QFormLayout;
    form->setSpacing(8);
    form->addRow(tr("Label"), label_);
    form->addRow(tr("Effort"), effort_);
    form->addRow(QString(), leaveHidden_);
    form->addRow(QString(), followLinks_);
    form->addRow(QString(), lookInside_);
    form->addRow(QString(), keepExcerpts_);
    form->addRow(QString(), room_);
    form->addRow(tr("Leave out"), patterns_);
    form->addRow(tr("Files from"), minSize_);
    form->addRow(tr("Files up to"), maxSize_);
    form->addRow(tr("Folders deep"), depth_);
    layout->addLayout(form);

    auto* go = new QPushButton(tr("Keep and survey"), this);
    go->setDefault(true);
    go->setEnabled(volume.atHand);
    if (!volume.atHand) {
        go->setToolTip(tr("%1 is away.").arg(shown(volume.label)));
    }
    addEnding(*layout, this, go);
    beAtLeast(460, *this);
    connect(go, &QPushButton::clicked, this, [this] {
        emit surveyWanted(request());
        accept();
    });
}

SurveyRequest ChoicesWindow::request() const {
    SurveyChoices choices;
    choices.leaveHidden = leaveHidden_->isChecked();
    choices.followLinks = followLinks_->isChecked();
    choices.lookInside = lookInside_->isChecked();
    choices.keepExcerpts = keepExcerpts_->isChecked() && keepExcerpts_->isEnabled();
    for (const auto& line : patterns_->toPlainText().split(QLatin1Char('\n'), Qt::SkipEmptyParts)) {
        choices.leavePatterns.push_back(line.toStdString());
    }
    choices.minSize = static_cast<std::uint64_t>(minSize_->value()) * kilobyte;
    choices.maxSize = static_cast<std::uint64_t>(maxSize_->value()) * kilobyte;
    choices.maxDepth = depth_->value();
    return {volume_.root, label_->text().toStdString(), choices,
            static_cast<Effort>(effort_->currentData().toInt())};
}

} // namespace sober::app
