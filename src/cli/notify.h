#pragma once

#include "core/base/result.h"

#include <string>

namespace sober::cli {

/// Shows a message on the user's desktop, by the Desktop Notifications Specification (freedesktop.org) over
/// the session bus. Cause::notFound where there is no desktop to show it.
Outcome notifyDesktop(const std::string& summary, const std::string& body);

} // namespace sober::cli
