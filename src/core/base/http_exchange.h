#pragma once

#include "core/base/result.h"
#include "core/base/run_control.h"

#include <functional>
#include <optional>
#include <string>
#include <string_view>

namespace sober {

/// How long is waited for a service, and how much is taken from it. No source.
struct HttpLimits {
    long connectSeconds = 10;
    long silentSeconds = 30;             ///< without a byte
    std::uint64_t mostAnswer = 8U << 20; ///< bytes of an answer that is read as a whole
    int mostRedirects = 5;
};

/// A service that the custodian set up, reached by HTTP (libcurl). Nothing is followed to another host.
struct HttpService {
    std::string what; ///< "offer shelf", for sentences
    std::string address;
    HttpLimits limits;
};

/// Whether somebody means an address by it, and not a file.
bool isAddress(std::string_view text);

/// Whether this may be a service's address: http or https, a host, no password in it. Else the sentence.
Outcome isServiceAddress(const HttpService& service);

/// An address relative to the service's; nothing where that is another host.
std::optional<std::string> addressWithin(const HttpService& service, const std::string& relative);

/// Asks by GET, or by POST with a body, and gives the answer's bytes as they come. Errors are sentences about
/// the service: Cause::unreadable where it cannot be reached, breaks off or refuses.
Outcome exchange(const HttpService& service, const std::string& address, const std::string* body,
                 const std::function<Outcome(std::string_view)>& take, RunControl& control);
/// The same, the answer as a whole; Cause::damaged where that is too long.
Result<std::string> answerOf(const HttpService& service, const std::string& address, const std::string* body,
                             RunControl& control);

/// Asks at an address within the service's own, with a body.
Result<std::string> askService(const HttpService& service, const std::string& relative,
                               const std::string& body, RunControl& control);

} // namespace sober
