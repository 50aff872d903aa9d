#pragma once

#include "app/desks/copies/copy_columns.h"
#include "app/workbench.h"

#include <QObject>

namespace sober::app {

class ListeningBar;

/// Listening to the members of a set one after another: at the level of the quietest, and where something
/// plays at the same musical moment.
class MemberListening : public QObject {
    Q_OBJECT

  public:
    MemberListening(Workbench& workbench, QWidget* parent);
    ListeningBar* bar() const { return bar_; }
    void listenTo(const MemberRow& row);
    void clear();

  private:
    Workbench& workbench_;
    ListeningBar* bar_;
    std::optional<std::size_t> heard_; ///< the member that the bar holds
    HoldingId away_ = 0;               ///< whose excerpt it holds
};

} // namespace sober::app
