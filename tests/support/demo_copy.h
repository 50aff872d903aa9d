#pragma once

#include "support/temp_folder.h"

#include <nlohmann/json.hpp>

namespace sober::test {

/// A copy of the demo collection that a test may do anything to; times and hard links are kept, the
/// catalogue is not copied.
class DemoCopy {
  public:
    DemoCopy();
    BytePath operator/(const BytePath& relative) const { return folder_ / relative; }
    BytePath cataloguePath() const { return folder_ / "catalogue.sqlite"; }

  private:
    TempFolder folder_;
};

/// What was planted in the demo collection.
nlohmann::json demoTruth();

} // namespace sober::test
