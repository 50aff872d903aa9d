#include "app/charts/band_chart.h"

#include "app/charts/worst.h"
#include "app/theme/marks.h"
#include "app/theme/theme.h"
#include "app/words.h"

#include <QMouseEvent>
#include <QPainter>

namespace sober::app {
namespace {

constexpr double labelWidth = 132;
constexpr double bandHeight = 40;
constexpr double bandGap = 16;
constexpr double legendHeight = 26;
constexpr double leastWidth = 3;

std::uint64_t weightOf(const FolderFigures& folder) {
    return folder.holdings + folder.missing;
}

} // namespace

BandChart::BandChart(QWidget* parent)
    : Chart(tr("Every volume as a band of its folders, by holdings and worst condition"), 120, parent) {
    letKeysPoint();
}

struct BandChart::Key {
    Worst worst;
    QString word;
    QPointF at;
};

std::vector<BandChart::Key> BandChart::legend() const {
    std::vector<Key> keys{{Worst::sound, tr("nothing known against it"), {}},
                          {Worst::copies, tr("holds identical copies"), {}},
                          {Worst::claims, tr("not what it says"), {}},
                          {Worst::missing, tr("something is missing"), {}},
                          {Worst::unreadable, tr("something cannot be read"), {}}};
    const QFontMetrics metrics(Theme::text(12));
    constexpr int beside = 50; // the swatch, and what parts it from the next
    double needed = 0;
    for (const auto& key : keys) {
        needed += beside + metrics.horizontalAdvance(key.word);
    }
    // Above the bands where it has room there, else from the near side on.
    const double begin = labelWidth + needed <= width() ? labelWidth : 0;
    QPointF at(begin, 0);
    for (auto& key : keys) {
        const double wide = beside + metrics.horizontalAdvance(key.word);
        if (at.x() > begin && at.x() + wide > width()) {
            at = QPointF(begin, at.y() + legendHeight);
        }
        key.at = at;
        at.rx() += wide;
    }
    return keys;
}

double BandChart::bandsBegin() const {
    return legend().back().at.y() + legendHeight;
}

void BandChart::fitHeight() {
    const auto bands = static_cast<double>(std::max<std::size_t>(bands_.size(), 1));
    setFixedHeight(static_cast<int>(bandsBegin() + bands * (bandHeight + bandGap)));
}

void BandChart::setBands(std::vector<Band> bands) {
    bands_ = std::move(bands);
    fitHeight();
    update();
}

void BandChart::resizeEvent(QResizeEvent* event) {
    Chart::resizeEvent(event);
    fitHeight();
}

std::vector<BandChart::Piece> BandChart::layOut() const {
    std::uint64_t most = 1;
    for (const auto& band : bands_) {
        std::uint64_t weight = 0;
        for (const auto& folder : band.folders) {
            weight += weightOf(folder);
        }
        most = std::max(most, weight);
    }
    std::vector<Piece> pieces;
    const double room = width() - labelWidth;
    const double first = bandsBegin();
    for (std::size_t b = 0; b < bands_.size(); ++b) {
        double left = labelWidth;
        const double above = first + static_cast<double>(b) * (bandHeight + bandGap);
        for (std::size_t f = 0; f < bands_[b].folders.size(); ++f) {
            const double share =
                static_cast<double>(weightOf(bands_[b].folders[f])) / static_cast<double>(most);
            const double wide = std::max(share * room, leastWidth);
            if (left + wide > width() + 0.5) {
                break;
            }
            pieces.push_back({QRectF(left, above, wide, bandHeight), b, f});
            left += wide;
        }
    }
    return pieces;
}

void BandChart::draw(QPainter& painter) {
    const auto& inks = Theme::inks();
    if (bands_.empty()) {
        painter.setPen(inks.quiet);
        painter.setFont(Theme::text());
        painter.drawText(
            rect(), Qt::AlignCenter,
            tr("Nothing is catalogued yet. Drop a folder or a drive on this window, or press Ctrl+N: "
               "a survey only reads."));
        return;
    }
    for (const auto& key : legend()) {
        const QRectF swatch(key.at.x(), key.at.y() + 3, 24, 14);
        painter.fillRect(swatch, fillOf(key.worst));
        paintMark(painter, swatch, markOf(key.worst));
        painter.setPen(inks.quiet);
        painter.drawText(key.at + QPointF(30, 15), key.word);
    }
    const double first = bandsBegin();
    for (std::size_t b = 0; b < bands_.size(); ++b) {
        const auto& band = bands_[b];
        const double top = first + static_cast<double>(b) * (bandHeight + bandGap);
        painter.setFont(Theme::strong());
        painter.setPen(inks.ink);
        drawCut(painter, QRectF(0, top, labelWidth - 12, 20), Qt::AlignLeft | Qt::AlignVCenter, band.label);
        painter.setFont(Theme::text(12));
        painter.setPen(inks.quiet);
        const QString below = band.atHand ? told(humanCount(band.holdings)) + QStringLiteral(" · ") +
                                                told(humanBytes(band.bytes))
                                          : tr("away · %1").arg(told(humanCount(band.holdings)));
        drawCut(painter, QRectF(0, top + 20, labelWidth - 12, 18), Qt::AlignLeft | Qt::AlignVCenter, below);
    }
    for (const auto& piece : layOut()) {
        const auto& folder = folderOf(piece);
        const QRectF inner = piece.room.adjusted(0, 0, -1, 0);
        const Worst worst = worstOf(folder);
        painter.fillRect(inner, fillOf(worst));
        if (!bands_[piece.band].atHand) {
            painter.fillRect(inner, QBrush(inks.quiet, Qt::BDiagPattern));
        }
        if (inner.width() > 26) {
            paintMark(painter, QRectF(inner.left() + 4, inner.top() + 3, 14, 14), markOf(worst));
        }
        if (inner.width() > 44) {
            painter.setPen(inks.ink);
            const QString name =
                folder.path.empty() ? tr("(top folder)") : shownPath(BytePath(nameOf(folder.path)));
            drawCut(painter, inner.adjusted(6, 18, -4, -2), Qt::AlignLeft | Qt::AlignVCenter, name);
        }
    }
}

QString BandChart::valueAt(const QPointF& point) const {
    for (const auto& piece : layOut()) {
        if (piece.room.contains(point)) {
            const auto& folder = folderOf(piece);
            QString text =
                QStringLiteral("%1: %2\n%3, %4")
                    .arg(bands_[piece.band].label,
                         folder.path.empty() ? tr("(top folder)") : shownPath(folder.path),
                         told(counted(folder.holdings, "holding")), told(humanBytes(folder.bytes)));
            if (folder.inSets > 0) {
                text += tr("\n%1 held more than once").arg(told(humanCount(folder.inSets)));
            }
            if (folder.claims > 0) {
                text += tr("\n%1 doubtful or transcoded").arg(told(humanCount(folder.claims)));
            }
            if (folder.missing > 0) {
                text += tr("\n%1 missing").arg(told(humanCount(folder.missing)));
            }
            if (folder.troubled > 0) {
                text += tr("\n%1 cannot be read").arg(told(humanCount(folder.troubled)));
            }
            return text;
        }
    }
    return {};
}

void BandChart::mousePressEvent(QMouseEvent* event) {
    for (const auto& piece : layOut()) {
        if (piece.room.contains(event->position())) {
            emit folderChosen(bands_[piece.band].label, shownPath(folderOf(piece).path));
            return;
        }
    }
}

} // namespace sober::app
