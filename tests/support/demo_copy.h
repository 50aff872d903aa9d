#pragma once

#include "support/temp_folder.h"

#include <nlohmann/json.hpp>

namespace sober::test {

/// A copy of the demo collection that a test may do anything to; times and hard links are kept, the
/// catalogue is not copied. One at a time in a process: they all stand at the same place, so that what was
/// surveyed once can be put back with its catalogue.
class DemoCopy {
  public:
    DemoCopy();
    ~DemoCopy();
    DemoCopy(const DemoCopy&) = delete;
    DemoCopy& operator=(const DemoCopy&) = delete;

    BytePath operator/(const BytePath& relative) const { return joinPath(folder_, relative); }
    BytePath cataloguePath() const { return *this / "catalogue.sqlite"; }

    /// Brings lantern's lists too, their absolute locations as they are in the copy.
    void bringLantern() const;

    /// Keeps volumes and catalogue (which has to be closed) under a name, for later cases of this process.
    void keepAs(const std::string& name) const;
    /// Puts back what was kept under the name; false where nothing was.
    bool takeFrom(const std::string& name) const;

  private:
    BytePath folder_;
};

/// The catalogue that was made with the demo collection: to be asked, not to be changed.
inline const BytePath demoCatalogue = TEST_DEMO "/catalogue.sqlite";

/// What was planted in the demo collection.
nlohmann::json demoTruth();

} // namespace sober::test
