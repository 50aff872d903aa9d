#pragma once

#include "app/charts/chart.h"
#include "core/work/look_at_bytes.h"

namespace sober::app {

/// Bytes in rows of sixteen: their place, what part of a file begins there, their digits, and as text.
class ByteSheet : public Chart {
    Q_OBJECT

  public:
    static constexpr int rowBytes = 16;

    explicit ByteSheet(QWidget* parent = nullptr);

    void setLook(ByteLook look);
    /// Bytes that are marked, as what was looked for.
    void setMarked(ByteRange marked);
    int rows() const; ///< that there is room for

  signals:
    void movedBy(qint64 rows); ///< keys and wheel ask for others
    void resized();

  protected:
    void draw(QPainter& painter) override;
    QString valueAt(const QPointF& point) const override;
    void keyPressEvent(QKeyEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    QSize sizeHint() const override { return {880, 520}; }

  private:
    /// The part that a byte of the image belongs to; null where none is known.
    const BytePart* partAt(std::uint64_t byte) const;
    QRectF cellOf(std::uint64_t byte) const;

    ByteLook look_;
    ByteRange marked_{0, 0};
};

} // namespace sober::app
