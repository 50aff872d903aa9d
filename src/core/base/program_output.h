#pragma once

#include <optional>
#include <string>
#include <vector>

namespace sober {

/// What a program of the system prints, found by its name as a shell finds it; its complaints are not heard,
/// and how it ends does not count. Nothing where there is no such program. Waits for its end.
std::optional<std::string> outputOf(std::vector<std::string> words);

} // namespace sober
