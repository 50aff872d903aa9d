#include "app/desks/intake/replacement_rows.h"

#include "app/words.h"

#include <algorithm>

namespace sober::app {
namespace {

QString betterWords(const WantedRow& row) {
    if (!row.candidates.empty()) {
        return shownPath(row.candidates.front().path);
    }
    // That the shelf lacks it is no candidate.
    const auto met = std::ranges::count_if(
        row.refused, [](const Candidate& each) { return each.unfit != Unfit::notOnOffer; });
    if (met > 0) {
        return QObject::tr("none; %1")
            .arg(told(counted(static_cast<std::uint64_t>(met), "does not fit", "do not fit")));
    }
    return row.refused.empty() ? QObject::tr("none is known") : QObject::tr("none is known, nor on offer");
}

} // namespace

Mark markOfWanted(WantedFor why) {
    switch (why) {
    case WantedFor::cut:
    case WantedFor::damaged:
        return Mark::damaged;
    case WantedFor::transcoded:
        return Mark::transcoded;
    case WantedFor::underLimit:
        break;
    }
    return Mark::doubtful;
}

QString wantedWord(WantedFor why) {
    switch (why) {
    case WantedFor::cut:
        return QObject::tr("cut");
    case WantedFor::damaged:
        return QObject::tr("damaged");
    case WantedFor::transcoded:
        return QObject::tr("transcoded");
    case WantedFor::underLimit:
        break;
    }
    return QObject::tr("under the limit");
}

QString unfitWord(Unfit unfit) {
    switch (unfit) {
    case Unfit::otherEdit:
        return QObject::tr("another edit");
    case Unfit::otherMaster:
        return QObject::tr("another master");
    case Unfit::otherLength:
        return QObject::tr("another length");
    case Unfit::onlyTags:
        return QObject::tr("only the tags");
    case Unfit::notBetter:
        return QObject::tr("no better");
    case Unfit::notOnOffer:
        return QObject::tr("not on offer");
    case Unfit::unsound:
        break;
    }
    return QObject::tr("damaged itself");
}

QString sourceWord(const Candidate& candidate) {
    return candidate.source == CandidateSource::offer ? QObject::tr("on offer")
           : candidate.atHand                         ? QObject::tr("at hand")
                                                      : QObject::tr("away");
}

QString reasonsOf(const Candidate& candidate) {
    QStringList reasons;
    for (const auto& reason : candidate.reasons) {
        reasons << told(reason);
    }
    return reasons.join(QStringLiteral("; "));
}

std::vector<Column<WantedLine>> wantedColumns() {
    return {
        {QObject::tr("It is"),
         [](const WantedLine& each) {
             return Cell{wantedWord(*each.row.wanted.why), markOfWanted(*each.row.wanted.why), false, false,
                         told(each.row.wanted.words)};
         }},
        {QObject::tr("Holding"),
         [](const WantedLine& each) {
             return Cell{shownPath(BytePath(nameOf(each.row.wanted.path))), Mark::none, true, false,
                         shownPath(each.row.wanted.path)};
         }},
        {QObject::tr("By its evidence"),
         [](const WantedLine& each) {
             return Cell{told(each.row.wanted.words), Mark::none, false, true, told(each.row.wanted.words)};
         }},
        {QObject::tr("Better is"),
         [](const WantedLine& each) {
             const bool isAny = !each.row.candidates.empty();
             return each.waits ? Cell{QObject::tr("to be replaced"), Mark::moved, false, false, {}}
                               : Cell{betterWords(each.row), isAny ? Mark::keep : Mark::none, isAny, !isAny,
                                      betterWords(each.row)};
         }},
        {QObject::tr("Where"), [](const WantedLine& each) {
             return each.row.candidates.empty()
                        ? Cell{QString(), Mark::none, false, true, {}}
                        : Cell{sourceWord(each.row.candidates.front()),
                               each.row.candidates.front().atHand ? Mark::none : Mark::away,
                               false,
                               false,
                               {}};
         }}};
}

std::vector<Column<Candidate>> candidateColumns() {
    return {{QObject::tr("Candidate"),
             [](const Candidate& each) {
                 return Cell{each.unfit ? unfitWord(*each.unfit) : QObject::tr("better"),
                             each.unfit ? Mark::undetermined : Mark::keep, false, each.unfit.has_value(),
                             reasonsOf(each)};
             }},
            {QObject::tr("Lies"),
             [](const Candidate& each) {
                 return Cell{sourceWord(each), Mark::none, false, true, {}};
             }},
            {QObject::tr("At"), [](const Candidate& each) {
                 return Cell{shownPath(each.path), Mark::none, true, each.unfit.has_value(), reasonsOf(each)};
             }}};
}

} // namespace sober::app
