#include "app/charts/byte_sheet.h"

#include "app/theme/theme.h"
#include "app/words.h"

#include <QKeyEvent>
#include <QPainter>

#include <algorithm>
#include <limits>

namespace sober::app {
namespace {

constexpr double sheetRow = 20;
constexpr double placeWide = 128;
constexpr double marginWide = 236;
constexpr double digitsWide = 26; // of one byte
constexpr double textWide = 9;    // of one
constexpr double digitsAt = placeWide + marginWide;
constexpr double textAt = digitsAt + ByteSheet::rowBytes * digitsWide + 16;

} // namespace

ByteSheet::ByteSheet(QWidget* parent)
    : Chart(tr("The bytes, and what they are"), static_cast<int>(8 * sheetRow), parent) {
    setMaximumHeight(QWIDGETSIZE_MAX);
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
    setFocusPolicy(Qt::StrongFocus);
}

void ByteSheet::setLook(ByteLook look) {
    look_ = std::move(look);
    update();
}

void ByteSheet::setMarked(ByteRange marked) {
    marked_ = marked;
    update();
}

int ByteSheet::rows() const {
    return std::max(1, static_cast<int>(height() / sheetRow));
}

const BytePart* ByteSheet::partAt(std::uint64_t byte) const {
    // Of parts within each other the innermost begins last.
    const BytePart* found = nullptr;
    for (const auto& part : look_.parts) {
        if (part.first <= byte && byte < part.past) {
            found = &part;
        }
    }
    return found;
}

QRectF ByteSheet::cellOf(std::uint64_t byte) const {
    const auto at = byte - look_.at;
    const double row = static_cast<double>(at / rowBytes);
    const double column = static_cast<double>(at % rowBytes);
    return {digitsAt + column * digitsWide, row * sheetRow, digitsWide, sheetRow};
}

void ByteSheet::draw(QPainter& painter) {
    const auto& inks = Theme::inks();
    painter.fillRect(rect(), inks.sheet);
    const auto text = font();
    const auto mono = Theme::bytes();
    QString names; // of what begins in this row
    for (std::size_t at = 0; at < look_.bytes.size(); ++at) {
        const auto byte = look_.at + at;
        const auto cell = cellOf(byte);
        if (cell.top() > height()) {
            break;
        }
        const auto* part = partAt(byte);
        const bool begins = part != nullptr && part->first == byte;
        if (byte >= marked_.first && byte < marked_.second) {
            painter.fillRect(cell, inks.wash);
        }
        if (begins) {
            painter.setPen(QPen(inks.accent, 1.5));
            painter.drawLine(cell.topLeft() + QPointF(2, 3), cell.bottomLeft() + QPointF(2, -3));
        }
        painter.setFont(mono);
        painter.setPen(part != nullptr ? inks.ink : inks.quiet);
        const auto value = static_cast<std::uint8_t>(look_.bytes[at]);
        painter.drawText(cell, Qt::AlignCenter, QStringLiteral("%1").arg(value, 2, 16, QLatin1Char('0')));
        const QRectF letter(textAt + static_cast<double>(at % rowBytes) * textWide, cell.top(), textWide,
                            sheetRow);
        const bool isLetter = value >= 0x20 && value < 0x7F;
        painter.setPen(isLetter ? inks.ink : inks.rule);
        painter.drawText(letter, Qt::AlignCenter, isLetter ? QString(QChar(value)) : QStringLiteral("·"));
        if (at % rowBytes == 0) {
            painter.setPen(inks.quiet);
            painter.drawText(QRectF(4, cell.top(), placeWide - 12, sheetRow),
                             Qt::AlignRight | Qt::AlignVCenter, told(humanCount(byte)));
        }
        if (begins || (at == 0 && part != nullptr)) {
            names += (names.isEmpty() ? QString() : QStringLiteral(", ")) + shown(part->name);
        }
        if (at % rowBytes == rowBytes - 1 || at + 1 == look_.bytes.size()) {
            painter.setFont(text);
            painter.setPen(inks.accent);
            drawCut(painter, QRectF(placeWide, cell.top(), marginWide - 12, sheetRow),
                    Qt::AlignLeft | Qt::AlignVCenter, std::exchange(names, {}));
        }
    }
    painter.setPen(inks.rule);
    painter.drawLine(QPointF(placeWide - 4, 0), QPointF(placeWide - 4, height()));
    painter.drawLine(QPointF(digitsAt - 6, 0), QPointF(digitsAt - 6, height()));
    painter.drawLine(QPointF(textAt - 8, 0), QPointF(textAt - 8, height()));
}

QString ByteSheet::valueAt(const QPointF& point) const {
    const double column = (point.x() - digitsAt) / digitsWide;
    if (column < 0 || column >= rowBytes || point.y() < 0) {
        return {};
    }
    const auto at =
        static_cast<std::size_t>(point.y() / sheetRow) * rowBytes + static_cast<std::size_t>(column);
    if (at >= look_.bytes.size()) {
        return {};
    }
    const auto byte = look_.at + at;
    const auto* part = partAt(byte);
    const auto place = tr("byte %1").arg(told(humanCount(byte)));
    return part == nullptr ? place
                           : tr("%1: %2, bytes %3 to %4")
                                 .arg(place, shown(part->name), told(humanCount(part->first)),
                                      told(humanCount(part->past - 1)));
}

void ByteSheet::keyPressEvent(QKeyEvent* event) {
    constexpr auto all = std::numeric_limits<qint64>::max() / rowBytes / 2;
    switch (event->key()) {
    case Qt::Key_Up:
        emit movedBy(-1);
        break;
    case Qt::Key_Down:
        emit movedBy(1);
        break;
    case Qt::Key_PageUp:
        emit movedBy(-rows());
        break;
    case Qt::Key_PageDown:
        emit movedBy(rows());
        break;
    case Qt::Key_Home:
        emit movedBy(-all);
        break;
    case Qt::Key_End:
        emit movedBy(all);
        break;
    default:
        Chart::keyPressEvent(event);
    }
}

void ByteSheet::wheelEvent(QWheelEvent* event) {
    constexpr int rowsAtOnce = 3;
    if (event->angleDelta().y() != 0) {
        emit movedBy(event->angleDelta().y() > 0 ? -rowsAtOnce : rowsAtOnce);
    }
}

void ByteSheet::resizeEvent(QResizeEvent* event) {
    Chart::resizeEvent(event);
    emit resized();
}

} // namespace sober::app
