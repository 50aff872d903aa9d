#pragma once

#include <string>

namespace sober::app {

/// A page of ours (core/report) in the language that is on: what stands between its tags is told(), what
/// stands in <code> (paths) and <style> is left alone. In English as it was.
std::string translatedPage(const std::string& html);

} // namespace sober::app
