#pragma once

#include "app/workbench.h"

#include <QDialog>

class QSpinBox;

namespace sober::app {

/// The bitrates below which a lossy holding counts as low, one for each codec: 128 kbit/s of one are
/// not 128 of another.
class LimitsWindow : public QDialog {
    Q_OBJECT

  public:
    using Limits = std::vector<std::pair<std::string, std::int64_t>>; ///< codec and bits a second

    LimitsWindow(Workbench& workbench, const Limits& limits, QWidget* parent);

  private:
    void keep();

    Workbench& workbench_;
    Limits before_;
    std::vector<QSpinBox*> boxes_;
};

} // namespace sober::app
