#pragma once

#include <array>
#include <cstdint>
#include <functional>

class QString;
class QTableView;
class QWidget;

namespace sober::bench {

/// The visible list of this name, or nullptr.
QTableView* shownList(const QWidget& window, const QString& name);

/// True once the list shows rows and none of the visible ones is still being fetched.
bool isFilled(const QTableView* view);

/// How often the interface thread did not come round for how long.
struct Pauses {
    static constexpr std::array<double, 6> bounds{0.005, 0.01, 0.02, 0.05, 0.1, 0.2}; ///< seconds
    std::array<std::uint64_t, bounds.size() + 1> counts{};
    double longest = 0;
    void take(double seconds);
    void print() const;
};

/// Lets events be handled for so long.
void handleEvents(double seconds, Pauses& pauses);

/// Seconds until the condition holds; the longest time that the interface thread did not come round
/// is kept in `worstPause`.
double secondsUntil(const std::function<bool()>& holds, double& worstPause);

} // namespace sober::bench
