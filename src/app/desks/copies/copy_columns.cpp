#include "app/desks/copies/copy_columns.h"

#include "app/desks/copies/set_words.h"
#include "app/words.h"
#include "core/base/text.h"
#include "core/catalogue/holdings.h"

#include <algorithm>

namespace sober::app {
namespace {

QString tagText(const Tags& tags) {
    QStringList parts;
    for (const auto* tag : {&tags.artist, &tags.title}) {
        if (!tag->empty()) {
            parts << shown(*tag);
        }
    }
    return parts.join(QStringLiteral(" – "));
}

QString claimText(const Claims& claims) {
    const QString codec = shown(claims.codec.substr(0, claims.codec.find('_'))).toUpper();
    return claims.lossless ? QStringLiteral("%1 %2/%3")
                                 .arg(codec)
                                 .arg(claims.bitDepth)
                                 .arg(claims.sampleRate / 1000.0, 0, 'g', 4)
                           : QStringLiteral("%1 %2").arg(codec).arg(claims.bitrate / 1000);
}

} // namespace

std::vector<Column<SetRow>> CopyColumns::ofSets() {
    return {
        {tr("Recording"),
         [](const SetRow& row) {
             const Mark mark = row.decision.leftAlone    ? Mark::sound
                               : isDecided(row.decision) ? Mark::keep
                                                         : Mark::copies;
             return Cell{shown(row.name), mark, false, isDecided(row.decision), {}};
         }},
        {tr("Same"),
         [](const SetRow& row) {
             return Cell{
                 samenessShort(row.set.sameness), row.set.doubt ? Mark::doubtful : Mark::none, false, false,
                 told(samenessWords(row.set.sameness)) +
                     (row.set.doubt ? tr("; holds something damaged or not what it claims") : QString())};
         }},
        {tr("Held"),
         [](const SetRow& row) {
             return Cell{
                 told(humanCount(row.set.members)) + QStringLiteral(" ×"), Mark::none, false, false, {}};
         },
         true},
        {tr("Frees"),
         [](const SetRow& row) {
             const bool exact = row.set.sameness == Sameness::bytes;
             return Cell{row.set.reclaimable == 0 ? tr("nothing")
                                                  : (exact ? QString() : QStringLiteral("≈ ")) +
                                                        told(humanBytes(row.set.reclaimable)),
                         Mark::none, false, row.set.reclaimable == 0,
                         exact ? QString() : tr("What keeping one copy of the main recording would free")};
         },
         true}};
}

std::vector<Column<MemberRow>> CopyColumns::ofMembers() {
    return {
        {tr("Decision"),
         [](const MemberRow& row) {
             return Cell{decisionText(*row.detail, row.at), markFor(*row.detail, row.at), false, false, {}};
         }},
        {tr("Volume"),
         [](const MemberRow& row) {
             return Cell{shown(row.volume) + (row.atHand ? QString() : tr(" (away)")),
                         Mark::none,
                         false,
                         !row.atHand,
                         {}};
         }},
        {tr("Path"),
         [](const MemberRow& row) {
             return Cell{shownPath(row.holding().path), Mark::none, true, false,
                         shownPath(joinPath(row.root, row.holding().path))};
         }},
        {tr("Sound"),
         [](const MemberRow& row) {
             const auto& known = row.detail->known;
             const auto& claims = row.holding().claims;
             const QString stated = claimText(claims);
             if (known.isEmpty() || !known.facts(row.at).examined) {
                 return Cell{stated, Mark::none, false, false, {}};
             }
             const auto& evidence = known.facts(row.at).evidence;
             return Cell{stated + QStringLiteral("  ") + told(humanSeconds(evidence.seconds)),
                         !evidence.sound() ? Mark::damaged : markOf(evidence.verdict.verdict), false, false,
                         evidence.sound() ? verdictWord(evidence.verdict.verdict) : tr("damaged")};
         }},
        {tr("Written"),
         [](const MemberRow& row) {
             return Cell{told(localDay(row.holding().mtime)), Mark::none, false, false,
                         told(localMinute(row.holding().mtime))};
         }},
        {tr("Tags"),
         [](const MemberRow& row) {
             return Cell{tagText(row.holding().tags), Mark::none, false, false, {}};
         }},
        {tr("Names"),
         [](const MemberRow& row) {
             return Cell{row.holding().links > 1 ? tr("%1 linked").arg(row.holding().links)
                                                 : QStringLiteral("1"),
                         Mark::none, false, row.holding().links == 1,
                         row.holding().links > 1
                             ? tr("One file with several names: retiring one of them frees nothing")
                             : QString()};
         }},
        {tr("References"), [](const MemberRow& row) {
             const auto& lists = row.detail->references[row.at];
             QStringList names;
             for (const auto& list : lists) {
                 names << shownPath(list);
             }
             names.removeDuplicates();
             return Cell{lists.empty() ? tr("none") : told(humanCount(lists.size())), Mark::none, false,
                         lists.empty(), names.join(QLatin1Char('\n'))};
         }}};
}

Result<std::vector<SetRow>> CopyColumns::rowsOf(const Catalogue& catalogue, std::span<const SetId> ids) {
    const Findings findings(catalogue);
    const auto sets = findings.sets(ids);
    RETURN_IF_FAILED(sets);
    std::vector<SetRow> rows;
    for (const auto& set : *sets) {
        const auto memberIds = findings.membersOf(set.id);
        const auto decision = findings.decisionOn(set);
        if (!memberIds || !decision) {
            return memberIds ? decision.error() : memberIds.error();
        }
        const auto members = Holdings(catalogue).byIds(
            std::span(*memberIds).first(std::min<std::size_t>(1, memberIds->size())));
        RETURN_IF_FAILED(members);
        std::string name = "(gone)";
        if (!members->empty()) {
            const auto& first = members->front();
            name = first.tags.title.empty() ? displayPath(nameOf(first.path)) : first.tags.title;
        }
        rows.push_back({set, name, *decision});
    }
    return rows;
}

} // namespace sober::app
