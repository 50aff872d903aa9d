#include "app/desks/tags/takeover_form.h"

#include "app/desks/desk.h"
#include "app/words.h"

#include <QComboBox>
#include <QGridLayout>
#include <QLabel>
#include <QPixmap>

#include <map>

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
    const std::map<std::string, QString> words{{"ALBUMARTIST", TakeoverForm::tr("album artist")},
                                               {"DISCNUMBER", TakeoverForm::tr("disc number")},
                                               {"TRACKNUMBER", TakeoverForm::tr("track number")},
                                               {"TITLE", TakeoverForm::tr("title")},
                                               {"ARTIST", TakeoverForm::tr("artist")},
                                               {"ALBUM", TakeoverForm::tr("album")},
                                               {"DATE", TakeoverForm::tr("date")},
                                               {"GENRE", TakeoverForm::tr("genre")},
                                               {"COMPOSER", TakeoverForm::tr("composer")},
                                               {"COMMENT", TakeoverForm::tr("comment")}};
    const auto known = words.find(field);
    return known != words.end() ? known->second : shown(field).toLower();
}

} // namespace

QString shortened(const QString& text, int most) {
    return text.size() > most ? text.left(most - 1) + QChar(0x2026) : text;
}

void TakeoverForm::show(TagTakeover takeover, NameOfOther nameOfOther, Prefer prefer) {
    takeover_ = std::move(takeover);
    nameOfOther_ = std::move(nameOfOther);
    auto* grid = new QGridLayout(this);
    grid->setContentsMargins(0, 0, 8, 0);
    grid->setHorizontalSpacing(16);
    grid->setVerticalSpacing(8);
    grid->setColumnStretch(1, 1);
    grid->setColumnStretch(2, 2);
    int column = 0;
    for (const auto& heading : {tr("Field"), tr("Says now"), tr("Shall say")}) {
        grid->addWidget(quietLabel(heading, this), 0, column++);
    }
    for (const auto& offer : takeover_.fields) {
        addField(*grid, offer, prefer);
    }
    addPictures(*grid);
    grid->setRowStretch(grid->rowCount(), 1);
    emit changed();
}

void TakeoverForm::addField(QGridLayout& grid, const FieldOffer& offer, Prefer prefer) {
    const int row = grid.rowCount();
    auto* box = new QComboBox(this);
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
    box->setCurrentIndex(offer.isConflict() && prefer == Prefer::own ? 0 : 1);
    auto* now = offer.kept.empty() ? quietLabel(tr("nothing"), this)
                                   : new QLabel(shortened(joined(offer.kept)), this);
    now->setToolTip(joined(offer.kept));
    grid.addWidget(strongLabel(fieldWord(offer.field), this), row, 0);
    grid.addWidget(now, row, 1);
    grid.addWidget(box, row, 2);
    fields_.push_back(box);
    connect(box, &QComboBox::currentIndexChanged, this, [this] { emit changed(); });
}

void TakeoverForm::addPictures(QGridLayout& grid) {
    const auto& takeover = takeover_;
    if (takeover.pictures.empty()) {
        return;
    }
    const int row = grid.rowCount();
    picture_ = new QComboBox(this);
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
        const QString words = tr("%1   (%2)").arg(told(humanBytes(bytes.size())), namesOf(offered.from));
        if (pixmap.isNull()) {
            picture_->addItem(words);
        } else {
            picture_->addItem(
                QIcon(pixmap.scaled(pictureSize, pictureSize, Qt::KeepAspectRatio, Qt::SmoothTransformation)),
                words);
        }
    }
    picture_->setCurrentIndex(agreedChange(takeover).picture ? 1 : 0);
    grid.addWidget(strongLabel(tr("picture"), this), row, 0);
    grid.addWidget(quietLabel(takeover.keeperHasPicture ? tr("has one") : tr("nothing"), this), row, 1);
    grid.addWidget(picture_, row, 2);
    connect(picture_, &QComboBox::currentIndexChanged, this, [this] { emit changed(); });
}

QString TakeoverForm::namesOf(const std::vector<std::size_t>& others) const {
    return others.size() == 1 ? nameOfOther_(others.front()) : tr("%1 copies").arg(others.size());
}

TagChange TakeoverForm::chosen() const {
    TagChange change;
    for (std::size_t at = 0; at < fields_.size(); ++at) {
        const auto& offer = takeover_.fields[at];
        const int index = fields_[at]->currentIndex();
        if (index > 0) {
            change.fields[offer.field] = offer.offered[static_cast<std::size_t>(index) - 1].values;
        }
    }
    if (picture_ != nullptr && picture_->currentIndex() > 0) {
        change.picture = takeover_.pictures[static_cast<std::size_t>(picture_->currentIndex()) - 1].picture;
    }
    return change;
}

std::set<std::size_t> TakeoverForm::chosenFrom() const {
    std::set<std::size_t> others;
    for (std::size_t at = 0; at < fields_.size(); ++at) {
        if (fields_[at]->currentIndex() > 0) {
            const auto which = static_cast<std::size_t>(fields_[at]->currentIndex()) - 1;
            others.insert(takeover_.fields[at].offered[which].from.front());
        }
    }
    if (picture_ != nullptr && picture_->currentIndex() > 0) {
        const auto which = static_cast<std::size_t>(picture_->currentIndex()) - 1;
        others.insert(takeover_.pictures[which].from.front());
    }
    return others;
}

} // namespace sober::app
