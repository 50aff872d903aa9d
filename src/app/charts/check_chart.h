#pragma once

#include "app/charts/chart.h"
#include "core/catalogue/fixity_store.h"

namespace sober::app {

/// Fixity's picture: each volume a row, half a year of weeks across, every check a ring where it was: closed
/// where all was as recorded, notched where something was not; as tall a line below as it read of the volume.
class CheckChart : public Chart {
    Q_OBJECT

  public:
    struct Row {
        QString volume;
        std::uint64_t holdings = 0;
        std::uint64_t due = 0;
        std::vector<FixityCheck> checks;
    };
    explicit CheckChart(QWidget* parent = nullptr);
    void setRows(std::vector<Row> rows, Nanoseconds now);

  protected:
    void draw(QPainter& painter) override;
    QString valueAt(const QPointF& point) const override;

  private:
    double xOf(Nanoseconds time) const;
    QRectF rowRoom(std::size_t row) const;

    std::vector<Row> rows_;
    Nanoseconds now_ = 0;
};

} // namespace sober::app
