#pragma once

#include "app/charts/chart.h"
#include "core/evidence/codec_trace.h"

namespace sober::app {

/// The codec trace: coefficients near zero in excess of chance, over the positions of a block grid, with
/// its peak. A grid that is no chance stands out as one needle.
class TraceChart : public Chart {
    Q_OBJECT

  public:
    explicit TraceChart(QWidget* parent = nullptr);
    /// Shows the earlier encode's grid where there are two, else the last, else the highest chance.
    void setTrace(const CodecTrace& trace);

  protected:
    void draw(QPainter& painter) override;
    QString valueAt(const QPointF& point) const override;

  private:
    QRectF plot() const;

    std::optional<TracePeak> peak_;
    bool earlier_ = false;
    bool hit_ = false;
};

/// "MP3", "AAC", "Vorbis" as people write them.
QString codecName(const std::string& codec);

} // namespace sober::app
