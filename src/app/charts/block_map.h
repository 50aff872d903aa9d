#pragma once

#include "app/charts/chart.h"

namespace sober::app {

/// The blocks of one drifted file, 1 MiB each: those that are not what was recorded are filled.
class BlockMap : public Chart {
    Q_OBJECT

  public:
    explicit BlockMap(QWidget* parent = nullptr);
    /// `count` blocks, of which these runs (first and last) differ.
    void setBlocks(std::uint64_t count, std::vector<std::pair<std::uint64_t, std::uint64_t>> differing);

  protected:
    void draw(QPainter& painter) override;
    QString valueAt(const QPointF& point) const override;

  private:
    bool differs(std::uint64_t first, std::uint64_t past) const;
    std::uint64_t cells() const;
    QRectF cellRoom(std::uint64_t cell) const;

    std::uint64_t count_ = 0;
    std::vector<std::pair<std::uint64_t, std::uint64_t>> differing_;
};

} // namespace sober::app
