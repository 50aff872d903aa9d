#pragma once

#include "app/charts/chart.h"
#include "core/audit/lineage.h"
#include "core/audit/set_choice.h"

namespace sober::app {

/// Copies' picture: who derives from whom in one copy set. The member that all others may come from stands
/// at the left; what is made from it hangs on it, with what lies between in words. Members of the same
/// bytes share a place.
class LineageChart : public Chart {
    Q_OBJECT

  public:
    explicit LineageChart(QWidget* parent = nullptr);
    void setDetail(std::optional<SetDetail> detail);
    void setCurrent(HoldingId holding);

  signals:
    void memberChosen(std::int64_t holding);

  protected:
    void draw(QPainter& painter) override;
    QString valueAt(const QPointF& point) const override;
    void mousePressEvent(QMouseEvent* event) override;

  private:
    struct Node {
        Descent descent;
        std::vector<std::size_t> alike; ///< members of the same bytes, the shown one first
        std::size_t depth = 0;
        std::size_t parent = 0; ///< row; its own where it is the first
    };
    void layOut();
    QPointF centreOf(std::size_t row) const;
    double rowHeight() const;
    std::optional<std::size_t> rowAt(const QPointF& point) const;

    std::optional<SetDetail> detail_;
    std::vector<Node> rows_; ///< each after its source
    HoldingId current_ = 0;
};

} // namespace sober::app
