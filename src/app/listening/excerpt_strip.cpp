#include "app/listening/excerpt_strip.h"

#include "app/theme/theme.h"

#include <QPainter>

namespace sober::app {
namespace {

constexpr int tall = 44;

} // namespace

QString clockText(double seconds) {
    const auto whole = static_cast<int>(seconds);
    return QStringLiteral("%1:%2").arg(whole / 60).arg(whole % 60, 2, 10, QLatin1Char('0'));
}

ExcerptStrip::ExcerptStrip(QWidget* parent)
    : Chart(tr("Outline of the recording and its excerpt"), tall, parent) {}

void ExcerptStrip::setExcerpt(std::shared_ptr<const Excerpt> excerpt, QImage cover) {
    excerpt_ = std::move(excerpt);
    cover_ = std::move(cover);
    place_ = -1;
    setAccessibleDescription(excerpt_ ? tr("An excerpt from %1 to %2 of %3 is kept")
                                            .arg(clockText(excerpt_->begins),
                                                 clockText(excerpt_->begins + excerpt_->seconds),
                                                 clockText(excerpt_->whole))
                                      : QString());
    update();
}

void ExcerptStrip::setPlace(double seconds) {
    place_ = seconds;
    update();
}

QRectF ExcerptStrip::outlineRoom() const {
    return QRectF(rect()).adjusted(cover_.isNull() ? 0 : tall + 8, 1, 0, -1);
}

void ExcerptStrip::draw(QPainter& painter) {
    if (!excerpt_) {
        return;
    }
    const auto& inks = Theme::inks();
    if (!cover_.isNull()) {
        auto size = QSizeF(cover_.size()).scaled(tall, tall, Qt::KeepAspectRatio);
        painter.setRenderHint(QPainter::SmoothPixmapTransform);
        painter.drawImage(QRectF(QPointF((tall - size.width()) / 2, (tall - size.height()) / 2), size),
                          cover_);
    }
    const auto room = outlineRoom();
    const auto xOf = [&](double seconds) { return room.left() + room.width() * seconds / excerpt_->whole; };
    const double whole = std::max(excerpt_->whole, 0.01);
    const QRectF kept(xOf(excerpt_->begins), room.top(), room.width() * excerpt_->seconds / whole,
                      room.height());
    painter.fillRect(kept, inks.wash);
    const auto columns = excerpt_->outline.size();
    const double wide = room.width() / static_cast<double>(std::max<std::size_t>(columns, 1));
    for (std::size_t i = 0; i < columns; ++i) {
        const double half = std::max(0.5, excerpt_->outline[i] / 255.0 * room.height() / 2);
        const double x = room.left() + wide * static_cast<double>(i);
        const bool isKept = x + wide / 2 >= kept.left() && x + wide / 2 < kept.right();
        painter.fillRect(QRectF(x, room.center().y() - half, std::max(wide - 0.5, 0.5), 2 * half),
                         isKept ? inks.accent : inks.quiet);
    }
    if (place_ >= 0) {
        painter.fillRect(QRectF(xOf(place_), room.top(), 1.5, room.height()), inks.ink);
    }
}

QString ExcerptStrip::valueAt(const QPointF& point) const {
    const auto room = outlineRoom();
    if (!excerpt_ || !room.contains(point)) {
        return {};
    }
    const double seconds = (point.x() - room.left()) / room.width() * excerpt_->whole;
    const bool isKept = seconds >= excerpt_->begins && seconds < excerpt_->begins + excerpt_->seconds;
    return isKept ? tr("%1, in the excerpt").arg(clockText(seconds))
                  : tr("%1, not kept: only its loudness").arg(clockText(seconds));
}

} // namespace sober::app
