#pragma once

#include "app/charts/chart.h"
#include "app/theme/marks.h"

#include <optional>
#include <vector>

namespace sober::app {

/// What is new, each beside what is held of it: how far the bandwidth of both reaches. Some of them, around
/// the chosen one.
class ArrivalChart : public Chart {
    Q_OBJECT

  public:
    struct Row {
        QString name;
        Mark mark = Mark::none; ///< what is advised
        QString advice;
        std::optional<double> arrival; ///< Hz
        std::optional<double> held;    ///< Hz, of the best that is held
        bool isHeld = false;
        QString without = {}; ///< what to say in place of the arrival's; "": that it was not measured
    };

    /// `caption` says what stands beside what.
    explicit ArrivalChart(QString caption, QWidget* parent = nullptr);
    void setRows(std::vector<Row> rows);
    void setChosen(int row);

  signals:
    void rowClicked(int row);

  protected:
    void draw(QPainter& painter) override;
    QString valueAt(const QPointF& point) const override;
    void mousePressEvent(QMouseEvent* event) override;

  private:
    void drawRow(QPainter& painter, int row, double top) const;
    QRectF plot() const;
    double xOf(double hertz) const;
    int firstShown() const;
    /// The row at a point; -1 where there is none.
    int rowAt(const QPointF& point) const;

    QString caption_;
    std::vector<Row> rows_;
    int chosen_ = 0;
};

} // namespace sober::app
