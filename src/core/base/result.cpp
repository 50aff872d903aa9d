#include "core/base/result.h"

#include "core/base/text.h"

#include <fmt/format.h>

#include <cerrno>
#include <cstring>

namespace sober {
namespace {

Cause causeOf(int errorNumber) {
    switch (errorNumber) {
    case ENOENT:
        return Cause::notFound;
    case EACCES:
    case EPERM:
    case EROFS:
        return Cause::notPermitted;
    case EISDIR:
    case ENOTDIR:
    case ELOOP:
        return Cause::wrongKind;
    case EEXIST:
        return Cause::alreadyThere;
    case ENOSPC:
    case EDQUOT:
    case EFBIG:
        return Cause::full;
    default:
        return Cause::unreadable;
    }
}

std::string_view plainWords(int errorNumber) {
    switch (errorNumber) {
    case ENOENT:
        return "it is not there";
    case EACCES:
    case EPERM:
        return "permission is denied";
    case EROFS:
        return "the volume is read-only";
    case ENOSPC:
    case EDQUOT:
    case EFBIG:
        return "no space is left";
    case EIO:
        return "the drive reported a read error";
    default:
        return strerrordesc_np(errorNumber) != nullptr ? strerrordesc_np(errorNumber) : "unknown error";
    }
}

} // namespace

Error systemError(int errorNumber, std::string_view doing, std::string_view path) {
    return Error{causeOf(errorNumber), BytePath(path),
                 fmt::format("Could not {} {}: {}.", doing, displayPath(path), plainWords(errorNumber))};
}

} // namespace sober
