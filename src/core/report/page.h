#pragma once

#include <string>
#include <string_view>

namespace sober {

/// Text for HTML: offending and steering characters made visible, markup escaped.
std::string pageText(std::string_view text);

/// The beginning of a page that stands by itself: nothing is fetched, and it prints on white paper with the
/// heads of its tables on each sheet. `title` is its heading too.
std::string pageBegin(std::string_view title);
std::string pageEnd();

} // namespace sober
