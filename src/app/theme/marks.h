#pragma once

#include "core/evidence/verdict.h"

#include <QColor>
#include <QString>

#include <array>

class QPainter;
class QRectF;

namespace sober::app {

/// The states that a mark tells; all are drawn from one ring.
enum class Mark {
    none,
    sound,        ///< closed ring
    keep,         ///< closed ring with a point: this one stays
    retire,       ///< small ring lowered into a box: set aside
    writeOff,     ///< dashed ring ruled through: accepted as gone
    damaged,      ///< notched ring
    missing,      ///< dashed ring
    copies,       ///< linked rings
    moved,        ///< ring with a tail
    away,         ///< ring with a gap below: not at hand
    doubtful,     ///< half-filled ring
    transcoded,   ///< ring cut flat above, as its sound is
    undetermined, ///< thin ring with a bar
    accepted,     ///< ring set on a line: stays as it is
    retag,        ///< small ring with two lines beside it: something is written to it
};

inline constexpr std::array allMarks{Mark::sound,    Mark::keep,     Mark::retire,     Mark::writeOff,
                                     Mark::damaged,  Mark::missing,  Mark::copies,     Mark::moved,
                                     Mark::away,     Mark::doubtful, Mark::transcoded, Mark::undetermined,
                                     Mark::accepted, Mark::retag};

/// Draws a mark centred in `box`.
void paintMark(QPainter& painter, const QRectF& box, Mark mark);

QColor inkOf(Mark mark);
Mark markOf(VerdictClass verdict);
QString verdictWord(VerdictClass verdict);
QString wordFor(Mark mark);
/// What it says of a holding, in a sentence; "" for none.
QString meaningOf(Mark mark);

} // namespace sober::app
