#include "support/test_home.h"

#include <cstdlib>

namespace sober::test {

TestHome::TestHome() {
    setenv("HOME", home_.path().c_str(), 1);
    setenv("XDG_DATA_HOME", (home_ / "data").c_str(), 1);
    setenv("XDG_CONFIG_HOME", (home_ / "config").c_str(), 1);
    setenv("XDG_RUNTIME_DIR", home_.path().c_str(), 1);
    setenv("TZ", "UTC", 1);
}

} // namespace sober::test
