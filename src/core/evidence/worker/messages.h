#pragma once

#include "core/base/file_handle.h"

#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace sober {

// What goes over the line between a program and its worker: a letter, bytes, and open files. Each end is a
// socket; nothing is trusted of the other end but that its lengths are kept.

struct Message {
    char letter = 0;
    std::string bytes;
    std::vector<FileHandle> files;
};

/// False where the other end is gone. At most 250 files.
bool sendMessage(int line, char letter, std::string_view bytes, std::span<const int> files = {});

/// Nothing where the other end is gone, or tells nonsense.
std::optional<Message> receiveMessage(int line);

} // namespace sober
