#pragma once

#include <QWidget>

namespace sober::app {

/// What all pictures of the desks have in common: paper, quiet axes, a value under the pointer.
class Chart : public QWidget {
    Q_OBJECT

  public:
    Chart(const QString& accessibleName, int height, QWidget* parent);

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void leaveEvent(QEvent* event) override;

    virtual void draw(QPainter& painter) = 0;
    /// The words for what lies under a point; "" for nothing.
    virtual QString valueAt(const QPointF& point) const = 0;

    /// Draws text cut to a width.
    static void drawCut(QPainter& painter, const QRectF& room, int alignment, const QString& text,
                        Qt::TextElideMode mode = Qt::ElideRight);
};

} // namespace sober::app
