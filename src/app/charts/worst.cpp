#include "app/charts/worst.h"

#include "app/theme/theme.h"

namespace sober::app {

Mark markOf(Worst worst) {
    switch (worst) {
    case Worst::unreadable:
        return Mark::damaged;
    case Worst::missing:
        return Mark::missing;
    case Worst::claims:
        return Mark::doubtful;
    case Worst::copies:
        return Mark::copies;
    case Worst::sound:
        break;
    }
    return Mark::sound;
}

QColor fillOf(Worst worst) {
    QColor color = inkOf(markOf(worst));
    const QColor sheet = Theme::inks().sheet;
    const double share = worst == Worst::sound ? 0.14 : 0.34;
    return QColor::fromRgbF(static_cast<float>(sheet.redF() * (1 - share) + color.redF() * share),
                            static_cast<float>(sheet.greenF() * (1 - share) + color.greenF() * share),
                            static_cast<float>(sheet.blueF() * (1 - share) + color.blueF() * share));
}

} // namespace sober::app
