#include "app/charts/disc_band.h"

#include "app/charts/chart_inks.h"
#include "app/theme/theme.h"
#include "app/words.h"

#include <QMouseEvent>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace sober::app {
namespace {

constexpr double discCaptionHeight = 20;
constexpr double discEffortHeight = 44; // how often a place was read
constexpr double discBandHeight = 30;
constexpr double discAxisHeight = 22;
constexpr double discKeySquare = 10;
constexpr double mostReadings = 24;

int severityOf(SectorState state) {
    switch (state) {
    case SectorState::waiting:
        return 0;
    case SectorState::agreed:
        return 1;
    case SectorState::agreedLate:
        return 2;
    case SectorState::doubtful:
        return 3;
    case SectorState::unread:
        break;
    }
    return 4;
}

/// State is told by form: filled, ruled across, hatched wide or narrow.
void fillState(QPainter& painter, const QRectF& room, SectorState state) {
    const auto& inks = Theme::inks();
    switch (state) {
    case SectorState::waiting:
        return;
    case SectorState::agreed:
        painter.fillRect(room, inks.accent);
        return;
    case SectorState::agreedLate:
        painter.fillRect(room, inks.accent);
        painter.fillRect(QRectF(room.left(), room.center().y() - 2, room.width(), 4), inks.sheet);
        return;
    case SectorState::doubtful:
        painter.fillRect(room, inks.sheet);
        painter.fillRect(QRectF(room.left(), room.top(), room.width(), room.height() / 2), inks.doubtful);
        return;
    case SectorState::unread:
        painter.fillRect(room, inks.sheet);
        hatch(painter, room, inks.damaged, 4);
        painter.setPen(inks.damaged);
        painter.drawLine(room.topLeft(), room.bottomLeft());
        return;
    }
}

} // namespace

QString readingWords(const SectorReading& reading) {
    const auto often = told(counted(reading.readings, "reading"));
    switch (reading.state) {
    case SectorState::waiting:
        return reading.readings == 0 ? DiscBand::tr("not read yet")
                                     : DiscBand::tr("%1, none agreeing so far").arg(often);
    case SectorState::agreed:
        return DiscBand::tr("agreed in %1").arg(often);
    case SectorState::agreedLate:
        return DiscBand::tr("agreed after %1, of which some differed").arg(often);
    case SectorState::doubtful:
        return DiscBand::tr("doubtful: no two of %1 that count are one").arg(often);
    case SectorState::unread:
        break;
    }
    return DiscBand::tr("never read, in %1").arg(told(counted(reading.readings, "attempt")));
}

DiscBand::DiscBand(QWidget* parent)
    : Chart(tr("The disc from lead-in to lead-out, each place by how well it was read"),
            static_cast<int>(discCaptionHeight + discEffortHeight + discBandHeight + discAxisHeight),
            parent) {
    letKeysPoint();
}

void DiscBand::setDisc(const DiscContents& contents) {
    contents_ = contents;
    sectors_.assign(static_cast<std::size_t>(std::max(contents.leadOut, 0)), {});
    chosen_ = -1;
    update();
}

void DiscBand::setSectors(int first, const std::vector<SectorReading>& sectors) {
    for (std::size_t i = 0; i < sectors.size(); ++i) {
        const auto at = static_cast<std::size_t>(first) + i;
        if (first >= 0 && at < sectors_.size()) {
            sectors_[at] = sectors[i];
        }
    }
    update();
}

void DiscBand::setChosen(int track) {
    chosen_ = track;
    update();
}

void DiscBand::clear() {
    setDisc({});
}

QRectF DiscBand::band() const {
    return {0, discCaptionHeight + discEffortHeight, width() - 1.0, discBandHeight};
}

double DiscBand::xOf(int sector) const {
    return band().width() * sector / std::max(contents_.leadOut, 1);
}

int DiscBand::sectorAt(double x) const {
    return std::clamp(static_cast<int>(x / band().width() * contents_.leadOut), 0,
                      std::max(contents_.leadOut - 1, 0));
}

SectorReading DiscBand::worstIn(int first, int past) const {
    SectorReading worst;
    for (int sector = first; sector < std::max(past, first + 1) && sector < static_cast<int>(sectors_.size());
         ++sector) {
        const auto& each = sectors_[static_cast<std::size_t>(sector)];
        if (severityOf(each.state) > severityOf(worst.state)) {
            worst.state = each.state;
        }
        worst.readings = std::max(worst.readings, each.readings);
    }
    return worst;
}

