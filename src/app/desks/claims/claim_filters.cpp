#include "app/desks/claims/claim_filters.h"

#include "app/charts/trace_chart.h"
#include "app/desks/desk.h"
#include "app/words.h"
#include "app/wrap_row.h"

#include <QAbstractItemView>
#include <QCheckBox>
#include <QComboBox>
#include <QLineEdit>
#include <QScopedValueRollback>
#include <QTimer>

#include <algorithm>

namespace sober::app {
namespace {

/// The parts of a filter that one box chooses between.
enum class Which {
    all,
    lossless,
    lossy,
    underLimit,
    underLimitBetter,
};

Which whichOf(const HoldingFilter& filter) {
    if (filter.underLimit) {
        return filter.betterElsewhere ? Which::underLimitBetter : Which::underLimit;
    }
    return filter.kind == HoldingFilter::Kind::lossless ? Which::lossless
           : filter.kind == HoldingFilter::Kind::lossy  ? Which::lossy
                                                        : Which::all;
}

QString verdictsText(const std::vector<VerdictClass>& verdicts) {
    QStringList words;
    for (const auto verdict : verdicts) {
        words << verdictWord(verdict);
    }
    return words.join(ClaimFilters::tr(" or "));
}

QVariantList verdictData(const std::vector<VerdictClass>& verdicts) {
    QVariantList data;
    for (const auto verdict : verdicts) {
        data << static_cast<int>(verdict);
    }
    return data;
}

} // namespace

ClaimFilters::ClaimFilters(QWidget* parent)
    : QWidget(parent),
      text_(new QLineEdit(this)),
      volume_(new QComboBox(this)),
      folder_(new QComboBox(this)),
      codec_(new QComboBox(this)),
      verdict_(new QComboBox(this)),
      which_(new QComboBox(this)),
      acceptedToo_(new QCheckBox(tr("accepted too"), this)) {
    text_->setPlaceholderText(tr("Path, title, artist"));
    text_->setAccessibleName(tr("Filter by text"));
    volume_->setAccessibleName(tr("Filter by volume"));
    folder_->setAccessibleName(tr("Filter by folder"));
    codec_->setAccessibleName(tr("Filter by codec"));
    verdict_->setAccessibleName(tr("Filter by verdict"));
    which_->setAccessibleName(tr("Filter by claim"));
    acceptedToo_->setToolTip(
        tr("Where verdicts or the limit are asked for: show those that were accepted as they are, too"));
    using enum VerdictClass;
    verdict_->addItem(tr("any verdict"), QVariantList());
    for (const auto& verdicts :
         {std::vector{doubtful, transcoded}, {transcoded}, {doubtful}, {undetermined}, {genuine}}) {
        verdict_->addItem(verdictsText(verdicts), verdictData(verdicts));
    }
    which_->addItem(tr("any claim"), static_cast<int>(Which::all));
    which_->addItem(tr("lossless"), static_cast<int>(Which::lossless));
    which_->addItem(tr("lossy"), static_cast<int>(Which::lossy));
    which_->addItem(tr("under the limit"), static_cast<int>(Which::underLimit));
    which_->addItem(tr("under the limit, better copy elsewhere"), static_cast<int>(Which::underLimitBetter));
    auto* filters = new WrapRow;
    filters->setContentsMargins(0, 0, 0, 0);
    filters->setSpacing(8);
    filters->addWidget(text_, 1);
    for (auto* box : {volume_, folder_, codec_, verdict_, which_}) {
        fitWords(*box, box == volume_   ? QStringList{tr("all volumes")}
                       : box == folder_ ? QStringList{tr("all folders")}
                       : box == codec_  ? QStringList{tr("all codecs")}
                                        : QStringList());
        filters->addWidget(box);
    }
    filters->addWidget(acceptedToo_);
    setLayout(filters);
    auto* typing = new QTimer(this);
    typing->setSingleShot(true);
    typing->setInterval(250);
    connect(text_, &QLineEdit::textChanged, typing, qOverload<>(&QTimer::start));
    connect(typing, &QTimer::timeout, this, &ClaimFilters::changed);
    for (auto* box : {volume_, folder_, codec_, verdict_, which_}) {
        connect(box, &QComboBox::currentIndexChanged, this, [this, box] {
            if (!filling_) {
                if (box == volume_) {
                    folder_->setCurrentIndex(0);
                }
                emit changed();
            }
        });
    }
    connect(acceptedToo_, &QCheckBox::toggled, this, [this] {
        if (!filling_) {
            emit changed();
        }
    });
}

HoldingFilter ClaimFilters::filter() const {
    if (wanted_) {
        return *wanted_;
    }
    return shownFilter();
}

HoldingFilter ClaimFilters::shownFilter() const {
    HoldingFilter filter = beside_;
    filter.text = text_->text().toStdString();
    if (volume_->currentData().isValid()) {
        filter.volume = volume_->currentData().toLongLong();
        filter.folder = folder_->currentData().toByteArray().toStdString();
    } else {
        filter.volume.reset();
        filter.folder.clear();
    }
    filter.codec = codec_->currentData().toString().toStdString();
    filter.verdicts.clear();
    for (const auto& verdict : verdict_->currentData().toList()) {
        filter.verdicts.push_back(static_cast<VerdictClass>(verdict.toInt()));
    }
    const auto which = static_cast<Which>(which_->currentData().toInt());
    filter.kind = which == Which::lossless ? HoldingFilter::Kind::lossless
                  : which == Which::lossy  ? HoldingFilter::Kind::lossy
                                           : HoldingFilter::Kind::any;
    filter.underLimit = which == Which::underLimit || which == Which::underLimitBetter;
    filter.betterElsewhere = which == Which::underLimitBetter;
    filter.acceptedToo = acceptedToo_->isChecked();
    return filter;
}

/// The boxes for volume, folder and codec are filled from the catalogue: what they shall show is kept until
/// then.
void ClaimFilters::setFilter(const HoldingFilter& filter) {
    {
        const QScopedValueRollback filling(filling_, true);
        const QSignalBlocker quiet(text_);
        text_->setText(shown(filter.text));
        const auto verdicts = verdictData(filter.verdicts);
        if (verdict_->findData(verdicts) < 0) {
            verdict_->addItem(verdictsText(filter.verdicts), verdicts);
        }
        verdict_->setCurrentIndex(verdict_->findData(verdicts));
        which_->setCurrentIndex(which_->findData(static_cast<int>(whichOf(filter))));
        acceptedToo_->setChecked(filter.acceptedToo);
    }
    wanted_ = filter;
    beside_ = filter;
    emit changed();
}

void ClaimFilters::fill(const Choices& choices) {
    const auto meant = filter();
    wanted_.reset();
    const QScopedValueRollback filling(filling_, true);
    volume_->clear();
    volume_->addItem(tr("all volumes"));
    for (const auto& volume : choices.volumes) {
        volume_->addItem(volumeName(volume), QVariant::fromValue<qlonglong>(volume.id));
    }
    volume_->setCurrentIndex(
        meant.volume ? std::max(0, volume_->findData(QVariant::fromValue<qlonglong>(*meant.volume))) : 0);
    folder_->clear();
    folder_->addItem(tr("all folders"), QByteArray());
    for (const auto& folder : choices.folders) {
        if (!folder.path.empty()) {
            folder_->addItem(shownPath(folder.path), QByteArray::fromStdString(folder.path));
        }
    }
    folder_->setEnabled(meant.volume.has_value());
    // Without either the accepted are shown like all others.
    acceptedToo_->setEnabled(!meant.verdicts.empty() || meant.underLimit);
    folder_->setCurrentIndex(std::max(0, folder_->findData(QByteArray::fromStdString(meant.folder))));
    codec_->clear();
    codec_->addItem(tr("all codecs"), QString());
    for (const auto& codec : choices.codecs) {
        codec_->addItem(codecName(codec), shown(codec));
    }
    codec_->setCurrentIndex(std::max(0, codec_->findData(shown(meant.codec))));
    for (auto* box : {volume_, folder_, codec_}) {
        box->view()->setMinimumWidth(box == folder_ ? 280 : 120);
    }
    which_->view()->setMinimumWidth(270);
    verdict_->view()->setMinimumWidth(180);
}

} // namespace sober::app
