#include "app/charts/block_map.h"

#include "app/theme/theme.h"

#include <QPainter>

#include <algorithm>

namespace sober::app {
namespace {

constexpr double caption = 18;
constexpr std::uint64_t mostCells = 256; // of long files each cell stands for several blocks

} // namespace

BlockMap::BlockMap(QWidget* parent)
    : Chart(tr("Blocks of the file that are not what was recorded"), 52, parent) {}

void BlockMap::setBlocks(std::uint64_t count,
                         std::vector<std::pair<std::uint64_t, std::uint64_t>> differing) {
    count_ = count;
    differing_ = std::move(differing);
    update();
}

std::uint64_t BlockMap::cells() const {
    return std::min(count_, mostCells);
}

bool BlockMap::differs(std::uint64_t first, std::uint64_t past) const {
    return std::ranges::any_of(differing_,
                               [&](const auto& run) { return run.first < past && run.second >= first; });
}

QRectF BlockMap::cellRoom(std::uint64_t cell) const {
    const double wide =
        std::min(24.0, (width() - 1.0) / static_cast<double>(std::max<std::uint64_t>(cells(), 1)));
    return {wide * static_cast<double>(cell), caption + 2, wide, height() - caption - 4};
}

void BlockMap::draw(QPainter& painter) {
    const auto& inks = Theme::inks();
    painter.setPen(inks.quiet);
    if (count_ == 0) {
        painter.drawText(rect(), Qt::AlignLeft | Qt::AlignTop, tr("No block is known of it."));
        return;
    }
    std::uint64_t bad = 0;
    for (const auto& [first, last] : differing_) {
        bad += last - first + 1;
    }
    painter.drawText(QRectF(0, 0, width(), caption), Qt::AlignLeft | Qt::AlignVCenter,
                     tr("%1 of %2 blocks of 1 MiB differ").arg(bad).arg(count_));
    for (std::uint64_t cell = 0; cell < cells(); ++cell) {
        const auto room = cellRoom(cell);
        const bool wrong = differs(cell * count_ / cells(), (cell + 1) * count_ / cells());
        painter.setPen(QPen(wrong ? inks.damaged : inks.rule, 1));
        painter.setBrush(wrong ? inks.damaged : inks.sheet);
        painter.drawRect(room.adjusted(0.5, 0.5, -0.5, -0.5));
    }
}

QString BlockMap::valueAt(const QPointF& point) const {
    for (std::uint64_t cell = 0; cell < cells(); ++cell) {
        if (cellRoom(cell).contains(point)) {
            const auto first = cell * count_ / cells();
            const auto last = (cell + 1) * count_ / cells() - 1;
            const QString which = first == last ? tr("Block %1").arg(first + 1)
                                                : tr("Blocks %1 to %2").arg(first + 1).arg(last + 1);
            return differs(first, last + 1) ? tr("%1: not what was recorded").arg(which)
                                            : tr("%1: as recorded").arg(which);
        }
    }
    return {};
}

} // namespace sober::app
