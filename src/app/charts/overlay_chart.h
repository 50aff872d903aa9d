#pragma once

#include "app/charts/chart.h"
#include "app/charts/spectrum_scale.h"
#include "core/evidence/compare_decodes.h"
#include "core/evidence/spectrum.h"

namespace sober::app {

/// Two members of a copy set laid over each other: their spectra, and what is left over time where one is
/// subtracted from the other.
class OverlayChart : public Chart {
    Q_OBJECT

  public:
    struct Side {
        QString name;
        Spectrum spectrum;
    };
    explicit OverlayChart(QWidget* parent = nullptr);
    /// `keeper` is filled, `other` a line; the same member twice shows the keeper alone.
    void setSides(std::optional<Side> keeper, std::optional<Side> other);
    void setComparison(std::optional<DecodeComparison> comparison, const QString& whyNot = {});

  protected:
    void draw(QPainter& painter) override;
    QString valueAt(const QPointF& point) const override;

  private:
    SpectrumScale spectra() const;
    QRectF residual() const;
    void drawSpectra(QPainter& painter);
    void drawResidual(QPainter& painter);

    std::optional<Side> keeper_;
    std::optional<Side> other_;
    std::optional<DecodeComparison> comparison_;
    QString whyNot_;
};

} // namespace sober::app
