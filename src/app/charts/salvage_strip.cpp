#include "app/charts/salvage_strip.h"

#include "app/charts/chart_inks.h"
#include "app/theme/theme.h"
#include "app/words.h"
#include "core/media/byte_source.h"

#include <QMouseEvent>
#include <QPainter>

#include <algorithm>

namespace sober::app {
namespace {

constexpr double stripCaption = 20;
constexpr double stripHeight = 36;
constexpr double stripAxis = 30; // with the line that joins what belongs together
constexpr double leastStrip = 2;
constexpr double keySquare = 10;

void fillFind(QPainter& painter, const QRectF& room, SalvageStrip::Ink ink, bool whole) {
    const auto& inks = Theme::inks();
    const QColor main = ink == SalvageStrip::Ink::missing ? inks.accent
                        : ink == SalvageStrip::Ink::held  ? inks.quiet
                                                          : inks.moved;
    if (ink == SalvageStrip::Ink::held) {
        painter.fillRect(room, inks.rule);
        painter.setPen(main);
        painter.setBrush(Qt::NoBrush);
        painter.drawRect(room.adjusted(0.5, 0.5, -0.5, -0.5));
    } else {
        painter.fillRect(room, main);
    }
    if (!whole) {
        // Struck: some of it is not its own any more.
        painter.fillRect(QRectF(room.left(), room.center().y() - 2, room.width(), 4), inks.sheet);
        painter.fillRect(QRectF(room.left(), room.center().y() - 1, room.width(), 2), inks.damaged);
    }
}

} // namespace

SalvageStrip::SalvageStrip(QWidget* parent)
    : Chart(tr("What was found, at its place in the image or the trash"),
            static_cast<int>(stripCaption + stripHeight + stripAxis), parent) {
    letKeysPoint();
}

void SalvageStrip::setBand(Band band) {
    band_ = std::move(band);
    update();
}

void SalvageStrip::setChosen(qint64 find) {
    chosen_ = find;
    update();
}

QRectF SalvageStrip::band() const {
    return {0, stripCaption, width() - 1.0, stripHeight};
}

QRectF SalvageStrip::roomOf(const ByteRange& range) const {
    const auto room = band();
    const auto at = [&](std::uint64_t byte) {
        return room.left() + room.width() * static_cast<double>(byte) / static_cast<double>(band_.size);
    };
    const double left = at(range.first);
    constexpr double gap = 1; // between what lies side by side
    return {left, room.top() + 2, std::max(at(range.second) - left - gap, leastStrip), room.height() - 4};
}

void SalvageStrip::draw(QPainter& painter) {
    const auto& inks = Theme::inks();
    painter.setPen(inks.quiet);
    const double keys = 330;
    drawCut(painter, QRectF(0, 0, width() - keys, stripCaption), Qt::AlignLeft | Qt::AlignVCenter,
            band_.caption, Qt::ElideMiddle);
    drawKey(painter);
    const auto room = band();
    painter.fillRect(room, inks.sheet);
    if (band_.size > 0) {
        if (band_.reached < band_.size) {
            auto ahead = roomOf({band_.reached, band_.size});
            hatch(painter, ahead, inks.rule, 9);
        }
        if (!band_.ahead.empty() || (!band_.unread.empty() && band_.pieces.empty())) {
            painter.fillRect(room.adjusted(0, 2, 0, -2), inks.wash);
        }
        for (const auto& range : band_.ahead) {
            const auto ahead = roomOf(range);
            painter.fillRect(ahead, inks.sheet);
            hatch(painter, ahead, inks.rule, 9);
        }
        for (const auto& piece : band_.pieces) {
            drawPiece(painter, piece);
        }
        for (const auto& range : band_.unread) {
            const auto lost = roomOf(range);
            painter.fillRect(lost, inks.sheet);
            hatch(painter, lost, inks.damaged, 4);
        }
    }
    painter.setPen(inks.rule);
    painter.setBrush(Qt::NoBrush);
    painter.drawRect(room.adjusted(0.5, 0.5, -0.5, -0.5));
    drawChosen(painter);
    painter.setPen(inks.quiet);
    const QRectF axis(0, room.bottom() + 12, width(), stripAxis - 12);
    painter.drawText(axis, Qt::AlignLeft | Qt::AlignVCenter, band_.first);
    painter.drawText(axis, Qt::AlignRight | Qt::AlignVCenter, band_.last);
    if (!band_.isTrash && band_.size > 0) {
        for (const int quarter : {1, 2, 3}) {
            const auto at = band_.size / 4 * static_cast<unsigned>(quarter);
            const auto place = roomOf({at, at});
            painter.drawText(QRectF(place.left() - 60, axis.top(), 120, axis.height()),
                             Qt::AlignHCenter | Qt::AlignVCenter, told(humanBytes(at)));
        }
    }
}

void SalvageStrip::drawPiece(QPainter& painter, const Piece& piece) const {
    for (const auto& range : piece.extents) {
        if (range.first < ExtentSource::nowhere) {
            fillFind(painter, roomOf(range), piece.ink, piece.whole);
        }
    }
}

/// The pieces of the chosen one are joined below the band.
void SalvageStrip::drawChosen(QPainter& painter) const {
    const auto found = std::ranges::find(band_.pieces, chosen_, &Piece::find);
    if (found == band_.pieces.end() || band_.size == 0) {
        return;
    }
    const auto& inks = Theme::inks();
    painter.setPen(QPen(inks.ink, 1.5));
    painter.setBrush(Qt::NoBrush);
    const double below = band().bottom() + 7;
    double left = width();
    double right = 0;
    for (const auto& range : found->extents) {
        if (range.first >= ExtentSource::nowhere) {
            continue;
        }
        const auto room = roomOf(range);
        painter.drawRect(room.adjusted(-1, -1, 1, 1));
        painter.drawLine(QPointF(room.center().x(), band().bottom() + 1), QPointF(room.center().x(), below));
        left = std::min(left, room.center().x());
        right = std::max(right, room.center().x());
    }
    if (right > left) {
        painter.drawLine(QPointF(left, below), QPointF(right, below));
    }
}

void SalvageStrip::drawKey(QPainter& painter) const {
    const auto& inks = Theme::inks();
    double right = width();
    for (const auto& [ink, word] :
         {std::pair(Ink::fresh, tr("new")), {Ink::held, tr("held")}, {Ink::missing, tr("missing here")}}) {
        const double wide = painter.fontMetrics().horizontalAdvance(word);
        right -= wide;
        painter.setPen(inks.quiet);
        painter.drawText(QRectF(right, 0, wide + 2, stripCaption), Qt::AlignLeft | Qt::AlignVCenter, word);
        right -= keySquare + 6;
        fillFind(painter, QRectF(right, (stripCaption - keySquare) / 2, keySquare, keySquare), ink, true);
        right -= 16;
    }
    const auto word = band_.unread.empty() ? tr("not whole") : tr("not read");
    const double wide = painter.fontMetrics().horizontalAdvance(word);
    right -= wide;
    painter.setPen(inks.quiet);
    painter.drawText(QRectF(right, 0, wide + 2, stripCaption), Qt::AlignLeft | Qt::AlignVCenter, word);
    if (!band_.unread.empty()) {
        hatch(painter, QRectF(right - keySquare - 6, (stripCaption - keySquare) / 2, keySquare, keySquare),
              inks.damaged, 4);
        return;
    }
    fillFind(painter, QRectF(right - keySquare - 6, (stripCaption - keySquare) / 2, keySquare, keySquare),
             Ink::missing, false);
}

const SalvageStrip::Piece* SalvageStrip::pieceAt(const QPointF& point) const {
    for (const auto& piece : band_.pieces) {
        for (const auto& range : piece.extents) {
            if (band_.size > 0 && range.first < ExtentSource::nowhere &&
                roomOf(range).adjusted(-1, 0, 1, 0).contains(point)) {
                return &piece;
            }
        }
    }
    return nullptr;
}

QString SalvageStrip::valueAt(const QPointF& point) const {
    if (const auto* piece = pieceAt(point)) {
        return piece->name;
    }
    for (const auto& range : band_.unread) {
        if (band_.size > 0 && roomOf(range).contains(point)) {
            return tr("not read: %1").arg(told(humanBytes(range.second - range.first)));
        }
    }
    return {};
}

void SalvageStrip::mousePressEvent(QMouseEvent* event) {
    if (const auto* piece = pieceAt(event->position())) {
        emit findClicked(piece->find);
    }
}

} // namespace sober::app
