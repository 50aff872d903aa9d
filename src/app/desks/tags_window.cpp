#include "app/desks/tags_window.h"

#include "app/desks/desk.h"
#include "app/theme/theme.h"
#include "app/words.h"

#include <QComboBox>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QPixmap>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

#include <algorithm>
#include <map>
#include <set>

namespace sober::app {
namespace {

constexpr int pictureSize = 56; // pixels

QString joined(const std::vector<std::string>& values) {
    QStringList words;
    for (const auto& value : values) {
        words << shown(value).simplified();
    }
    return words.join(QStringLiteral(", "));
}

/// A field's name as people write it.
QString fieldWord(const std::string& field) {
    static const std::map<std::string, QString> words{{"ALBUMARTIST", QStringLiteral("album artist")},
                                                      {"DISCNUMBER", QStringLiteral("disc number")},
                                                      {"TRACKNUMBER", QStringLiteral("track number")}};
    const auto known = words.find(field);
    return known != words.end() ? known->second : shown(field).toLower();
}

QString shortened(const QString& text, int most = 48) {
    return text.size() > most ? text.left(most - 1) + QChar(0x2026) : text;
}

} // namespace

TagsWindow::TagsWindow(Workbench& workbench, std::shared_ptr<const SetDetail> detail, std::size_t keeper,
                       std::vector<Volume> volumes, QWidget* parent)
    : QDialog(parent),
      workbench_(workbench),
      detail_(std::move(detail)),
      volumes_(std::move(volumes)),
      keeper_(keeper),
      explanation_(new QLabel(tr("Reading the tags of all members …"), this)),
      rows_(new QWidget(this)),
      outcome_(new QLabel(this)),
      put_(new QPushButton(tr("Put on the docket"), this)) {
    setWindowTitle(tr("Take tags over"));
    resize(860, 560);
    auto* layout = titledLayout(tr("Take tags over"), this);
    explanation_->setWordWrap(true);
    explanation_->setAccessibleName(tr("What the others know"));
    layout->addWidget(explanation_);
    auto* area = new QScrollArea(this);
    area->setWidgetResizable(true);
    area->setFrameShape(QFrame::NoFrame);
    area->setWidget(rows_);
    layout->addWidget(area, 1);
    outcome_->setWordWrap(true);
    outcome_->setAccessibleName(tr("What would be written"));
    layout->addWidget(outcome_);

    auto* buttons = new QHBoxLayout;
    auto* close = new QPushButton(tr("Cancel"), this);
    put_->setProperty("weight", "main");
    put_->setDefault(true);
    put_->setEnabled(false);
    buttons->addStretch(1);
    buttons->addWidget(close);
    buttons->addWidget(put_);
    layout->addLayout(buttons);
    connect(close, &QPushButton::clicked, this, &QDialog::reject);
    connect(put_, &QPushButton::clicked, this, [this] {
        const auto id = detail_->members[keeper_].id;
        workbench_.decide([id, change = chosen(), from = chosenFrom()](const Catalogue& catalogue) {
            return planRetag(catalogue, id, change, from);
        });
        accept();
    });
    workbench_.look<SetTags>(
        this,
        [detail = detail_, keeper, volumes = volumes_](RunControl&) {
            return readSetTags(*detail, keeper, volumes);
        },
        [this](const SetTags& tags) { show(tags); });
}

void TagsWindow::show(const SetTags& tags) {
    tags_ = tags;
    const auto name = shownPath(BytePath(nameOf(detail_->members[keeper_].path)));
    if (tags_.takeover.isEmpty()) {
        explanation_->setText(
            tr("%1 stays, and the others know nothing that it does not say itself.").arg(name));
        return;
    }
    explanation_->setText(
        tr("%1 stays. What it lacks and the others agree on is chosen; where they disagree, it "
           "keeps its own unless you choose. Its audio data are not touched.")
            .arg(name));
    auto* grid = new QGridLayout(rows_);
    grid->setContentsMargins(0, 0, 8, 0);
    grid->setHorizontalSpacing(16);
    grid->setVerticalSpacing(8);
    grid->setColumnStretch(1, 1);
    grid->setColumnStretch(2, 2);
    int column = 0;
    for (const auto& heading : {tr("Field"), tr("Says now"), tr("Shall say")}) {
        grid->addWidget(quietLabel(heading, rows_), 0, column++);
    }
    for (const auto& offer : tags_.takeover.fields) {
        addField(*grid, offer);
    }
    addPictures(*grid);
    grid->setRowStretch(grid->rowCount(), 1);
    follow();
}

void TagsWindow::addField(QGridLayout& grid, const FieldOffer& offer) {
    const int row = grid.rowCount();
    auto* box = new QComboBox(rows_);
    box->setAccessibleName(tr("What %1 shall say").arg(fieldWord(offer.field)));
    box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    const QString asNow = offer.kept.empty() ? tr("nothing, as now") : tr("as now");
    box->addItem(offer.offered.size() > 1 ? tr("%1   (the others disagree)").arg(asNow)
                 : offer.isConflict()     ? tr("%1   (another disagrees)").arg(asNow)
                                          : asNow);
    for (const auto& value : offer.offered) {
        box->addItem(tr("%1   (%2)").arg(shortened(joined(value.values)), namesOf(value.from)));
        box->setItemData(box->count() - 1, joined(value.values), Qt::ToolTipRole);
    }
    box->setCurrentIndex(offer.isConflict() ? 0 : 1);
    auto* now = offer.kept.empty() ? quietLabel(tr("nothing"), rows_)
                                   : new QLabel(shortened(joined(offer.kept)), rows_);
    now->setToolTip(joined(offer.kept));
    grid.addWidget(strongLabel(fieldWord(offer.field), rows_), row, 0);
    grid.addWidget(now, row, 1);
    grid.addWidget(box, row, 2);
    fields_.push_back(box);
    connect(box, &QComboBox::currentIndexChanged, this, [this] { follow(); });
}

void TagsWindow::addPictures(QGridLayout& grid) {
    const auto& takeover = tags_.takeover;
    if (takeover.pictures.empty()) {
        return;
    }
    const int row = grid.rowCount();
    picture_ = new QComboBox(rows_);
    picture_->setAccessibleName(tr("Which picture to add"));
    picture_->setIconSize({pictureSize, pictureSize});
    picture_->setMinimumHeight(pictureSize + 8);
    picture_->addItem(tr("none added"));
    for (const auto& offered : takeover.pictures) {
        const auto& bytes = offered.picture.bytes;
        const auto& small = offered.small;
        const auto pixmap =
            QPixmap::fromImage(QImage(reinterpret_cast<const uchar*>(small.pixels.data()), small.width,
                                      small.height, small.width * 4, QImage::Format_RGBA8888));
        const QString words = tr("%1   (%2)").arg(shown(humanBytes(bytes.size())), namesOf(offered.from));
        if (pixmap.isNull()) {
            picture_->addItem(words);
        } else {
            picture_->addItem(
                QIcon(pixmap.scaled(pictureSize, pictureSize, Qt::KeepAspectRatio, Qt::SmoothTransformation)),
                words);
        }
    }
    picture_->setCurrentIndex(agreedChange(takeover).picture ? 1 : 0);
    grid.addWidget(strongLabel(tr("picture"), rows_), row, 0);
    grid.addWidget(quietLabel(takeover.keeperHasPicture ? tr("has one") : tr("nothing"), rows_), row, 1);
    grid.addWidget(picture_, row, 2);
    connect(picture_, &QComboBox::currentIndexChanged, this, [this] { follow(); });
}

QString TagsWindow::nameOfOther(std::size_t other) const {
    const auto& member = detail_->members[tags_.others[other]];
    const auto volume = std::ranges::find(volumes_, member.volume, &Volume::id);
    return QStringLiteral("%1/%2").arg(volume != volumes_.end() ? shown(volume->label) : QString(),
                                       shownPath(BytePath(nameOf(member.path))));
}

QString TagsWindow::namesOf(const std::vector<std::size_t>& others) const {
    return others.size() == 1 ? nameOfOther(others.front()) : tr("%1 copies").arg(others.size());
}

TagChange TagsWindow::chosen() const {
    TagChange change;
    for (std::size_t at = 0; at < fields_.size(); ++at) {
        const auto& offer = tags_.takeover.fields[at];
        const int index = fields_[at]->currentIndex();
        if (index > 0) {
            change.fields[offer.field] = offer.offered[static_cast<std::size_t>(index) - 1].values;
        }
    }
    if (picture_ != nullptr && picture_->currentIndex() > 0) {
        change.picture =
            tags_.takeover.pictures[static_cast<std::size_t>(picture_->currentIndex()) - 1].picture;
    }
    return change;
}

std::string TagsWindow::chosenFrom() const {
    std::set<std::size_t> others;
    const auto add = [&](const std::vector<std::size_t>& from) { others.insert(from.front()); };
    for (std::size_t at = 0; at < fields_.size(); ++at) {
        if (fields_[at]->currentIndex() > 0) {
            add(tags_.takeover.fields[at]
                    .offered[static_cast<std::size_t>(fields_[at]->currentIndex()) - 1]
                    .from);
        }
    }
    if (picture_ != nullptr && picture_->currentIndex() > 0) {
        add(tags_.takeover.pictures[static_cast<std::size_t>(picture_->currentIndex()) - 1].from);
    }
    QStringList names;
    for (const auto other : others) {
        names << nameOfOther(other);
    }
    return names.join(QStringLiteral(", ")).toStdString();
}

void TagsWindow::follow() {
    const auto change = chosen();
    outcome_->setText(
        change.isEmpty()
            ? tr("Nothing would be written.")
            : tr("Would write %1. Nothing changes until the docket is carried out; what the file "
                 "was goes to the trash.")
                  .arg(shortened(shown(changeWords(change)).simplified(), 160)));
    put_->setEnabled(!change.isEmpty());
}

} // namespace sober::app
