#include "app/theme/marks.h"

#include "app/theme/theme.h"

#include <QCoreApplication>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace sober::app {
namespace {

struct MarkWords {
    Q_DECLARE_TR_FUNCTIONS(MarkWords)
};

} // namespace

QColor inkOf(Mark mark) {
    const auto& inks = Theme::inks();
    switch (mark) {
    case Mark::sound:
    case Mark::keep:
        return inks.sound;
    case Mark::damaged:
    case Mark::transcoded:
        return inks.damaged;
    case Mark::doubtful:
        return inks.doubtful;
    case Mark::accepted:
    case Mark::retag:
        return inks.accent;
    case Mark::retire:
        return inks.doubtful;
    case Mark::writeOff:
    case Mark::missing:
        return inks.missing;
    case Mark::moved:
        return inks.moved;
    case Mark::copies:
        return inks.accent;
    case Mark::away:
    case Mark::undetermined:
    case Mark::none:
        break;
    }
    return inks.quiet;
}

Mark markOf(VerdictClass verdict) {
    switch (verdict) {
    case VerdictClass::genuine:
        return Mark::sound;
    case VerdictClass::doubtful:
        return Mark::doubtful;
    case VerdictClass::transcoded:
        return Mark::transcoded;
    case VerdictClass::undetermined:
        break;
    }
    return Mark::undetermined;
}

QString verdictWord(VerdictClass verdict) {
    return verdict == VerdictClass::genuine ? MarkWords::tr("genuine") : wordFor(markOf(verdict));
}

QString wordFor(Mark mark) {
    switch (mark) {
    case Mark::sound:
        return MarkWords::tr("sound");
    case Mark::keep:
        return MarkWords::tr("keep");
    case Mark::retire:
        return MarkWords::tr("retire");
    case Mark::writeOff:
        return MarkWords::tr("write off");
    case Mark::damaged:
        return MarkWords::tr("unreadable");
    case Mark::missing:
        return MarkWords::tr("missing");
    case Mark::copies:
        return MarkWords::tr("copies");
    case Mark::moved:
        return MarkWords::tr("moved");
    case Mark::away:
        return MarkWords::tr("away");
    case Mark::doubtful:
        return MarkWords::tr("doubtful");
    case Mark::transcoded:
        return MarkWords::tr("transcoded");
    case Mark::undetermined:
        return MarkWords::tr("undetermined");
    case Mark::accepted:
        return MarkWords::tr("accepted");
    case Mark::retag:
        return MarkWords::tr("retag");
    case Mark::none:
        break;
    }
    return {};
}

QString meaningOf(Mark mark) {
    switch (mark) {
    case Mark::sound:
        return MarkWords::tr("Nothing is known against it.");
    case Mark::keep:
        return MarkWords::tr("Of its copy set, this one stays.");
    case Mark::retire:
        return MarkWords::tr("It goes to the trash once the docket is carried out, and can be had back.");
    case Mark::writeOff:
        return MarkWords::tr("It is accepted as gone, and not shown as missing again.");
    case Mark::damaged:
        return MarkWords::tr("It cannot be read, does not decode whole, or is no longer what was recorded.");
    case Mark::missing:
        return MarkWords::tr("It was there at an earlier survey and is not now.");
    case Mark::copies:
        return MarkWords::tr("The same recording is held more than once.");
    case Mark::moved:
        return MarkWords::tr("It is known at another place, or lists are to lead to another place.");
    case Mark::away:
        return MarkWords::tr("Its drive is not at hand.");
    case Mark::doubtful:
        return MarkWords::tr("Something speaks against it and does not decide: look, listen, say.");
    case Mark::transcoded:
        return MarkWords::tr("Its sound went through a lossy encoder before, which it does not say.");
    case Mark::undetermined:
        return MarkWords::tr("The evidence does not decide: too short, too quiet or too narrow to tell.");
    case Mark::accepted:
        return MarkWords::tr("You have said that it stays as it is.");
    case Mark::retag:
        return MarkWords::tr("Its tags are to be written.");
    case Mark::none:
        break;
    }
    return {};
}

