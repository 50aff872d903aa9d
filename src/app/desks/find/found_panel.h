#pragma once

#include "app/theme/marks.h"
#include "app/workbench.h"
#include "core/audit/found_holding.h"

#include <QWidget>

class QLabel;

namespace sober::app {

class ListeningBar;

/// One that was found, with the others that carry its recording.
struct FoundDetail {
    FoundHolding found;
    std::vector<FoundHolding> copies; ///< present ones
};

/// Nothing where it is no longer catalogued.
Result<std::optional<FoundDetail>> detailOfFound(const Catalogue& catalogue, HoldingId id);

/// The mark and the words for what is known of one that was found.
Mark markOf(const FoundHolding& found);
QString conditionWords(const FoundHolding& found);

/// Where one that was found lies and how to reach it, what is known of it, its other copies and its lists;
/// and listening to it.
class FoundPanel : public QWidget {
    Q_OBJECT

  public:
    FoundPanel(Workbench& workbench, QWidget* parent);

    void setDetail(const std::optional<FoundDetail>& detail);
    ListeningBar& listening() { return *listening_; }

  private:
    Workbench& workbench_;
    QLabel* title_;
    QLabel* place_;
    QLabel* reach_;
    QLabel* copies_;
    QLabel* lists_;
    ListeningBar* listening_;
    std::optional<HoldingId> shown_;
};

} // namespace sober::app
