#pragma once

#include "app/charts/chart.h"
#include "core/catalogue/holdings.h"

namespace sober::app {

/// A bundle of what was remembered in one folder and is known in one other, or nowhere.
struct Ribbon {
    QString from;
    QString to; ///< "" where it is not known; else what the right side says
    std::uint64_t count = 0;
    bool isOff = false;  ///< a rule that is not used: drawn as an outline
    bool isOpen = false; ///< something is to be decided there: no folder yet
    QString note = {};   ///< more words for the value under the pointer
};

/// Whereabouts' picture: ribbons from remembered folders to where things are now, thick by count. Ribbons may
/// be chosen where somebody listens.
class RibbonChart : public Chart {
    Q_OBJECT

  public:
    struct Words {
        QString name;    ///< for assistive technology
        QString left;    ///< above the left side
        QString right;   ///< above the right side
        QString nowhere; ///< where a ribbon leads nowhere
        QString none;    ///< instead of a picture
        QString counted; ///< what is counted, for the value under the pointer: "%1 missing from %2"
    };
    explicit RibbonChart(Words words, QWidget* parent = nullptr);
    void setRibbons(std::vector<Ribbon> ribbons);
    /// The ribbon that is chosen, -1 for none.
    void setChosen(int ribbon);
    int chosen() const { return chosen_; }

  signals:
    /// A ribbon was clicked on; -1 beside all of them.
    void ribbonClicked(int ribbon);

  protected:
    void draw(QPainter& painter) override;
    QString valueAt(const QPointF& point) const override;
    void mousePressEvent(QMouseEvent* event) override;

  private:
    struct Drawn {
        std::size_t ribbon;
        double left;  ///< middle at the left end
        double right; ///< middle at the right end
        double thick;
    };
    std::vector<Drawn> layOut() const;
    /// The ribbon at a point, -1 for none.
    int ribbonAt(const QPointF& point) const;

    Words words_;
    std::vector<Ribbon> ribbons_;
    int chosen_ = -1;
    std::uint64_t rest_ = 0; ///< holdings in ribbons that found no room
};

} // namespace sober::app
