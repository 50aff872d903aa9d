#pragma once

#include "core/evidence/examination.h"

namespace sober::test {

/// Everything that one examination yields; what does not decode counts as refused.
inline Result<FileRecord> recordOf(const BytePath& path) {
    RunControl control;
    auto record = examineFile(path, control, [](std::uint64_t) {});
    if (record && !record->evidence) {
        return Error{Cause::unreadable, path, record->problem};
    }
    return record;
}

inline Result<Evidence> examined(const BytePath& path) {
    auto record = recordOf(path);
    return record ? Result<Evidence>(std::move(*record->evidence)) : Result<Evidence>(record.error());
}

} // namespace sober::test
