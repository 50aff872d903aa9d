#pragma once

#include "app/charts/chart.h"
#include "core/audit/set_choice.h"

namespace sober::app {

/// Copies' picture, first form: one copy set, every member a ring in the lane of its volume, placed by
/// when it was written, the keeper and what leaves marked. Names of one file (hard links) say so and
/// are tied by a double line.
class SetChart : public Chart {
    Q_OBJECT

  public:
    explicit SetChart(QWidget* parent = nullptr);
    void setDetail(std::optional<SetDetail> detail, std::vector<Volume> volumes);
    void setCurrent(HoldingId holding);

  signals:
    void memberChosen(std::int64_t holding);

  protected:
    void draw(QPainter& painter) override;
    QString valueAt(const QPointF& point) const override;
    void mousePressEvent(QMouseEvent* event) override;

  private:
    struct Spot {
        std::size_t member;
        QPointF centre;
        std::size_t lane;
        std::size_t row; ///< within the lane
    };
    struct Layout {
        std::vector<Spot> spots;
        std::vector<std::size_t> laneStart; ///< in rows; one more than there are lanes
        double rowHeight = 0;
    };
    Layout layOut() const;
    std::vector<const Volume*> lanes() const;

    std::optional<SetDetail> detail_;
    std::vector<Volume> volumes_;
    HoldingId current_ = 0;
};

} // namespace sober::app
