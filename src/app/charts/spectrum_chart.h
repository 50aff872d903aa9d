#pragma once

#include "app/charts/chart.h"
#include "app/charts/spectrum_scale.h"
#include "core/evidence/spectrum.h"

#include <optional>

namespace sober::app {

/// One recording's level by frequency: the mean and what is reached in 5 % of the time, with the guide's
/// ticks (where MPEG Layer III encoders usually end) and the bandwidth that was found.
class SpectrumChart : public Chart {
    Q_OBJECT

  public:
    explicit SpectrumChart(QWidget* parent = nullptr);
    void setSpectrum(std::optional<Spectrum> spectrum, std::optional<Bandwidth> bandwidth);

  protected:
    void draw(QPainter& painter) override;
    QString valueAt(const QPointF& point) const override;

  private:
    QRectF plot() const;
    SpectrumScale scale() const;

    std::optional<Spectrum> spectrum_;
    std::optional<Bandwidth> bandwidth_;
};

} // namespace sober::app
