#include "app/charts/transfer_chart.h"

#include "app/theme/marks.h"
#include "app/theme/theme.h"
#include "app/words.h"
#include "core/base/room.h"

#include <QPainter>

#include <algorithm>

namespace sober::app {
namespace {

constexpr double titleHeight = 18;
constexpr double placeHeight = 42;
constexpr double barOfPlace = 16;
constexpr double placeLabelWidth = 112;
constexpr double columnGap = 20;
constexpr double leastVisible = 3;
constexpr double strokeGap = 5;
constexpr std::size_t placesShown = 4;

/// For drawing: nothing where it is not known.
std::uint64_t knownFree(const TransferChart::Place& place) {
    return place.free == unknownRoom ? 0 : place.free;
}

} // namespace

TransferChart::TransferChart(QWidget* parent)
    : Chart(tr("What each place holds before, meanwhile and after"),
            static_cast<int>(titleHeight + 2 * placeHeight), parent) {}

void TransferChart::setPlaces(std::vector<Place> places, std::uint64_t arrived, bool released) {
    // Where there are more sources than fit, those from which most comes; the target always.
    std::ranges::stable_sort(places, std::greater<>(),
                             [](const Place& place) { return std::pair(place.isTarget, place.coming); });
    places.resize(std::min(places.size(), placesShown));
    std::ranges::stable_sort(places, {}, &Place::isTarget);
    places_ = std::move(places);
    arrived_ = arrived;
    released_ = released;
    setFixedHeight(static_cast<int>(
        titleHeight + placeHeight * static_cast<double>(std::max<std::size_t>(places_.size(), 1))));
    update();
}

QRectF TransferChart::barRoom(std::size_t place, Column column) const {
    const double wide = (width() - placeLabelWidth - 2 * columnGap) / 3;
    return {placeLabelWidth + static_cast<double>(column) * (wide + columnGap),
            titleHeight + static_cast<double>(place) * placeHeight + 2, wide, barOfPlace};
}

std::vector<TransferChart::Piece> TransferChart::piecesOf(std::size_t at, Column column) const {
    const auto& place = places_[at];
    std::vector<std::pair<Kind, std::uint64_t>> parts;
    if (place.isTarget) {
        const auto fitting = std::min(place.coming, place.free);
        parts.emplace_back(Kind::stays, place.there);
        if (column != Column::before) {
            parts.emplace_back(Kind::comes, fitting);
            parts.emplace_back(Kind::tooMuch, place.coming - fitting);
        }
        const auto free = knownFree(place);
        parts.emplace_back(Kind::free, column == Column::before ? free : free - std::min(free, fitting));
    } else {
        parts.emplace_back(Kind::stays, place.there - std::min(place.there, place.coming));
        parts.emplace_back(!place.twice                  ? Kind::comes
                           : column == Column::before    ? Kind::comes
                           : column == Column::meanwhile ? Kind::twice
                                                         : Kind::letGo,
                           place.coming);
    }
    // All three bars of a place have one scale.
    const auto all = std::max<std::uint64_t>(
        place.there + (place.isTarget ? std::max(knownFree(place), place.coming) : 0), 1);
    const auto bar = barRoom(at, column);
    std::vector<Piece> pieces;
    double left = bar.left();
    for (const auto& [kind, bytes] : parts) {
        if (bytes == 0) {
            continue;
        }
        const double wide =
            std::max(bar.width() * static_cast<double>(bytes) / static_cast<double>(all), leastVisible);
        pieces.push_back({QRectF(left, bar.top(), std::min(wide, bar.right() - left), bar.height()), kind,
                          bytes, at, column});
        left += wide;
    }
    return pieces;
}

void TransferChart::drawPiece(QPainter& painter, const Piece& piece) const {
    const auto& inks = Theme::inks();
    const auto room = piece.room.adjusted(0.5, 0.5, -0.5, -0.5);
    switch (piece.kind) {
    case Kind::stays:
        painter.fillRect(piece.room, inks.rule);
        break;
    case Kind::comes:
        painter.fillRect(piece.room, inks.accent);
        break;
    case Kind::twice: {
        painter.fillRect(piece.room, inks.wash);
        painter.setPen(inks.accent);
        painter.drawRect(room);
        painter.save();
        painter.setClipRect(room);
        const int strokes = static_cast<int>((room.width() + room.height()) / strokeGap) + 1;
        for (int stroke = 0; stroke < strokes; ++stroke) {
            const double x = room.left() - room.height() + stroke * strokeGap;
            painter.drawLine(QPointF(x, room.bottom()), QPointF(x + room.height(), room.top()));
        }
        painter.restore();
        break;
    }
    case Kind::letGo: {
        QPen pen(inks.moved);
        pen.setStyle(Qt::DashLine);
        painter.setPen(pen);
        painter.drawRect(room);
        break;
    }
    case Kind::free:
        painter.setPen(inks.rule);
        painter.drawRect(room);
        break;
    case Kind::tooMuch:
        painter.fillRect(piece.room, inks.damaged);
        break;
    }
}

QString TransferChart::wordsBelow(std::size_t at, Column column) const {
    const auto& place = places_[at];
    const auto bytes = [](std::uint64_t count) { return told(humanBytes(count)); };
    if (!place.isTarget) {
        return !place.twice               ? tr("%1 put in order").arg(bytes(place.coming))
               : column == Column::before ? tr("%1 of %2 come").arg(bytes(place.coming), bytes(place.there))
               : column == Column::meanwhile ? tr("%1 held twice").arg(bytes(place.coming))
               : released_                   ? tr("%1 let go").arg(bytes(place.coming))
                                             : tr("%1 can be let go").arg(bytes(place.coming));
    }
    if (column == Column::before) {
        return place.free == unknownRoom ? tr("how much is free is not known")
                                         : tr("%1 free").arg(bytes(place.free));
    }
    if (place.coming > place.free) {
        return tr("%1 too much").arg(bytes(place.coming - place.free));
    }
    if (column == Column::meanwhile && arrived_ >= place.coming && place.coming > 0) {
        return tr("%1 arrived").arg(bytes(place.coming));
    }
    return column == Column::meanwhile
               ? arrived_ > 0 ? tr("%1 of %2 arrived")
                                    .arg(bytes(std::min(arrived_, place.coming)), bytes(place.coming))
                              : tr("%1 arrive").arg(bytes(place.coming))
           : place.free == unknownRoom ? tr("%1 are there").arg(bytes(place.there + place.coming))
                                       : tr("%1 free").arg(bytes(place.free - place.coming));
}

void TransferChart::draw(QPainter& painter) {
    const auto& inks = Theme::inks();
    painter.setFont(Theme::text(12));
    painter.setPen(inks.quiet);
    if (places_.empty()) {
        drawCut(painter, QRectF(0, 0, width(), height()), Qt::AlignLeft | Qt::AlignVCenter,
                tr("Choose what comes along and where to: here stands what each place will hold."));
        return;
    }
    const std::array titles{tr("before"), tr("meanwhile"), tr("after")};
    for (const auto column : {Column::before, Column::meanwhile, Column::after}) {
        const auto room = barRoom(0, column);
        painter.drawText(QRectF(room.left(), 0, room.width(), titleHeight - 2),
                         Qt::AlignLeft | Qt::AlignVCenter, titles[static_cast<std::size_t>(column)]);
    }
    for (std::size_t at = 0; at < places_.size(); ++at) {
        const auto& place = places_[at];
        const auto bar = barRoom(at, Column::before);
        painter.setFont(Theme::strong());
        painter.setPen(place.atHand ? inks.ink : inks.quiet);
        drawCut(painter, QRectF(0, bar.top() - 1, placeLabelWidth - 10, barOfPlace + 2),
                Qt::AlignLeft | Qt::AlignVCenter, place.label);
        painter.setFont(Theme::text(11));
        painter.setPen(inks.quiet);
        drawCut(painter, QRectF(0, bar.bottom() + 1, placeLabelWidth - 10, 16),
                Qt::AlignLeft | Qt::AlignVCenter, place.isTarget ? tr("where to") : tr("from here"));
        for (const auto column : {Column::before, Column::meanwhile, Column::after}) {
            for (const auto& piece : piecesOf(at, column)) {
                drawPiece(painter, piece);
            }
            const auto room = barRoom(at, column);
            const bool isTooMuch = place.isTarget && column != Column::before && place.coming > place.free;
            painter.setFont(isTooMuch ? Theme::strong(11) : Theme::text(11));
            painter.setPen(isTooMuch ? inks.damaged : inks.quiet);
            drawCut(painter, QRectF(room.left(), room.bottom() + 1, room.width(), 16),
                    Qt::AlignLeft | Qt::AlignVCenter, wordsBelow(at, column));
        }
    }
}

QString TransferChart::wordsOf(const Piece& piece) {
    const auto bytes = told(humanBytes(piece.bytes));
    switch (piece.kind) {
    case Kind::stays:
        return tr("%1 that have no part in it").arg(bytes);
    case Kind::comes:
        return piece.column == Column::before ? tr("%1 that come along").arg(bytes)
                                              : tr("%1 that arrive").arg(bytes);
    case Kind::twice:
        return tr("%1 that are here and at the new place").arg(bytes);
    case Kind::letGo:
        return tr("%1 that can go once the new place is proven").arg(bytes);
    case Kind::free:
        return tr("%1 free").arg(bytes);
    case Kind::tooMuch:
        return tr("%1 that do not fit").arg(bytes);
    }
    return {};
}

QString TransferChart::valueAt(const QPointF& point) const {
    for (std::size_t at = 0; at < places_.size(); ++at) {
        for (const auto column : {Column::before, Column::meanwhile, Column::after}) {
            for (const auto& piece : piecesOf(at, column)) {
                if (piece.room.contains(point)) {
                    return places_[at].label + QStringLiteral(": ") + wordsOf(piece);
                }
            }
        }
    }
    return {};
}

} // namespace sober::app
