#pragma once

#include "core/evidence/verdict.h"

#include <QColor>
#include <QString>

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

/// Draws a mark centred in `box`.
void paintMark(QPainter& painter, const QRectF& box, Mark mark);

QColor inkOf(Mark mark);
Mark markOf(VerdictClass verdict);
QString verdictWord(VerdictClass verdict);
QString wordFor(Mark mark);

} // namespace sober::app
