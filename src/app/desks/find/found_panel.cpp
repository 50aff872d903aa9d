#include "app/desks/find/found_panel.h"

#include "app/desks/desk.h"
#include "app/listening/listening_bar.h"
#include "app/theme/theme.h"
#include "app/words.h"
#include "core/catalogue/findings.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QVBoxLayout>

#include <array>

namespace sober::app {
namespace {

constexpr std::size_t namedAtMost = 4; ///< copies and lists by name

/// Lines for some of many, and how many more there are.
template <typename Rows, typename Words>
QString someOf(const Rows& rows, Words words, const QString& none) {
    QStringList lines;
    for (const auto& row : rows) {
        if (static_cast<std::size_t>(lines.size()) == namedAtMost) {
            lines << QObject::tr("and %1 more").arg(told(humanCount(rows.size() - namedAtMost)));
            break;
        }
        lines << words(row);
    }
    return lines.isEmpty() ? none : lines.join(QLatin1Char('\n'));
}

} // namespace

Result<std::optional<FoundDetail>> detailOfFound(const Catalogue& catalogue, HoldingId id) {
    auto found = foundHoldings(catalogue, std::array{id});
    const auto set = Findings(catalogue).setOf(id);
    if (!found || !set) {
        return found ? set.error() : found.error();
    }
    if (found->empty()) {
        return std::optional<FoundDetail>();
    }
    FoundDetail detail{std::move(found->front()), {}};
    if (*set && detail.found.copies > 0) {
        auto members = Findings(catalogue).membersOf((*set)->id);
        RETURN_IF_FAILED(members);
        std::erase(*members, id);
        auto copies = foundHoldings(catalogue, *members);
        RETURN_IF_FAILED(copies);
        detail.copies = std::move(*copies);
    }
    return std::optional(std::move(detail));
}

Mark markOf(const FoundHolding& found) {
    switch (found.holding.state) {
    case HoldingState::retired:
        return Mark::retire;
    case HoldingState::writtenOff:
        return Mark::writeOff;
    case HoldingState::missing:
        return Mark::missing;
    case HoldingState::leftOut:
    case HoldingState::forgotten:
        return Mark::none;
    case HoldingState::present:
        break;
    }
    return !found.sound ? Mark::damaged : found.verdict ? markOf(*found.verdict) : Mark::none;
}

QString conditionWords(const FoundHolding& found) {
    switch (found.holding.state) {
    case HoldingState::retired:
        return FoundPanel::tr("retired");
    case HoldingState::writtenOff:
        return FoundPanel::tr("written off");
    case HoldingState::missing:
        return FoundPanel::tr("missing");
    case HoldingState::leftOut:
        return FoundPanel::tr("left out");
    case HoldingState::forgotten:
        return FoundPanel::tr("forgotten with its volume");
    case HoldingState::present:
        break;
    }
    return !found.sound    ? FoundPanel::tr("damaged")
           : found.verdict ? verdictWord(*found.verdict)
                           : FoundPanel::tr("not examined");
}

FoundPanel::FoundPanel(Workbench& workbench, QWidget* parent)
    : QWidget(parent),
      workbench_(workbench),
      title_(strongLabel({}, this)),
      place_(paragraph(tr("Where it lies"), this)),
      reach_(paragraph(tr("How to reach it"), this)),
      copies_(paragraph(tr("Its other copies"), this)),
      lists_(paragraph(tr("Lists that lead to it"), this)),
      listening_(new ListeningBar(this)) {
    place_->setFont(Theme::bytes());
    title_->setAccessibleName(tr("The chosen one"));
    title_->setTextFormat(Qt::PlainText);
    title_->setWordWrap(true);
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(0, 4, 0, 0);
    row->setSpacing(20);
    auto* first = new QVBoxLayout;
    first->setSpacing(4);
    first->addWidget(title_);
    first->addWidget(place_);
    first->addWidget(reach_);
    first->addWidget(listening_);
    first->addStretch(1);
    row->addLayout(first, 5);
    for (const auto& [heading, body] : {std::pair(tr("Other copies"), copies_), {tr("In lists"), lists_}}) {
        auto* column = new QVBoxLayout;
        column->setSpacing(4);
        column->addWidget(quietLabel(heading, this));
        column->addWidget(body);
        column->addStretch(1);
        row->addLayout(column, 3);
    }
    setDetail(std::nullopt);
}

void FoundPanel::setDetail(const std::optional<FoundDetail>& detail) {
    const bool same = detail && shown_ == detail->found.holding.id;
    shown_ = detail ? std::optional(detail->found.holding.id) : std::nullopt;
    if (!detail) {
        title_->setText(tr("Choose one of the list to see where it lies, its copies and its lists."));
        for (auto* label : {place_, reach_, copies_, lists_}) {
            label->clear();
        }
        listening_->setFile({}, tr("nothing is chosen"));
        return;
    }
    const auto& found = detail->found;
    const auto& tags = found.holding.tags;
    QString title = tags.title.empty() ? shownPath(BytePath(nameOf(found.holding.path))) : shown(tags.title);
    for (const auto& field : {tags.artist, tags.album, tags.date}) {
        title += field.empty() ? QString() : QStringLiteral(" · ") + shown(field);
    }
    title_->setText(title);
    title_->setToolTip(title);
    // So that a long path can be wrapped where its folders part.
    place_->setText(shownPath(found.path).replace(QLatin1Char('/'), QStringLiteral("/\u200b")));
    place_->setToolTip(shownPath(found.path));
    reach_->setText(tr("%1; %2").arg(told(reachWords(found)), conditionWords(found)));
    copies_->setText(someOf(
        detail->copies,
        [](const FoundHolding& copy) {
            return QStringLiteral("%1/%2%3").arg(shown(copy.volume.label),
                                                 shownPath(BytePath(nameOf(copy.holding.path))),
                                                 copy.reachable ? QString() : FoundPanel::tr(" (away)"));
        },
        found.holding.state == HoldingState::present ? tr("none that is known") : tr("–")));
    lists_->setText(someOf(
        found.lists, [](const BytePath& list) { return shownPath(BytePath(nameOf(list))); },
        tr("in no list")));
    if (!same && found.reachable) {
        listening_->setFile(found.path);
    } else if (!same) {
        listening_->setAway(workbench_, found.holding.id, told(reachWords(found)));
    }
}

} // namespace sober::app
