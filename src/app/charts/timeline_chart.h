#pragma once

#include "app/charts/chart.h"
#include "core/catalogue/ledger_store.h"

namespace sober::app {

/// Ledger's picture: entries on a line of time, surveys below it, what was carried out above, as
/// tall as it had actions; what was taken back is hollow and tied to its undoing.
class TimelineChart : public Chart {
    Q_OBJECT

  public:
    explicit TimelineChart(QWidget* parent = nullptr);
    void setEntries(std::vector<LedgerEntry> entries);
    void setCurrent(EntryId entry);

  signals:
    void entryChosen(std::int64_t entry);

  protected:
    void draw(QPainter& painter) override;
    QString valueAt(const QPointF& point) const override;
    void mousePressEvent(QMouseEvent* event) override;

  private:
    struct Spot {
        std::size_t entry;
        double x;
        double height; ///< above the line, negative below
    };
    std::vector<Spot> layOut() const;
    const Spot* nearest(const std::vector<Spot>& spots, const QPointF& point) const;

    std::vector<LedgerEntry> entries_; ///< oldest first
    EntryId current_ = 0;
};

} // namespace sober::app
