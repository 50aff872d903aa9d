#pragma once

namespace sober::app {

/// From now on assistive technology hears of every chart what it shows: its name, and its values in words.
void tellOfCharts();

} // namespace sober::app
