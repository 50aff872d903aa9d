#pragma once

#include <algorithm>
#include <iterator>
#include <vector>

namespace sober {

/// Makes a table's rows, `before`, what they shall be, `after`, by as few changes as that takes: `remove` is
/// called for each row that goes and then `insert` for each that comes; a row that differs goes and comes.
template <typename Row, typename Remove, typename Insert>
void writeDifference(std::vector<Row> before, std::vector<Row> after, Remove remove, Insert insert) {
    std::ranges::sort(before);
    std::ranges::sort(after);
    std::vector<Row> changed;
    std::ranges::set_difference(before, after, std::back_inserter(changed));
    std::ranges::for_each(changed, remove);
    changed.clear();
    std::ranges::set_difference(after, before, std::back_inserter(changed));
    std::ranges::for_each(changed, insert);
}

} // namespace sober
