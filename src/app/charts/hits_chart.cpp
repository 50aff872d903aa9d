#include "app/charts/hits_chart.h"

#include "app/theme/marks.h"
#include "app/theme/theme.h"
#include "app/words.h"

#include <QMouseEvent>
#include <QPainter>

#include <algorithm>

namespace sober::app {
namespace {

constexpr double mostOfLabel = 160; // pixels
constexpr double markWidth = 20;
constexpr double gap = 10; // pixels between words and bars
constexpr double lineHeight = 24;
constexpr double barHeight = 14;
constexpr double leastPiece = 3;
constexpr double leastFill = 3;
constexpr std::size_t linesShown = 6;

template <typename Number>
std::uint64_t sumOf(const HitsChart::Line& line, Number HitsChart::Folder::*number) {
    std::uint64_t sum = 0;
    for (const auto& folder : line.folders) {
        sum += folder.*number;
    }
    return sum;
}

} // namespace

HitsChart::HitsChart(QWidget* parent)
    : Chart(tr("In which folders of which volumes it was found"), static_cast<int>(lineHeight), parent) {
    letKeysPoint();
}

void HitsChart::setLines(std::vector<Line> lines) {
    // Where there are more than fit, those in which something was found.
    std::ranges::stable_sort(lines, std::greater<>(),
                             [](const Line& line) { return sumOf(line, &Folder::hits) > 0; });
    lines.resize(std::min(lines.size(), linesShown));
    std::ranges::sort(lines, {}, &Line::label);
    lines_ = std::move(lines);
    labelWidth_ = 0;
    wordsWidth_ = 0;
    for (const auto& line : lines_) {
        const double label = QFontMetricsF(Theme::strong()).horizontalAdvance(line.label);
        labelWidth_ =
            std::max(labelWidth_, std::min(label + (line.atHand ? 0 : markWidth), mostOfLabel) + gap);
        wordsWidth_ =
            std::max(wordsWidth_, QFontMetricsF(Theme::text(12)).horizontalAdvance(wordsOf(line)) + gap);
    }
    setFixedHeight(
        static_cast<int>(lineHeight * static_cast<double>(std::max<std::size_t>(lines_.size(), 1))));
    update();
}

QString HitsChart::wordsOf(const Line& line) {
    return tr("%1 of %2")
        .arg(told(humanCount(sumOf(line, &Folder::hits))), told(humanCount(sumOf(line, &Folder::all))));
}

std::vector<HitsChart::Piece> HitsChart::layOut() const {
    std::uint64_t most = 1;
    for (const auto& line : lines_) {
        most = std::max(most, sumOf(line, &Folder::all));
    }
    const double room = width() - labelWidth_ - wordsWidth_;
    std::vector<Piece> pieces;
    for (std::size_t l = 0; l < lines_.size(); ++l) {
        // What is too narrow to be seen is widened; the line is drawn together where that makes it too long.
        double wanted = 0;
        for (const auto& folder : lines_[l].folders) {
            wanted +=
                std::max(static_cast<double>(folder.all) / static_cast<double>(most) * room, leastPiece);
        }
        const double squeeze = std::min(1.0, room / std::max(wanted, 1.0));
        double left = labelWidth_;
        const double top = static_cast<double>(l) * lineHeight + (lineHeight - barHeight) / 2;
        for (std::size_t f = 0; f < lines_[l].folders.size(); ++f) {
            const double share = static_cast<double>(lines_[l].folders[f].all) / static_cast<double>(most);
            const double wide = std::max(share * room, leastPiece) * squeeze;
            pieces.push_back({QRectF(left, top, wide, barHeight), l, f});
            left += wide;
        }
    }
    return pieces;
}

void HitsChart::draw(QPainter& painter) {
    const auto& inks = Theme::inks();
    for (std::size_t l = 0; l < lines_.size(); ++l) {
        const auto& line = lines_[l];
        const double top = static_cast<double>(l) * lineHeight;
        double left = 0;
        if (!line.atHand) {
            paintMark(painter, QRectF(0, top, 18, lineHeight), Mark::away);
            left = markWidth;
        }
        painter.setFont(Theme::strong());
        painter.setPen(line.atHand ? inks.ink : inks.quiet);
        drawCut(painter, QRectF(left, top, labelWidth_ - left - gap + 2, lineHeight),
                Qt::AlignLeft | Qt::AlignVCenter, line.label);
        const auto hits = sumOf(line, &Folder::hits);
        painter.setFont(Theme::text(12));
        painter.setPen(hits > 0 ? inks.ink : inks.quiet);
        painter.drawText(QRectF(width() - wordsWidth_, top, wordsWidth_, lineHeight),
                         Qt::AlignRight | Qt::AlignVCenter, wordsOf(line));
    }
    for (const auto& piece : layOut()) {
        const auto& folder = lines_[piece.line].folders[piece.folder];
        const QRectF inner = piece.room.adjusted(0, 0, piece.room.width() > 2 ? -1 : 0, 0);
        painter.fillRect(inner, inks.rule);
        if (folder.hits > 0 && folder.all > 0) {
            const double share =
                std::min(1.0, static_cast<double>(folder.hits) / static_cast<double>(folder.all));
            const double wide = std::max(share * inner.width(), std::min(leastFill, inner.width()));
            painter.fillRect(QRectF(inner.left(), inner.top(), wide, inner.height()), inks.accent);
        }
    }
}

QString HitsChart::valueAt(const QPointF& point) const {
    for (const auto& piece : layOut()) {
        if (piece.room.contains(point)) {
            const auto& line = lines_[piece.line];
            const auto& folder = line.folders[piece.folder];
            return tr("%1: %2\n%3 of %4, present or missed")
                .arg(line.label, folder.path.empty() ? tr("(top folder)") : shownPath(folder.path),
                     told(humanCount(folder.hits)), told(counted(folder.all, "holding")));
        }
    }
    return {};
}

void HitsChart::mousePressEvent(QMouseEvent* event) {
    for (const auto& piece : layOut()) {
        if (piece.room.contains(event->position())) {
            const auto& line = lines_[piece.line];
            emit folderChosen(line.volume, QByteArray::fromStdString(line.folders[piece.folder].path));
            return;
        }
    }
}

} // namespace sober::app
