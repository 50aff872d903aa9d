#pragma once

#include "app/charts/chart.h"
#include "core/evidence/time_spectrum.h"

#include <QImage>

#include <optional>

namespace sober::app {

/// One recording's frequencies over time, from paper through petrol to ink: what is darker is louder,
/// in grey too. Shows where the listening is, and takes a click as a place to go to.
class TimePicture : public Chart {
    Q_OBJECT

  public:
    explicit TimePicture(QWidget* parent = nullptr);

    void setPicture(std::optional<TimeSpectrum> picture);
    bool hasPicture() const { return picture_.has_value(); }
    /// What to say where there is no picture.
    void setEmptyText(const QString& text);
    void setPlace(double seconds); ///< negative for none

  signals:
    void pictureWanted();
    void placeChosen(double seconds);

  protected:
    void draw(QPainter& painter) override;
    QString valueAt(const QPointF& point) const override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

  private:
    QRectF plot() const;

    std::optional<TimeSpectrum> picture_;
    QImage image_;
    QColor paper_; ///< of the image: it is made anew on another
    QString emptyText_;
    double place_ = -1;
};

/// 0 (quietest) to 1: lightness falls evenly on light paper and rises evenly on dark.
QColor loudnessColor(double loudness);

} // namespace sober::app
