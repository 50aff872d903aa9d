#include "app/wrap_row.h"

#include <QStyle>
#include <QTimer>
#include <QWidget>

#include <algorithm>

namespace sober::app {

WrapRow::WrapRow(QWidget* parent) : QLayout(parent) {}

WrapRow::~WrapRow() = default;

void WrapRow::addWidget(QWidget* widget, int stretch, Qt::Alignment alignment) {
    addChildWidget(widget);
    auto item = std::make_unique<QWidgetItem>(widget);
    item->setAlignment(alignment);
    parts_.push_back({std::move(item), stretch});
    invalidate();
}

void WrapRow::addStretch(int stretch) {
    parts_.push_back({std::make_unique<QSpacerItem>(0, 0, QSizePolicy::Expanding), stretch});
    invalidate();
}

void WrapRow::addItem(QLayoutItem* item) {
    parts_.push_back({std::unique_ptr<QLayoutItem>(item), 0});
    invalidate();
}

int WrapRow::count() const {
    return static_cast<int>(parts_.size());
}

QLayoutItem* WrapRow::itemAt(int index) const {
    return index >= 0 && index < count() ? parts_[static_cast<std::size_t>(index)].item.get() : nullptr;
}

QLayoutItem* WrapRow::takeAt(int index) {
    if (index < 0 || index >= count()) {
        return nullptr;
    }
    auto* item = parts_[static_cast<std::size_t>(index)].item.release();
    parts_.erase(parts_.begin() + index);
    invalidate();
    return item;
}

bool WrapRow::isShown(const Part& part) {
    return part.item->spacerItem() != nullptr || !part.item->isEmpty();
}

int WrapRow::widthOf(const Part& part) {
    // What shares the rest of a line needs no more than it can be narrowed to, and room for some letters.
    constexpr int someLetters = 110;
    const int wanted = part.item->sizeHint().width();
    const int least = part.item->minimumSize().width();
    return part.stretch > 0 ? std::min(wanted, std::max(least, someLetters)) : std::max(wanted, least);
}

std::vector<WrapRow::Line> WrapRow::linesIn(int width) const {
    std::vector<Line> lines(1);
    bool any = false;
    for (std::size_t i = 0; i < parts_.size(); ++i) {
        const auto& part = parts_[i];
        auto* line = &lines.back();
        if (isShown(part)) {
            const bool isRoom = part.item->spacerItem() != nullptr;
            const int needed = isRoom ? 0 : widthOf(part);
            const int gap = any && !isRoom ? spacing() : 0;
            if (any && line->width + gap + needed > width) {
                lines.push_back({i, i, 0, 0, 0});
                line = &lines.back();
                any = false;
            }
            line->width += needed + (any && !isRoom ? spacing() : 0);
            line->height = std::max(line->height, part.item->sizeHint().height());
            line->stretch += part.stretch;
            any = any || !isRoom;
        }
        line->past = i + 1;
    }
    // A text that is wider than all the room there is stands in as many lines of its own.
    for (auto& line : lines) {
        for (std::size_t i = line.first; i < line.past; ++i) {
            const auto& item = *parts_[i].item;
            if (isShown(parts_[i]) && item.hasHeightForWidth() && widthOf(parts_[i]) > width) {
                line.height = std::max(line.height, item.heightForWidth(width));
            }
        }
    }
    return lines;
}

int WrapRow::heightForWidth(int width) const {
    if (heightWidth_ != width) {
        const auto around = contentsMargins();
        int height = around.top() + around.bottom();
        for (const auto& line : linesIn(width - around.left() - around.right())) {
            height += line.height + (line.first > 0 ? spacing() : 0);
        }
        heightWidth_ = width;
        height_ = height;
    }
    return height_;
}

QSize WrapRow::minimumSize() const {
    QSize size;
    for (const auto& part : parts_) {
        if (isShown(part)) {
            size = size.expandedTo(part.item->minimumSize());
        }
    }
    const auto around = contentsMargins();
    size += QSize(around.left() + around.right(), around.top() + around.bottom());
    // As many lines as there are now: where nobody asks for the height of a width, none of them is lost.
    return {size.width(), std::max(size.height(), width_ > 0 ? heightForWidth(width_) : 0)};
}

QSize WrapRow::sizeHint() const {
    int width = 0;
    int height = 0;
    bool any = false;
    for (const auto& part : parts_) {
        if (isShown(part) && part.item->spacerItem() == nullptr) {
            width += part.item->sizeHint().width() + (any ? spacing() : 0);
            height = std::max(height, part.item->sizeHint().height());
            any = true;
        }
    }
    const auto around = contentsMargins();
    height = std::max(height + around.top() + around.bottom(), width_ > 0 ? heightForWidth(width_) : 0);
    return {width + around.left() + around.right(), height};
}

void WrapRow::invalidate() {
    heightWidth_ = -1;
    QLayout::invalidate();
}

void WrapRow::setGeometry(const QRect& room) {
    QLayout::setGeometry(room);
    width_ = room.width();
    if (const int needed = heightForWidth(room.width()); needed != toldHeight_) {
        toldHeight_ = needed;
        // What it stands in learns of it, once it is done with this.
        QTimer::singleShot(0, this, [this] {
            if (auto* around = parentWidget(); around != nullptr && around->layout() != nullptr) {
                around->layout()->invalidate();
                around->updateGeometry();
            }
        });
    }
    const auto inner = room.marginsRemoved(contentsMargins());
    const auto direction = parentWidget() != nullptr ? parentWidget()->layoutDirection() : Qt::LeftToRight;
    int top = inner.top();
    for (const auto& line : linesIn(inner.width())) {
        int left = inner.left();
        int rest = std::max(0, inner.width() - line.width);
        int stretch = line.stretch;
        bool any = false;
        for (std::size_t i = line.first; i < line.past; ++i) {
            auto& part = parts_[i];
            if (!isShown(part)) {
                continue;
            }
            const int share = stretch > 0 ? rest * part.stretch / stretch : 0;
            rest -= share;
            stretch -= part.stretch;
            if (part.item->spacerItem() != nullptr) {
                left += share;
                continue;
            }
            left += any ? spacing() : 0;
            const int width = std::min(widthOf(part) + share, inner.width());
            const int height =
                std::min(line.height, part.item->hasHeightForWidth() && width < part.item->sizeHint().width()
                                          ? line.height
                                          : part.item->sizeHint().height());
            const auto vertical = part.item->alignment() & Qt::AlignVertical_Mask;
            const int down = vertical == Qt::AlignBottom ? line.height - height
                             : vertical == Qt::AlignTop  ? 0
                                                         : (line.height - height) / 2;
            part.item->setGeometry(
                QStyle::visualRect(direction, inner, QRect(left, top + down, width, height)));
            left += width;
            any = true;
        }
        top += line.height + spacing();
    }
}

} // namespace sober::app
