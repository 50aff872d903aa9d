#include "app/desks/copies/set_words.h"

#include <QCoreApplication>

#include <algorithm>

namespace sober::app {
namespace {

QString said(const char* text) {
    return QCoreApplication::translate("CopySet", text);
}

bool isOnDocket(const SetDetail& detail, HoldingId holding) {
    return std::ranges::find(detail.onDocket, holding) != detail.onDocket.end();
}

} // namespace

QString samenessShort(Sameness sameness) {
    switch (sameness) {
    case Sameness::bytes:
        return said("bytes");
    case Sameness::payload:
        return said("audio data");
    case Sameness::samples:
        return said("samples");
    case Sameness::lossyCopy:
        return said("lossy copy");
    case Sameness::otherMaster:
        return said("other master");
    case Sameness::part:
        return said("part");
    case Sameness::tagsOnly:
        break;
    }
    return said("only the tags");
}

bool isDecided(const SetDecision& decision) {
    return decision.leftAlone || decision.onDocket > 0;
}

Mark markFor(const SetDetail& detail, std::size_t member) {
    const auto id = detail.members[member].id;
    if (isOnDocket(detail, id)) {
        return Mark::retire;
    }
    if (isDecided(detail.decision)) {
        return detail.decision.keeper == id ? Mark::keep : Mark::sound;
    }
    return detail.advice[member].advice == Advice::keep ? Mark::keep : Mark::sound;
}

QString decisionText(const SetDetail& detail, std::size_t member) {
    const auto id = detail.members[member].id;
    if (isOnDocket(detail, id)) {
        return said("retire");
    }
    if (isDecided(detail.decision)) {
        return detail.decision.keeper == id ? said("keep") : said("stays");
    }
    switch (detail.advice[member].advice) {
    case Advice::keep:
        return said("keep (advised)");
    case Advice::retire:
        return said("retire (advised)");
    case Advice::decide:
        break;
    }
    return said("open");
}

} // namespace sober::app