void paintMark(QPainter& painter, const QRectF& box, Mark mark) {
    if (mark == Mark::none) {
        return;
    }
    const double size = std::min({box.width(), box.height(), 14.0});
    const QPointF centre = box.center();
    const double radius = size * 0.36;
    const QRectF ring(centre.x() - radius, centre.y() - radius, 2 * radius, 2 * radius);
    QPen pen(inkOf(mark), 1.6);
    pen.setCapStyle(Qt::FlatCap);
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setBrush(Qt::NoBrush);
    switch (mark) {
    case Mark::writeOff:
        painter.setPen(pen);
        painter.drawLine(centre - QPointF(radius * 1.5, 0), centre + QPointF(radius * 1.5, 0));
        [[fallthrough]];
    case Mark::missing:
        pen.setDashPattern({1.6, 1.3});
        painter.setPen(pen);
        painter.drawEllipse(ring);
        break;
    case Mark::damaged: {
        // The ring is closed, but for a wedge broken out of it.
        painter.setPen(pen);
        painter.drawArc(ring, 80 * 16, 290 * 16);
        const auto onRing = [&](double degrees, double share) {
            const double angle = degrees * 3.14159265358979 / 180;
            return centre + QPointF(radius * share * std::cos(angle), -radius * share * std::sin(angle));
        };
        painter.drawPolyline(QPolygonF{{onRing(80, 1), onRing(45, 0.25), onRing(10, 1)}});
        break;
    }
    case Mark::copies:
        painter.setPen(pen);
        painter.drawEllipse(ring.adjusted(-radius * 0.5, radius * 0.25, -radius * 0.75, 0));
        painter.drawEllipse(ring.adjusted(radius * 0.75, radius * 0.25, radius * 0.5, 0));
        break;
    case Mark::moved:
        painter.setPen(pen);
        painter.drawEllipse(
            ring.adjusted(radius * 0.55, 0, radius * 0.55, 0).adjusted(0, radius * .2, 0, -radius * .2));
        painter.drawLine(QPointF(centre.x() - radius * 1.5, centre.y()),
                         QPointF(centre.x() - radius * 0.4, centre.y()));
        break;
    case Mark::away:
        painter.setPen(pen);
        painter.drawArc(ring, -30 * 16, 240 * 16);
        break;
    case Mark::retire:
        painter.setPen(pen);
        painter.drawEllipse(centre - QPointF(0, radius * 0.35), radius * 0.62, radius * 0.62);
        painter.drawPolyline(QPolygonF{
            {centre + QPointF(-radius * 1.2, radius * 0.1), centre + QPointF(-radius * 1.2, radius * 1.15),
             centre + QPointF(radius * 1.2, radius * 1.15), centre + QPointF(radius * 1.2, radius * 0.1)}});
        break;
    case Mark::keep:
        painter.setPen(pen);
        painter.drawEllipse(ring);
        painter.setPen(Qt::NoPen);
        painter.setBrush(inkOf(mark));
        painter.drawEllipse(centre, radius * 0.42, radius * 0.42);
        break;
    case Mark::sound:
        painter.setPen(pen);
        painter.drawEllipse(ring);
        break;
    case Mark::doubtful:
        painter.setPen(pen);
        painter.drawEllipse(ring);
        painter.setPen(Qt::NoPen);
        painter.setBrush(inkOf(mark));
        painter.drawPie(ring, 180 * 16, 180 * 16);
        break;
    case Mark::transcoded:
        // From 25 degrees over the bottom to 155, and the chord between them.
        painter.setPen(pen);
        painter.setBrush(inkOf(mark));
        painter.drawChord(ring, 155 * 16, 230 * 16);
        break;
    case Mark::undetermined:
        pen.setWidthF(1.0);
        painter.setPen(pen);
        painter.drawEllipse(ring);
        painter.drawLine(centre - QPointF(radius * 0.5, 0), centre + QPointF(radius * 0.5, 0));
        break;
    case Mark::accepted:
        painter.setPen(pen);
        painter.drawEllipse(ring.adjusted(radius * 0.2, 0, -radius * 0.2, -radius * 0.4));
        painter.drawLine(centre + QPointF(-radius * 1.2, radius * 1.1),
                         centre + QPointF(radius * 1.2, radius * 1.1));
        break;
    case Mark::retag:
        painter.setPen(pen);
        painter.drawEllipse(centre - QPointF(radius * 0.6, 0), radius * 0.6, radius * 0.6);
        for (const double height : {-0.35, 0.35}) {
            painter.drawLine(centre + QPointF(radius * 0.3, radius * height),
                             centre + QPointF(radius * 1.4, radius * height));
        }
        break;
    case Mark::none:
        break;
    }
    painter.restore();
}

} // namespace sober::app
