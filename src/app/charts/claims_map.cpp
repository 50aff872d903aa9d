#include "app/charts/claims_map.h"

#include "app/charts/axes.h"
#include "app/theme/marks.h"
#include "app/theme/theme.h"
#include "app/words.h"

#include <QMouseEvent>
#include <QPainter>
#include <QWheelEvent>

#include <algorithm>
#include <cmath>

namespace sober::app {
namespace {

constexpr double leftMargin = 56;
constexpr double bottomMargin = 40;
constexpr double topMargin = 8;
constexpr double rightMargin = 10;
constexpr double lossyEnd = 0.70; ///< of the width; then a gap, then the lossless
constexpr double losslessStart = 0.74;
constexpr double lowestBitrate = 24'000;
constexpr double highestBitrate = 512'000;
constexpr double highestBandwidth = 25'500; ///< Hz; what reaches higher is drawn at the top
constexpr double reach = 7;                 ///< pixels within which a point is met
constexpr int stampSize = 11;

double acrossOf(double bitrate) {
    const double share = std::log(std::clamp(bitrate, lowestBitrate, highestBitrate) / lowestBitrate) /
                         std::log(highestBitrate / lowestBitrate);
    return share * lossyEnd;
}

struct LosslessColumn {
    const char* name;
    double across;
};
constexpr std::array<LosslessColumn, 5> losslessColumns{
    {{"16/44.1", 0.77}, {"16/48", 0.825}, {"24/44–48", 0.88}, {"24/88–96", 0.935}, {"24/176+", 0.985}}};

double losslessAcross(int bitDepth, int rate) {
    const std::size_t column = bitDepth <= 16   ? (rate <= 44'100 ? 0 : 1)
                               : rate <= 48'000 ? 2
                               : rate <= 96'000 ? 3
                                                : 4;
    return losslessColumns[column].across;
}

/// Points of one claim would lie on one line: each keeps a place beside it, always the same.
double besideOf(HoldingId holding) {
    auto mixed = static_cast<std::uint64_t>(holding) * 0x9E3779B97F4A7C15ULL;
    mixed ^= mixed >> 32U;
    return static_cast<double>(mixed % 1000) / 999 - 0.5;
}

double upOf(double hertz) {
    return std::clamp(hertz / highestBandwidth, 0.0, 0.975);
}

/// Where honest lossy files usually lie, in kbit/s and kHz: common practice, no source.
constexpr std::array<std::array<double, 3>, 7> honestBand{{{24, 4.0, 11.0},
                                                           {64, 9.5, 18.0},
                                                           {96, 13.5, 20.0},
                                                           {128, 15.3, 22.2},
                                                           {192, 15.6, 22.3},
                                                           {256, 17.5, 22.4},
                                                           {512, 19.5, 24.1}}};
constexpr double honestLossless = 19.5; ///< kHz and above

QString kilohertz(double hertz) {
    return QStringLiteral("%1 kHz").arg(figure(hertz / 1000, 1));
}

} // namespace

QString claimWords(const Claims& claims) {
    const QString codec = shown(claims.codec).toUpper();
    if (claims.lossless) {
        return QStringLiteral("%1 %2/%3")
            .arg(codec)
            .arg(claims.bitDepth > 0 ? claims.bitDepth : 16)
            .arg(claims.sampleRate / 1000.0, 0, 'g', 4);
    }
    return QStringLiteral("%1 %2").arg(codec).arg((claims.bitrate + 500) / 1000);
}

ClaimsMap::ClaimsMap(QWidget* parent)
    : Chart(tr("Stated bitrate and measured bandwidth of every examined holding"), 300, parent) {
    setMinimumHeight(180);
    setMaximumHeight(QWIDGETSIZE_MAX);
    setFocusPolicy(Qt::StrongFocus);
}

void ClaimsMap::setPoints(std::vector<ClaimPoint> points) {
    points_ = std::move(points);
    placed_.clear();
    placed_.reserve(points_.size());
    for (const auto& point : points_) {
        const double beside = besideOf(point.holding);
        const double across = point.lossless
                                  ? losslessAcross(point.bitDepth, point.sampleRate) + beside * 0.034
                                  : acrossOf(static_cast<double>(point.bitrate)) + beside * 0.012;
        placed_.push_back({static_cast<float>(std::clamp(across, 0.0, 1.0)),
                           static_cast<float>(upOf(static_cast<double>(point.cutoff)))});
    }
    if (!selection_.empty()) {
        std::unordered_set<HoldingId> still;
        for (const auto& point : points_) {
            if (selection_.contains(point.holding)) {
                still.insert(point.holding);
            }
        }
        selection_ = std::move(still);
    }
    stale_ = true;
    update();
}

void ClaimsMap::setChosen(HoldingId holding) {
    chosen_ = holding;
    update();
}

void ClaimsMap::clearSelection() {
    if (!selection_.empty()) {
        selection_.clear();
        stale_ = true;
        update();
        emit selectionChanged();
    }
}

void ClaimsMap::showAll() {
    view_ = {0, 0, 1, 1};
    stale_ = true;
    update();
}

QRectF ClaimsMap::plot() const {
    return {leftMargin, topMargin, width() - leftMargin - rightMargin, height() - topMargin - bottomMargin};
}

QPointF ClaimsMap::onScreen(double across, double up) const {
    const auto room = plot();
    return {room.left() + (across - view_.left()) / view_.width() * room.width(),
            room.bottom() - (up - view_.top()) / view_.height() * room.height()};
}

QPointF ClaimsMap::inData(const QPointF& screen) const {
    const auto room = plot();
    return {view_.left() + (screen.x() - room.left()) / room.width() * view_.width(),
            view_.top() + (room.bottom() - screen.y()) / room.height() * view_.height()};
}

std::optional<QPointF> ClaimsMap::placeOf(HoldingId holding) const {
    const auto found = std::ranges::find(points_, holding, &ClaimPoint::holding);
    if (found == points_.end()) {
        return std::nullopt;
    }
    const auto& at = placed_[static_cast<std::size_t>(found - points_.begin())];
    const auto place = onScreen(static_cast<double>(at.across), static_cast<double>(at.up));
    return plot().adjusted(-2, -2, 2, 2).contains(place) ? std::optional(place) : std::nullopt;
}

void ClaimsMap::drawBand(QPainter& painter) const {
    const auto& inks = Theme::inks();
    QPolygonF band;
    for (const auto& [kilobits, low, high] : honestBand) {
        band << onScreen(acrossOf(kilobits * 1000), upOf(high * 1000));
    }
    for (auto at = honestBand.rbegin(); at != honestBand.rend(); ++at) {
        band << onScreen(acrossOf((*at)[0] * 1000), upOf((*at)[1] * 1000));
    }
    painter.setPen(Qt::NoPen);
    painter.setBrush(inks.wash);
    painter.drawPolygon(band);
    painter.drawRect(QRectF(onScreen(losslessStart, 1.0), onScreen(1.005, upOf(honestLossless * 1000))));
    painter.setBrush(Qt::NoBrush);
}

void ClaimsMap::drawAxes(QPainter& painter) const {
    const auto& inks = Theme::inks();
    const auto room = plot();
    const auto heightOfLine = painter.fontMetrics().height();
    for (const double hertz : {0.0, 4000.0, 8000.0, 12'000.0, 16'000.0, 20'000.0, 24'000.0}) {
        const double y = onScreen(0, upOf(hertz)).y();
        if (y >= room.top() - 1 && y <= room.bottom() + 1) {
            drawLevelTick(painter, room, y, hertz == 24'000 ? tr("24 kHz") : QString::number(hertz / 1000));
        }
    }
    // Where there is little room, what would run into its neighbour is left out.
    double named = room.left() - 100;
    const auto tick = [&](double across, const QString& text) {
        const double x = onScreen(across, 0).x();
        const double half = painter.fontMetrics().horizontalAdvance(text) / 2.0;
        if (x >= room.left() - 1 && x <= room.right() + 1 && x - half >= named + 4) {
            drawBaseTick(painter, room, x, text);
            named = x + half;
        }
    };
    for (const int kilobits : {32, 48, 64, 96, 128, 192, 256, 320, 512}) {
        tick(acrossOf(kilobits * 1000.0), QString::number(kilobits));
    }
    // Names of the columns would run into each other where they are narrow: every second one then.
    const double step = (onScreen(0.055, 0) - onScreen(0, 0)).x();
    const int every = step < painter.fontMetrics().horizontalAdvance(QStringLiteral("24/88–96 ")) ? 2 : 1;
    for (std::size_t i = 0; i < losslessColumns.size(); i += static_cast<std::size_t>(every)) {
        tick(losslessColumns[i].across, QString::fromUtf8(losslessColumns[i].name));
    }
    painter.setPen(inks.quiet);
    const QRectF names(room.left(), room.bottom() + 4 + heightOfLine, room.width(), heightOfLine);
    const double parting = std::clamp(onScreen(losslessStart - 0.01, 0).x(), room.left(), room.right());
    drawCut(painter, QRectF(names.left(), names.top(), parting - names.left(), names.height()),
            Qt::AlignHCenter, tr("kbit/s stated by lossy files"));
    drawCut(painter, QRectF(parting, names.top(), room.right() - parting, names.height()), Qt::AlignHCenter,
            tr("bits/kHz of lossless"));
    painter.setPen(inks.rule);
    painter.drawLine(QPointF(parting, room.top()), QPointF(parting, room.bottom()));
    painter.drawRect(room);
}

namespace {

/// A drawn mark as the pixels that it covers.
struct Stamp {
    struct Pixel {
        int x, y;
        QRgb ink; ///< premultiplied
    };
    std::vector<Pixel> pixels;
};

Stamp stampOf(Mark mark, double ratio, double opacity) {
    const int size = static_cast<int>(std::lround(stampSize * ratio));
    QImage image(size, size, QImage::Format_ARGB32_Premultiplied);
    image.fill(Qt::transparent);
    {
        QPainter painter(&image);
        painter.scale(ratio, ratio);
        painter.setOpacity(opacity);
        paintMark(painter, QRectF(0, 0, stampSize, stampSize), mark);
    }
    Stamp stamp;
    for (int y = 0; y < size; ++y) {
        for (int x = 0; x < size; ++x) {
            const QRgb ink = image.pixel(x, y);
            if (qAlpha(ink) > 8) {
                stamp.pixels.push_back({x - size / 2, y - size / 2, qPremultiply(ink)});
            }
        }
    }
    return stamp;
}

void blend(QRgb above, QRgb& below) {
    const auto rest = 255U - static_cast<unsigned>(qAlpha(above));
    const auto mix = [rest](int over, int under) {
        return over + static_cast<int>(static_cast<unsigned>(under) * rest >> 8U);
    };
    below = qRgba(mix(qRed(above), qRed(below)), mix(qGreen(above), qGreen(below)),
                  mix(qBlue(above), qBlue(below)), mix(qAlpha(above), qAlpha(below)));
}

} // namespace

/// All points in one image: each kind of mark is drawn once and blended in wherever a point lies; where two
/// of a kind share a pixel, one is enough.
void ClaimsMap::stampPoints() {
    const double ratio = devicePixelRatioF();
    constexpr std::size_t kinds = 5;
    std::array<Stamp, 2 * kinds> stamps;
    for (std::size_t kind = 0; kind < stamps.size(); ++kind) {
        const std::size_t which = kind % kinds;
        stamps[kind] = stampOf(which == 4 ? Mark::accepted : markOf(static_cast<VerdictClass>(which)), ratio,
                               kind >= kinds ? 0.22 : 1);
    }
    stamped_ = QImage((QSizeF(size()) * ratio).toSize(), QImage::Format_ARGB32_Premultiplied);
    stamped_.fill(Qt::transparent);
    const auto room = plot();
    std::array<std::vector<QPoint>, 2 * kinds> places;
    std::vector<std::uint16_t> taken(static_cast<std::size_t>(stamped_.width()) *
                                     static_cast<std::size_t>(stamped_.height()));
    for (std::size_t i = 0; i < points_.size(); ++i) {
        const auto place =
            onScreen(static_cast<double>(placed_[i].across), static_cast<double>(placed_[i].up));
        if (!room.contains(place)) {
            continue;
        }
        const auto& point = points_[i];
        const bool faint = !selection_.empty() && !selection_.contains(point.holding);
        const std::size_t kind =
            (point.accepted ? 4 : static_cast<std::size_t>(point.verdict)) + (faint ? kinds : 0);
        const QPoint pixel = (place * ratio).toPoint();
        const auto at = static_cast<std::size_t>(pixel.y()) * static_cast<std::size_t>(stamped_.width()) +
                        static_cast<std::size_t>(pixel.x());
        const auto bit = static_cast<std::uint16_t>(1U << kind);
        if ((taken[at] & bit) == 0) {
            taken[at] = static_cast<std::uint16_t>(taken[at] | bit);
            places[kind].push_back(pixel);
        }
    }
    auto* bits = reinterpret_cast<QRgb*>(stamped_.bits());
    const int stride = static_cast<int>(stamped_.bytesPerLine()) / 4;
    // From the least striking to the most, so that the outliers lie above.
    for (const std::size_t layer : {0U, 4U, 3U, 1U, 2U}) {
        for (const std::size_t kind : {layer + kinds, layer}) {
            for (const auto& place : places[kind]) {
                for (const auto& pixel : stamps[kind].pixels) {
                    const int x = place.x() + pixel.x;
                    const int y = place.y() + pixel.y;
                    if (x >= 0 && y >= 0 && x < stamped_.width() && y < stamped_.height()) {
                        blend(pixel.ink, bits[y * stride + x]);
                    }
                }
            }
        }
    }
    stamped_.setDevicePixelRatio(ratio);
    stale_ = false;
}

void ClaimsMap::draw(QPainter& painter) {
    const auto& inks = Theme::inks();
    painter.fillRect(plot(), inks.sheet);
    painter.save();
    painter.setClipRect(plot());
    painter.setRenderHint(QPainter::Antialiasing);
    drawBand(painter);
    painter.restore();
    drawAxes(painter);
    if (points_.empty()) {
        painter.setPen(inks.quiet);
        painter.drawText(plot().adjusted(24, 8, -24, -8), Qt::AlignCenter | Qt::TextWordWrap,
                         tr("No examined holdings here. A survey at full effort examines what is at hand."));
        return;
    }
    if (stale_ || stamped_.size() != (QSizeF(size()) * devicePixelRatioF()).toSize()) {
        stampPoints();
    }
    painter.drawImage(QPointF(0, 0), stamped_);
    painter.setRenderHint(QPainter::Antialiasing);
    if (const auto place = placeOf(chosen_)) {
        painter.setPen(QPen(inks.ink, 1.4));
        painter.drawEllipse(*place, 8.5, 8.5);
    }
    if (drag_ == Drag::select && !dragged_.isEmpty()) {
        painter.setRenderHint(QPainter::Antialiasing, false);
        painter.setPen(QPen(inks.accent, 1, Qt::DashLine));
        painter.drawRect(dragged_);
    }
}

QString ClaimsMap::valueAt(const QPointF& point) const {
    const auto found = nearest(point);
    if (!found) {
        return {};
    }
    const auto& at = points_[*found];
    const QString claim = at.lossless ? tr("lossless, %1 bit, %2 kHz")
                                            .arg(at.bitDepth > 0 ? at.bitDepth : 16)
                                            .arg(at.sampleRate / 1000.0, 0, 'g', 4)
                                      : tr("%1 kbit/s stated").arg((at.bitrate + 500) / 1000);
    return tr("%1; reaches %2: %3%4")
        .arg(claim, kilohertz(static_cast<double>(at.cutoff)), verdictWord(at.verdict),
             at.accepted ? tr(", accepted") : QString());
}

std::optional<std::size_t> ClaimsMap::nearest(const QPointF& screen) const {
    std::optional<std::size_t> best;
    double least = reach;
    for (std::size_t i = 0; i < placed_.size(); ++i) {
        const auto place =
            onScreen(static_cast<double>(placed_[i].across), static_cast<double>(placed_[i].up));
        const double away = std::hypot(place.x() - screen.x(), place.y() - screen.y());
        if (away < least) {
            least = away;
            best = i;
        }
    }
    return best;
}

void ClaimsMap::selectWithin(const QRectF& screen) {
    selection_.clear();
    for (std::size_t i = 0; i < placed_.size(); ++i) {
        if (screen.contains(
                onScreen(static_cast<double>(placed_[i].across), static_cast<double>(placed_[i].up)))) {
            selection_.insert(points_[i].holding);
        }
    }
    stale_ = true;
    update();
    emit selectionChanged();
}

void ClaimsMap::mousePressEvent(QMouseEvent* event) {
    pressed_ = event->position();
    dragged_ = {};
    const bool moves = event->button() == Qt::MiddleButton ||
                       (event->button() == Qt::LeftButton && event->modifiers().testFlag(Qt::ShiftModifier));
    drag_ = moves ? Drag::move : event->button() == Qt::LeftButton ? Drag::select : Drag::none;
}

void ClaimsMap::mouseMoveEvent(QMouseEvent* event) {
    switch (drag_) {
    case Drag::none:
        Chart::mouseMoveEvent(event);
        return;
    case Drag::select:
        dragged_ = QRectF(pressed_, event->position()).normalized();
        break;
    case Drag::move: {
        const QPointF by = event->position() - pressed_;
        moveBy({-by.x() / plot().width(), by.y() / plot().height()});
        pressed_ = event->position();
        break;
    }
    }
    update();
}

void ClaimsMap::mouseReleaseEvent(QMouseEvent* event) {
    const auto drag = drag_;
    drag_ = Drag::none;
    if (drag != Drag::select) {
        return;
    }
    if (dragged_.width() > 4 || dragged_.height() > 4) {
        selectWithin(dragged_);
    } else if (const auto found = nearest(event->position())) {
        emit chosen(points_[*found].holding);
    } else {
        clearSelection();
    }
    update();
}

void ClaimsMap::mouseDoubleClickEvent(QMouseEvent* /*event*/) {
    showAll();
}

void ClaimsMap::moveBy(const QPointF& share) {
    const double left = std::clamp(view_.left() + share.x() * view_.width(), 0.0, 1 - view_.width());
    const double low = std::clamp(view_.top() + share.y() * view_.height(), 0.0, 1 - view_.height());
    view_.moveTo(left, low);
    stale_ = true;
    update();
}

void ClaimsMap::zoomAt(const QPointF& screen, double factor) {
    constexpr double nearestView = 0.02;
    const QPointF stays = inData(screen);
    const double width = std::clamp(view_.width() * factor, nearestView, 1.0);
    const double height = std::clamp(view_.height() * factor, nearestView, 1.0);
    const double left = stays.x() - (stays.x() - view_.left()) * width / view_.width();
    const double low = stays.y() - (stays.y() - view_.top()) * height / view_.height();
    view_ = {std::clamp(left, 0.0, 1 - width), std::clamp(low, 0.0, 1 - height), width, height};
    stale_ = true;
    update();
}

void ClaimsMap::wheelEvent(QWheelEvent* event) {
    zoomAt(event->position(), std::pow(0.998, event->angleDelta().y()));
    event->accept();
}

void ClaimsMap::keyPressEvent(QKeyEvent* event) {
    constexpr double step = 0.15;
    switch (event->key()) {
    case Qt::Key_Left:
        return moveBy({-step, 0});
    case Qt::Key_Right:
        return moveBy({step, 0});
    case Qt::Key_Up:
        return moveBy({0, step});
    case Qt::Key_Down:
        return moveBy({0, -step});
    case Qt::Key_Plus:
        return zoomAt(plot().center(), 0.7);
    case Qt::Key_Minus:
        return zoomAt(plot().center(), 1 / 0.7);
    case Qt::Key_Escape:
        return clearSelection();
    default:
        Chart::keyPressEvent(event);
    }
}

} // namespace sober::app
