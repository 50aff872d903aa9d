#include "app/charts/time_picture.h"

#include "app/charts/axes.h"
#include "app/theme/theme.h"
#include "app/words.h"

#include <QMouseEvent>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace sober::app {
namespace {

constexpr double quietest = 0; ///< dB relative to the square of one 16-bit step
constexpr double loudest = 108;

QImage imageOf(const TimeSpectrum& picture) {
    std::array<QRgb, 256> palette{};
    for (std::size_t i = 0; i < palette.size(); ++i) {
        palette[i] = loudnessColor(static_cast<double>(i) / 255).rgb();
    }
    QImage image(static_cast<int>(picture.columns), TimeSpectrum::rows, QImage::Format_RGB32);
    for (std::size_t row = 0; row < TimeSpectrum::rows; ++row) {
        auto* line = reinterpret_cast<QRgb*>(image.scanLine(static_cast<int>(TimeSpectrum::rows - 1 - row)));
        for (std::size_t column = 0; column < picture.columns; ++column) {
            const double level = static_cast<double>(picture.levels[column * TimeSpectrum::rows + row]);
            const double share = std::clamp((level - quietest) / (loudest - quietest), 0.0, 1.0);
            line[column] = palette[static_cast<std::size_t>(share * 255)];
        }
    }
    return image;
}

} // namespace

QColor loudnessColor(double loudness) {
    const auto& inks = Theme::inks();
    const bool firstHalf = loudness < 0.55;
    const QColor& from = firstHalf ? inks.sheet : inks.accent;
    const QColor& to = firstHalf ? inks.accent : inks.ink;
    const auto share = static_cast<float>(firstHalf ? loudness / 0.55 : (loudness - 0.55) / 0.45);
    return QColor::fromRgbF(from.redF() + share * (to.redF() - from.redF()),
                            from.greenF() + share * (to.greenF() - from.greenF()),
                            from.blueF() + share * (to.blueF() - from.blueF()));
}

TimePicture::TimePicture(QWidget* parent) : Chart(tr("Frequencies over time"), 120, parent) {
    letKeysPoint();
}

void TimePicture::setPicture(std::optional<TimeSpectrum> picture) {
    picture_ = std::move(picture);
    paper_ = QColor();
    place_ = -1;
    update();
}

void TimePicture::setEmptyText(const QString& text) {
    emptyText_ = text;
    update();
}

void TimePicture::setPlace(double seconds) {
    place_ = seconds;
    update();
}

QRectF TimePicture::plot() const {
    return {40, 4, width() - 46.0, height() - 4.0 - 20};
}

void TimePicture::draw(QPainter& painter) {
    const auto& inks = Theme::inks();
    const auto room = plot();
    painter.setFont(Theme::text(11));
    painter.fillRect(room, inks.sheet);
    if (!picture_ || picture_->columns == 0) {
        painter.setPen(inks.rule);
        painter.drawRect(room);
        painter.setPen(inks.quiet);
        painter.drawText(room.adjusted(12, 4, -12, -4), Qt::AlignCenter | Qt::TextWordWrap, emptyText_);
        return;
    }
    if (paper_ != inks.sheet) {
        image_ = imageOf(*picture_);
        paper_ = inks.sheet;
    }
    painter.setRenderHint(QPainter::SmoothPixmapTransform);
    painter.drawImage(room, image_);
    const double step = picture_->highest > 30'000 ? 20'000 : 10'000;
    for (double hertz = 0; hertz < picture_->highest; hertz += step) {
        const double y = room.bottom() - hertz / picture_->highest * room.height();
        painter.setPen(inks.quiet);
        painter.drawLine(QPointF(room.left() - 3, y), QPointF(room.left(), y));
        painter.drawText(QRectF(0, y - 8, room.left() - 6, 16), Qt::AlignRight | Qt::AlignVCenter,
                         hertz + step < picture_->highest ? QString::number(hertz / 1000)
                                                          : tr("%1 kHz").arg(hertz / 1000));
    }
    drawBaseTick(painter, room, room.left(), QStringLiteral("0:00"));
    drawBaseTick(painter, room, room.center().x(), told(humanSeconds(picture_->seconds / 2)));
    drawBaseTick(painter, room, room.right(), told(humanSeconds(picture_->seconds)));
    painter.setPen(inks.rule);
    painter.drawRect(room);
    if (place_ >= 0 && picture_->seconds > 0) {
        const double x = std::round(room.left() + std::min(1.0, place_ / picture_->seconds) * room.width());
        painter.setPen(QPen(inks.damaged, 2));
        painter.drawLine(QPointF(x, room.top()), QPointF(x, room.bottom()));
    }
}

QString TimePicture::valueAt(const QPointF& point) const {
    const auto room = plot();
    if (!picture_ || picture_->columns == 0 || !room.contains(point)) {
        return {};
    }
    return tr("%1, %2 kHz")
        .arg(told(humanSeconds((point.x() - room.left()) / room.width() * picture_->seconds)))
        .arg(figure((room.bottom() - point.y()) / room.height() * picture_->highest / 1000, 1));
}

void TimePicture::keyPressEvent(QKeyEvent* event) {
    const bool isEnter = event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter;
    if (isEnter && !picture_) {
        emit pictureWanted();
    } else {
        Chart::keyPressEvent(event);
    }
}

void TimePicture::mousePressEvent(QMouseEvent* event) {
    if (!picture_) {
        emit pictureWanted();
        return;
    }
    const auto room = plot();
    if (event->button() == Qt::LeftButton && room.contains(event->position())) {
        emit placeChosen((event->position().x() - room.left()) / room.width() * picture_->seconds);
    }
}

} // namespace sober::app
