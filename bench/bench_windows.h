#pragma once

#include <functional>

class QString;
class QTableView;
class QWidget;

namespace sober::bench {

/// The visible list of this name, or nullptr.
QTableView* shownList(const QWidget& window, const QString& name);

/// True once the list shows rows and none of the visible ones is still being fetched.
bool isFilled(const QTableView* view);

/// Seconds until the condition holds; the longest time that the interface thread did not come round
/// is kept in `worstPause`.
double secondsUntil(const std::function<bool()>& holds, double& worstPause);

} // namespace sober::bench
