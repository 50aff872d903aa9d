#pragma once

#include "app/charts/chart.h"
#include "core/catalogue/holdings.h"

namespace sober::app {

/// A bundle of missing holdings that were remembered in one folder and whose content is known in one
/// other folder, or nowhere.
struct Ribbon {
    QString from;
    QString to; ///< "" where no other copy is known
    std::uint64_t count = 0;
};

/// Whereabouts' picture: ribbons from remembered folders to where the same content is now, thick by
/// count.
class RibbonChart : public Chart {
    Q_OBJECT

  public:
    explicit RibbonChart(QWidget* parent = nullptr);
    void setRibbons(std::vector<Ribbon> ribbons);

  protected:
    void draw(QPainter& painter) override;
    QString valueAt(const QPointF& point) const override;

  private:
    struct Drawn {
        std::size_t ribbon;
        double left;  ///< middle at the left end
        double right; ///< middle at the right end
        double thick;
    };
    std::vector<Drawn> layOut() const;

    std::vector<Ribbon> ribbons_;
    std::uint64_t rest_ = 0; ///< holdings in ribbons that found no room
};

} // namespace sober::app
