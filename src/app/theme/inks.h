#pragma once

#include <QColor>

#include <array>

namespace sober::app {

/// Every colour that the program uses, by what it means. Text inks keep 4.5:1 on paper and sheet.
struct Inks {
    QColor paper;
    QColor sheet;
    QColor ink;
    QColor quiet;
    QColor rule;
    QColor accent;
    QColor wash; ///< behind what is selected
    QColor sound;
    QColor doubtful;
    QColor damaged;
    QColor missing;
    QColor moved;
};

enum class Paper {
    light,
    dark,
    contrast, ///< black on white; text inks keep 7:1, lines 4.5:1
};
inline constexpr std::array everyPaper{Paper::light, Paper::dark, Paper::contrast};

const Inks& inksOf(Paper paper);

/// Contrast of two colours by WCAG 2.1, 1 to 21.
double contrast(const QColor& a, const QColor& b);

} // namespace sober::app
