#pragma once

#include "support/temp_folder.h"

namespace sober::test {

/// A home of its own for a test process: tests never touch the user's trash, catalogue or settings.
class TestHome {
  public:
    TestHome();

  private:
    TempFolder home_;
};

} // namespace sober::test
