#include "app/theme/inks.h"

#include <algorithm>
#include <cmath>

namespace sober::app {

const Inks& inksOf(Paper paper) {
    static const Inks light{QColor(0xF4F0E6), QColor(0xFCFAF4), QColor(0x1F2328), QColor(0x5E6167),
                            QColor(0xD9D2C2), QColor(0x1D5C63), QColor(0xDCE8E6), QColor(0x2F6B4F),
                            QColor(0x7E5F10), QColor(0x9B2F2A), QColor(0x4F5488), QColor(0x74467F)};
    static const Inks dark{QColor(0x16191C), QColor(0x1D2125), QColor(0xE8E4DA), QColor(0xA3A6A8),
                           QColor(0x343A3F), QColor(0x7FC4C0), QColor(0x24383A), QColor(0x86C7A3),
                           QColor(0xD6B45E), QColor(0xE58F88), QColor(0xA6ACE2), QColor(0xCFA0DA)};
    static const Inks contrast{QColor(0xFFFFFF), QColor(0xFFFFFF), QColor(Qt::black), QColor(0x363636),
                               QColor(0x6B6B6B), QColor(0x003D44), QColor(0xCDE4E2), QColor(0x0B4A2C),
                               QColor(0x5A4200), QColor(0x7A0F0B), QColor(0x2B2F6B), QColor(0x4F1D5C)};
    return paper == Paper::dark ? dark : paper == Paper::contrast ? contrast : light;
}

double contrast(const QColor& a, const QColor& b) {
    const auto luminance = [](const QColor& color) {
        const auto channel = [](double value) {
            return value <= 0.03928 ? value / 12.92 : std::pow((value + 0.055) / 1.055, 2.4);
        };
        return 0.2126 * channel(color.redF()) + 0.7152 * channel(color.greenF()) +
               0.0722 * channel(color.blueF());
    };
    const double one = luminance(a) + 0.05;
    const double other = luminance(b) + 0.05;
    return std::max(one, other) / std::min(one, other);
}

} // namespace sober::app
