#include "app/desks/narrowing_row.h"

#include "app/charts/trace_chart.h"
#include "app/desks/desk.h"
#include "app/hand_focus_on.h"
#include "app/theme/marks.h"
#include "app/words.h"
#include "app/wrap_row.h"
#include "core/catalogue/span_text.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLineEdit>
#include <QShortcut>
#include <QSignalBlocker>
#include <QTimer>

#include <algorithm>

namespace sober::app {
namespace {

constexpr int typingPause = 80; // milliseconds after the last key

std::string typed(const QLineEdit* line) {
    return line->text().toStdString();
}

} // namespace

NarrowingRow::NarrowingRow(QWidget* parent)
    : QWidget(parent),
      words_(new QLineEdit(this)),
      codec_(new QComboBox(this)),
      verdict_(new QComboBox(this)),
      listed_(new QComboBox(this)),
      bitrate_(new QLineEdit(this)),
      length_(new QLineEdit(this)),
      years_(new QLineEdit(this)) {
    words_->setPlaceholderText(tr("Words, or parts of words, in titles, names, folders and lists"));
    words_->setAccessibleName(tr("Words to find"));
    auto* row = new WrapRow(this);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(8);
    row->addWidget(words_, 1);
    buildBoxes();
    for (auto* box : {codec_, verdict_, listed_}) {
        fitWords(*box);
        row->addWidget(box);
        connect(box, &QComboBox::currentIndexChanged, this, &NarrowingRow::changed);
    }
    auto* typing = new QTimer(this);
    typing->setSingleShot(true);
    typing->setInterval(typingPause);
    connect(typing, &QTimer::timeout, this, &NarrowingRow::changed);
    connect(words_, &QLineEdit::textChanged, typing, qOverload<>(&QTimer::start));
    for (const auto& [line, name, example] : {std::tuple(bitrate_, tr("kbit/s"), tr("96-160")),
                                              {length_, tr("length"), tr("2:00-5:00")},
                                              {years_, tr("years"), tr("1970-1979")}}) {
        line->setAccessibleName(tr("Only within: %1").arg(name));
        line->setPlaceholderText(name);
        line->setToolTip(tr("From and to, either may be left out, as %1").arg(example));
        line->setFixedWidth(84);
        row->addWidget(line);
        connect(line, &QLineEdit::textChanged, typing, qOverload<>(&QTimer::start));
    }
    auto* down = new QShortcut(QKeySequence(Qt::Key_Down), words_);
    down->setContext(Qt::WidgetShortcut);
    connect(down, &QShortcut::activated, this, &NarrowingRow::downPressed);
    handFocusOn(this, words_);
}

void NarrowingRow::buildBoxes() {
    using enum HoldingFilter::Listed;
    codec_->setAccessibleName(tr("Only of a codec"));
    codec_->addItem(tr("all codecs"), QString());
    verdict_->setAccessibleName(tr("Only with a verdict"));
    verdict_->addItem(tr("any verdict"));
    for (const auto verdict : everyVerdict) {
        verdict_->addItem(verdictWord(verdict), static_cast<int>(verdict));
    }
    listed_->setAccessibleName(tr("Only in a list or in none"));
    listed_->addItem(tr("in lists or not"), static_cast<int>(any));
    listed_->addItem(tr("in a list"), static_cast<int>(inAList));
    listed_->addItem(tr("in no list"), static_cast<int>(inNoList));
}

std::optional<HoldingFilter> NarrowingRow::narrowed(HoldingFilter filter) const {
    const auto bitrate = wholeSpanFrom<std::int64_t>(typed(bitrate_), 1000);
    const auto seconds = spanFrom(typed(length_));
    const auto years = wholeSpanFrom<int>(typed(years_));
    if (!bitrate || !seconds || !years) {
        return std::nullopt;
    }
    filter.text += (filter.text.empty() ? "" : " ") + typed(words_);
    if (const auto codec = codec_->currentData().toString(); !codec.isEmpty()) {
        filter.codec = codec.toStdString();
    }
    if (const auto verdict = verdict_->currentData(); verdict.isValid()) {
        filter.verdicts = {static_cast<VerdictClass>(verdict.toInt())};
        filter.acceptedToo = true;
    }
    const auto listed = static_cast<HoldingFilter::Listed>(listed_->currentData().toInt());
    filter.listed = listed != HoldingFilter::Listed::any ? listed : filter.listed;
    filter.bitrate = bitrate->isOpen() ? filter.bitrate : *bitrate;
    filter.seconds = seconds->isOpen() ? filter.seconds : *seconds;
    filter.years = years->isOpen() ? filter.years : *years;
    return filter;
}

QString NarrowingRow::words() const {
    return words_->text();
}

void NarrowingRow::setCodecs(const std::vector<std::string>& codecs) {
    const QSignalBlocker quiet(codec_);
    const auto before = codec_->currentData();
    codec_->clear();
    codec_->addItem(tr("all codecs"), QString());
    for (const auto& codec : codecs) {
        codec_->addItem(codecName(codec), shown(codec));
    }
    codec_->setCurrentIndex(std::max(0, codec_->findData(before)));
}

void NarrowingRow::beginTyping() {
    words_->setFocus();
    words_->selectAll();
}

} // namespace sober::app
