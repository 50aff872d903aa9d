#pragma once

#include "core/base/result.h"

#include <set>

namespace sober {

/// Folders in which names were changed and that were not flushed to the medium since. What was changed there
/// is done, whatever becomes of the flush: it is only not known to outlast a loss of power.
class Unflushed {
  public:
    /// The folder that holds this name.
    void noteParentOf(std::string_view path) { folders_.emplace(parentOf(path)); }
    /// Flushes each once. Those that could not be stay.
    void flush();
    /// True where what was changed at this name is not known to be flushed.
    bool holds(std::string_view path) const { return folders_.contains(BytePath(parentOf(path))); }
    bool isEmpty() const { return folders_.empty(); }

  private:
    std::set<BytePath> folders_;
};

} // namespace sober
