#pragma once

#include "core/base/paths.h"

#include <memory>
#include <optional>
#include <string>
#include <utility>

namespace sober {

/// Why something could not be done, for code that has to choose what to do next.
enum class Cause {
    notFound,
    notPermitted,
    wrongKind,    ///< a folder where a file was expected, or the reverse
    notAudio,     ///< holds no audio that we know
    unreadable,   ///< the medium or the format gave up
    changed,      ///< not what was recorded any more
    alreadyThere, ///< the place is taken
    busy,         ///< somebody else has it open
    damaged,      ///< our own catalogue is not whole
    newer,        ///< written by a newer program
    full,         ///< no space left
    refused,      ///< would break a promise of the program
    invalid,      ///< the request makes no sense
    interrupted,  ///< cancelled by the user
    ended,        ///< a process of ours was ended from outside: asked again, it may go well
};

/// A failure as a value: its cause, the path it is about (may be empty) and one sentence for a person.
struct Error {
    Cause cause;
    BytePath path;
    std::string sentence;
};

/// The Error for what would break a promise of the program.
inline Error refusedError(BytePath path, std::string sentence) {
    return {Cause::refused, std::move(path), std::move(sentence)};
}

/// The Error for a failed system call: `doing` is a verb phrase such as "open" or "read".
Error systemError(int errorNumber, std::string_view doing, std::string_view path);

/// Either a value or an Error. Reading the one that is not there is a programming error.
template <typename T>
class [[nodiscard]] Result {
  public:
    Result(T value) : value_(std::move(value)) {}
    Result(Error error) : error_(std::make_shared<const Error>(std::move(error))) {}

    bool ok() const { return value_.has_value(); }
    explicit operator bool() const { return ok(); }

    T& value() { return *value_; }
    const T& value() const { return *value_; }
    T& operator*() { return *value_; }
    const T& operator*() const { return *value_; }
    T* operator->() { return &*value_; }
    const T* operator->() const { return &*value_; }

    const Error& error() const { return *error_; }

  private:
    std::optional<T> value_;
    std::shared_ptr<const Error> error_;
};

struct Nothing {};

/// The outcome of something that yields no value.
using Outcome = Result<Nothing>;
inline Outcome done() {
    return Outcome(Nothing{});
}

} // namespace sober

/// Leaves the function with the Error of a Result, named or made on the spot, that holds one.
#define RETURN_IF_FAILED(...)                                                                                \
    do {                                                                                                     \
        if (const auto& outcomeOfCall = (__VA_ARGS__); !outcomeOfCall) {                                     \
            return outcomeOfCall.error();                                                                    \
        }                                                                                                    \
    } while (false)