void DiscBand::draw(QPainter& painter) {
    const auto& inks = Theme::inks();
    const auto room = band();
    painter.setPen(inks.quiet);
    const double keys = 400;
    drawCut(painter, QRectF(0, 0, width() - keys, discCaptionHeight), Qt::AlignLeft | Qt::AlignVCenter,
            contents_.leadOut > 0 ? tr("How often each place was read, and what came of it") : QString());
    drawKey(painter);
    painter.fillRect(room, inks.sheet);
    hatch(painter, room, inks.rule, 9);
    if (contents_.leadOut > 0) {
        drawColumns(painter);
        drawTracks(painter);
    }
    painter.setPen(inks.rule);
    painter.setBrush(Qt::NoBrush);
    painter.drawRect(room.adjusted(0.5, 0.5, -0.5, -0.5));
    painter.drawLine(QPointF(0, room.top() - 1), QPointF(room.right(), room.top() - 1));
    painter.setPen(inks.quiet);
    const QRectF axis(0, room.bottom() + 4, width(), discAxisHeight - 4);
    painter.drawText(axis, Qt::AlignLeft | Qt::AlignVCenter, tr("lead-in"));
    painter.drawText(axis, Qt::AlignRight | Qt::AlignVCenter,
                     contents_.leadOut > 0 ? tr("lead-out %1").arg(shown(sectorTime(contents_.leadOut)))
                                           : tr("lead-out"));
}

void DiscBand::drawColumns(QPainter& painter) const {
    const auto& inks = Theme::inks();
    const auto room = band();
    for (int x = 0; x < static_cast<int>(room.width()); ++x) {
        const auto worst = worstIn(sectorAt(x), sectorAt(x + 1.0));
        if (worst.readings == 0) {
            continue;
        }
        fillState(painter, QRectF(x, room.top(), 1, room.height()), worst.state);
        const double share = std::min(1.0, std::log2(1.0 + worst.readings) / std::log2(1.0 + mostReadings));
        const auto ink = worst.state == SectorState::unread     ? inks.damaged
                         : worst.state == SectorState::doubtful ? inks.doubtful
                                                                : inks.quiet;
        const double high = (discEffortHeight - 16) * share;
        painter.fillRect(QRectF(x, room.top() - 1 - high, 1, high), ink);
    }
}

void DiscBand::drawTracks(QPainter& painter) const {
    const auto& inks = Theme::inks();
    const auto room = band();
    const auto wide = painter.fontMetrics().horizontalAdvance(QStringLiteral("00")) + 6.0;
    double free = room.left();
    const auto name = [&](int number, int first, int past, bool isAudio) {
        const QRectF place(xOf(first), room.top(), xOf(past) - xOf(first), room.height());
        painter.setPen(inks.sheet);
        painter.drawLine(place.topLeft(), place.bottomLeft());
        if (!isAudio) {
            painter.fillRect(place, inks.wash);
        }
        if (place.left() >= free) {
            painter.setPen(number == chosen_ ? inks.ink : inks.quiet);
            painter.drawText(QRectF(place.left() + 2, discCaptionHeight, std::max(place.width(), wide), 14),
                             Qt::AlignLeft | Qt::AlignVCenter,
                             isAudio ? QString::number(number) : tr("data"));
            free = place.left() + wide;
        }
        if (number == chosen_) {
            painter.setPen(QPen(inks.ink, 1.5));
            painter.setBrush(Qt::NoBrush);
            painter.drawRect(place.adjusted(0.5, -1, -0.5, 1));
        }
    };
    if (contents_.hiddenSectors() > shortestTrack) {
        name(0, 0, contents_.hiddenSectors(), true);
    }
    for (const auto& track : contents_.tracks) {
        name(track.number, track.firstSector, track.end(), track.isAudio);
    }
}

void DiscBand::drawKey(QPainter& painter) const {
    const auto& inks = Theme::inks();
    double right = width();
    for (const auto& [state, word] : {std::pair(SectorState::unread, tr("never read")),
                                      {SectorState::doubtful, tr("doubtful")},
                                      {SectorState::agreedLate, tr("agreed late")},
                                      {SectorState::agreed, tr("agreed")}}) {
        const double wide = painter.fontMetrics().horizontalAdvance(word);
        right -= wide;
        painter.setPen(inks.quiet);
        painter.drawText(QRectF(right, 0, wide + 2, discCaptionHeight), Qt::AlignLeft | Qt::AlignVCenter,
                         word);
        right -= discKeySquare + 6;
        fillState(painter,
                  QRectF(right, (discCaptionHeight - discKeySquare) / 2, discKeySquare, discKeySquare),
                  state);
        right -= 16;
    }
}

QString DiscBand::valueAt(const QPointF& point) const {
    if (contents_.leadOut <= 0 || point.y() < discCaptionHeight || point.y() > band().bottom()) {
        return {};
    }
    const int sector = sectorAt(point.x());
    const auto* track = trackAt(contents_, sector);
    const auto where =
        track == nullptr
            ? tr("before the first track, %1").arg(shown(sectorTime(sector)))
            : tr("track %1, %2").arg(track->number).arg(shown(sectorTime(sector - track->firstSector)));
    return tr("%1: %2").arg(where, readingWords(worstIn(sector, sectorAt(point.x() + 1))));
}

void DiscBand::mousePressEvent(QMouseEvent* event) {
    if (contents_.leadOut > 0) {
        const auto* track = trackAt(contents_, sectorAt(event->position().x()));
        emit trackClicked(track != nullptr ? track->number : 0);
    }
}

} // namespace sober::app
