#include "core/remedy/changes/unflushed.h"

#include "core/remedy/changes/file_changes.h"

namespace sober {

void Unflushed::flush() {
    std::erase_if(folders_, [](const BytePath& folder) { return flushFolder(folder).ok(); });
}

} // namespace sober
