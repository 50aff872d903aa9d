#include "app/desks/copies/set_words.h"

#include <QCoreApplication>

#include <algorithm>

namespace sober::app {
namespace {

struct SetWords {
    Q_DECLARE_TR_FUNCTIONS(SetWords)
};

bool isOnDocket(const SetDetail& detail, HoldingId holding) {
    return std::ranges::find(detail.onDocket, holding) != detail.onDocket.end();
}

} // namespace

QString samenessShort(Sameness sameness) {
    switch (sameness) {
    case Sameness::bytes:
        return SetWords::tr("bytes");
    case Sameness::payload:
        return SetWords::tr("audio data");
    case Sameness::samples:
        return SetWords::tr("samples");
    case Sameness::lossyCopy:
        return SetWords::tr("lossy copy");
    case Sameness::otherMaster:
        return SetWords::tr("other master");
    case Sameness::part:
        return SetWords::tr("part");
    case Sameness::tagsOnly:
        break;
    }
    return SetWords::tr("only the tags");
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
        return SetWords::tr("retire");
    }
    if (isDecided(detail.decision)) {
        return detail.decision.keeper == id ? SetWords::tr("keep") : SetWords::tr("stays");
    }
    switch (detail.advice[member].advice) {
    case Advice::keep:
        return SetWords::tr("keep (advised)");
    case Advice::retire:
        return SetWords::tr("retire (advised)");
    case Advice::decide:
        break;
    }
    return SetWords::tr("open");
}

} // namespace sober::app
