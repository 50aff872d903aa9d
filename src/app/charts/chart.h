#pragma once

#include <QWidget>

#include <vector>

namespace sober::app {

/// What all pictures of the desks have in common: paper, quiet axes, a value under the pointer. What can be
/// pointed at can be gone through by keys as well, and is told to assistive technology.
class Chart : public QWidget {
    Q_OBJECT

  public:
    Chart(const QString& accessibleName, int height, QWidget* parent);

    /// What the picture shows, in words: the values that can be pointed at, or some of them, evenly spread.
    QString inWords() const;

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void leaveEvent(QEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void focusOutEvent(QFocusEvent* event) override;

    virtual void draw(QPainter& painter) = 0;
    /// The words for what lies under a point; "" for nothing.
    virtual QString valueAt(const QPointF& point) const = 0;

    /// A click does something: the arrow keys go from one value to the next, Enter clicks there.
    void letKeysPoint();

    /// Draws text cut to a width.
    static void drawCut(QPainter& painter, const QRectF& room, int alignment, const QString& text,
                        Qt::TextElideMode mode = Qt::ElideRight);

  private:
    struct Spot {
        QString words;
        QPointF at;
    };
    /// The different values, in reading order.
    std::vector<Spot> spots() const;
    void pointAt(std::size_t spot);

    std::vector<Spot> spots_; ///< while keys point
    std::size_t pointed_ = 0;
};

} // namespace sober::app
