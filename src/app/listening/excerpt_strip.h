#pragma once

#include "app/charts/chart.h"
#include "core/media/excerpt.h"

#include <QImage>

#include <memory>

namespace sober::app {

/// What is kept of a recording that is away: its cover, the outline of all of it, and which stretch of it can
/// be listened to.
class ExcerptStrip : public Chart {
    Q_OBJECT

  public:
    explicit ExcerptStrip(QWidget* parent);

    /// Null for none.
    void setExcerpt(std::shared_ptr<const Excerpt> excerpt, QImage cover);
    void setPlace(double seconds); ///< in the recording; negative for none

  protected:
    void draw(QPainter& painter) override;
    QString valueAt(const QPointF& point) const override;

  private:
    QRectF outlineRoom() const;

    std::shared_ptr<const Excerpt> excerpt_;
    QImage cover_;
    double place_ = -1;
};

/// "1:10" for 70.4 seconds.
QString clockText(double seconds);

} // namespace sober::app
