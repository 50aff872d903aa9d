#pragma once

#include "core/base/result.h"

#include <memory>

struct sd_bus;

namespace sober {

struct CloseBus {
    void operator()(sd_bus* bus) const;
};
using UserBus = std::unique_ptr<sd_bus, CloseBus>;

/// The message bus of the person's session (D-Bus, by sd-bus). Cause::notFound where there is none, as
/// without a desktop and systemd. Each thread opens one of its own.
Result<UserBus> openUserBus();

} // namespace sober
