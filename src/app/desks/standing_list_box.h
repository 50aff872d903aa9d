#pragma once

#include "app/workbench.h"
#include "core/catalogue/standing_lists.h"

#include <QComboBox>

namespace sober::app {

/// Narrows a desk to what a standing list means.
class StandingListBox : public QComboBox {
    Q_OBJECT

  public:
    StandingListBox(Workbench& workbench, QWidget* parent);

    /// Reads the lists anew; what is chosen stays so.
    void reload();
    std::optional<StandingList> chosen() const;
    std::optional<HoldingFilter> filter() const;
    void choose(const QString& name);

  signals:
    void listChanged(); ///< another list was chosen, or the chosen one is another now

  private:
    void take(const std::vector<StandingList>& lists);

    Workbench& workbench_;
    std::vector<StandingList> lists_;
    QString wanted_; ///< to be chosen once the lists are read
};

} // namespace sober::app
