#pragma once

#include "app/charts/chart.h"
#include "core/catalogue/evidence_store.h"

#include <QImage>

#include <unordered_set>

namespace sober::app {

/// Claims' picture: every examined holding as a point, stated bitrate across (lossless at the far right
/// by depth and rate), measured bandwidth up, the honest band drawn in. Dragging selects, the wheel
/// comes nearer, dragging with the middle button or with Shift moves, a double click shows all again.
class ClaimsMap : public Chart {
    Q_OBJECT

  public:
    explicit ClaimsMap(QWidget* parent = nullptr);

    void setPoints(std::vector<ClaimPoint> points);
    /// Rings one point in.
    void setChosen(HoldingId holding);
    /// Points within the last selection; empty where nothing is selected.
    const std::unordered_set<HoldingId>& selection() const { return selection_; }
    void clearSelection();

    /// Where a holding's point is drawn; nothing where it is outside the view or unknown.
    std::optional<QPointF> placeOf(HoldingId holding) const;
    void showAll();

  signals:
    void selectionChanged();
    void chosen(sober::HoldingId holding);

  protected:
    void draw(QPainter& painter) override;
    QString valueAt(const QPointF& point) const override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    QSize sizeHint() const override { return {620, 300}; }

  private:
    struct Placed {
        float across; ///< 0 to 1
        float up;     ///< 0 to 1
    };
    QRectF plot() const;
    QPointF onScreen(double across, double up) const;
    QPointF inData(const QPointF& screen) const;
    void drawAxes(QPainter& painter) const;
    void drawBand(QPainter& painter) const;
    void stampPoints();
    void moveBy(const QPointF& share);
    void zoomAt(const QPointF& screen, double factor);
    std::optional<std::size_t> nearest(const QPointF& screen) const;
    void selectWithin(const QRectF& screen);

    std::vector<ClaimPoint> points_;
    std::vector<Placed> placed_;
    std::unordered_set<HoldingId> selection_;
    HoldingId chosen_ = 0;
    QRectF view_{0, 0, 1, 1}; ///< the part of the data that is shown, up being larger y
    QImage stamped_;
    bool stale_ = true;
    QPointF pressed_;
    QRectF dragged_;
    enum class Drag {
        none,
        select,
        move,
    };
    Drag drag_ = Drag::none;
};

/// "MP3 320" in kbit/s, or "FLAC 16/44.1" in bits and kHz.
QString claimWords(const Claims& claims);

} // namespace sober::app
