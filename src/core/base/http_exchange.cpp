#include "core/base/http_exchange.h"

#include "core/base/text.h"

#include <curl/curl.h>
#include <fmt/format.h>

#include <algorithm>
#include <dlfcn.h>
#include <memory>
#include <optional>

namespace sober {
namespace {

/// What is used of libcurl. That brings thirty others along: it is loaded by who asks a service, and not by
/// every program that might.
class CurlLibrary {
  public:
    static const CurlLibrary& get() {
        static const CurlLibrary library;
        return library;
    }
    explicit operator bool() const { return isWhole_; }

    decltype(&curl_easy_init) easyInit = nullptr;
    decltype(&curl_easy_cleanup) easyCleanup = nullptr;
    decltype(&curl_easy_setopt) setOption = nullptr;
    decltype(&curl_easy_perform) perform = nullptr;
    decltype(&curl_easy_getinfo) getInfo = nullptr;
    decltype(&curl_easy_strerror) errorText = nullptr;
    decltype(&curl_url) newUrl = nullptr;
    decltype(&curl_url_cleanup) urlCleanup = nullptr;
    decltype(&curl_url_set) urlSet = nullptr;
    decltype(&curl_url_get) urlGet = nullptr;
    decltype(&curl_free) release = nullptr;

  private:
    CurlLibrary() {
        library_ = dlopen("libcurl.so.4", RTLD_LAZY);
        find("curl_easy_init", easyInit);
        find("curl_easy_cleanup", easyCleanup);
        find("curl_easy_setopt", setOption);
        find("curl_easy_perform", perform);
        find("curl_easy_getinfo", getInfo);
        find("curl_easy_strerror", errorText);
        find("curl_url", newUrl);
        find("curl_url_cleanup", urlCleanup);
        find("curl_url_set", urlSet);
        find("curl_url_get", urlGet);
        find("curl_free", release);
    }
    template <typename Function>
    void find(const char* name, Function& function) {
        void* found = library_ != nullptr ? dlsym(library_, name) : nullptr;
        function = reinterpret_cast<Function>(found); // NOLINT: that is what dlsym is for
        isWhole_ = isWhole_ && found != nullptr;
    }

    void* library_ = nullptr;
    bool isWhole_ = true;
};

const CurlLibrary& curl() {
    return CurlLibrary::get();
}

struct EasyCleanup {
    void operator()(CURL* handle) const { curl().easyCleanup(handle); }
};
using Easy = std::unique_ptr<CURL, EasyCleanup>;

struct UrlCleanup {
    void operator()(CURLU* handle) const { curl().urlCleanup(handle); }
};
using Url = std::unique_ptr<CURLU, UrlCleanup>;

Url urlOf(const std::string& text) {
    Url url(curl() ? curl().newUrl() : nullptr);
    return url && curl().urlSet(url.get(), CURLUPART_URL, text.c_str(), 0) == CURLUE_OK ? std::move(url)
                                                                                        : Url();
}

std::string partOf(const Url& url, CURLUPart part) {
    char* text = nullptr;
    if (!url || curl().urlGet(url.get(), part, &text, CURLU_DEFAULT_PORT) != CURLUE_OK) {
        return {};
    }
    const std::unique_ptr<char, decltype(&curl_free)> owned(text, curl().release);
    return text;
}

bool isSameHost(const Url& one, const Url& other) {
    return std::ranges::all_of(
        std::initializer_list<CURLUPart>{CURLUPART_SCHEME, CURLUPART_HOST, CURLUPART_PORT},
        [&](CURLUPart part) { return partOf(one, part) == partOf(other, part); });
}

/// One request, whatever it is for.
class Exchange {
  public:
    Exchange(const HttpService& service, RunControl& control)
        : service_(service), limits_(service.limits), control_(control) {}

    /// Follows redirects on its own host. `take` gets the body alone.
    Outcome run(const std::string& address, const std::string* body,
                const std::function<Outcome(std::string_view)>& take) {
        take_ = &take;
        if (!curl()) {
            return unreadable("cannot be asked: libcurl is not installed.");
        }
        auto url = urlOf(address);
        const auto home = urlOf(service_.address);
        for (int hops = 0; url; ++hops) {
            if (!isSameHost(home, url)) {
                return unreadable("leads to another host, which is not asked.");
            }
            if (hops > limits_.mostRedirects) {
                return unreadable("leads in a circle.");
            }
            Easy easy(curl().easyInit());
            if (!easy) {
                return unreadable("cannot be asked: there is no memory for it.");
            }
            prepare(easy.get(), url, body);
            const auto code = curl().perform(easy.get());
            if (failure_) {
                return *failure_;
            }
            if (code != CURLE_OK) {
                return failed(code);
            }
            long status = 0;
            curl().getInfo(easy.get(), CURLINFO_RESPONSE_CODE, &status);
            if (status / 100 == 3) {
                const char* next = nullptr;
                curl().getInfo(easy.get(), CURLINFO_REDIRECT_URL, &next);
                url = next != nullptr ? urlOf(next) : Url();
                continue;
            }
            return status == 200
                       ? done()
                       : unreadable(fmt::format("answers with status {} instead of what was asked.", status));
        }
        return unreadable("leads to an address that is none.");
    }

  private:
    void prepare(CURL* easy, const Url& url, const std::string* body) {
        curl().setOption(easy, CURLOPT_CURLU, url.get());
        curl().setOption(easy, CURLOPT_PROTOCOLS_STR, "http,https");
        curl().setOption(easy, CURLOPT_FOLLOWLOCATION, 0L);
        curl().setOption(easy, CURLOPT_NOSIGNAL, 1L);
        curl().setOption(easy, CURLOPT_NOPROXY, "localhost,127.0.0.1,::1");
        curl().setOption(easy, CURLOPT_USERAGENT, "sober-archivist");
        curl().setOption(easy, CURLOPT_CONNECTTIMEOUT, limits_.connectSeconds);
        curl().setOption(easy, CURLOPT_LOW_SPEED_LIMIT, 1L);
        curl().setOption(easy, CURLOPT_LOW_SPEED_TIME, limits_.silentSeconds);
        curl().setOption(easy, CURLOPT_WRITEFUNCTION, &Exchange::write);
        curl().setOption(easy, CURLOPT_WRITEDATA, this);
        curl().setOption(easy, CURLOPT_NOPROGRESS, 0L);
        curl().setOption(easy, CURLOPT_XFERINFOFUNCTION, &Exchange::progress);
        curl().setOption(easy, CURLOPT_XFERINFODATA, this);
        if (body != nullptr) {
            curl().setOption(easy, CURLOPT_POSTFIELDSIZE_LARGE, static_cast<curl_off_t>(body->size()));
            curl().setOption(easy, CURLOPT_POSTFIELDS, body->c_str());
        }
        easy_ = easy;
    }

    static std::size_t write(const char* bytes, std::size_t size, std::size_t count, void* self) {
        auto& exchange = *static_cast<Exchange*>(self);
        long status = 0;
        curl().getInfo(exchange.easy_, CURLINFO_RESPONSE_CODE, &status);
        if (status != 200) {
            return size * count; // what goes with a refusal or a redirect is of no use
        }
        if (auto taken = (*exchange.take_)(std::string_view(bytes, size * count)); !taken) {
            exchange.failure_ = taken.error();
            return 0;
        }
        return size * count;
    }

    static int progress(void* self, curl_off_t /*toGet*/, curl_off_t /*got*/, curl_off_t /*toSend*/,
                        curl_off_t /*sent*/) {
        auto& exchange = *static_cast<Exchange*>(self);
        if (exchange.control_.proceed()) {
            return 0;
        }
        exchange.failure_ =
            Error{Cause::interrupted, {}, "Stopped while the " + exchange.service_.what + " was asked."};
        return 1;
    }

    Error unreadable(const std::string& what) const {
        return {
            Cause::unreadable, {}, "The " + service_.what + " " + displayPath(service_.address) + " " + what};
    }

    Error failed(CURLcode code) const {
        switch (code) {
        case CURLE_COULDNT_CONNECT:
        case CURLE_COULDNT_RESOLVE_HOST:
            return unreadable("cannot be reached.");
        case CURLE_OPERATION_TIMEDOUT:
            return unreadable("has stopped answering.");
        case CURLE_PARTIAL_FILE:
        case CURLE_RECV_ERROR:
        case CURLE_GOT_NOTHING:
            return unreadable("broke off in the middle.");
        default:
            return unreadable(fmt::format("could not be asked: {}.", curl().errorText(code)));
        }
    }

    const HttpService& service_;
    const HttpLimits& limits_;
    RunControl& control_;
    const std::function<Outcome(std::string_view)>* take_ = nullptr;
    CURL* easy_ = nullptr;
    std::optional<Error> failure_;
};

} // namespace

bool isAddress(std::string_view text) {
    return text.starts_with("http://") || text.starts_with("https://");
}

Outcome isServiceAddress(const HttpService& service) {
    if (!curl()) {
        return Error{
            Cause::unreadable, {}, "No " + service.what + " can be asked: libcurl is not installed."};
    }
    const auto url = urlOf(service.address);
    const auto scheme = partOf(url, CURLUPART_SCHEME);
    if (!url || (scheme != "http" && scheme != "https") || partOf(url, CURLUPART_HOST).empty()) {
        return Error{Cause::invalid,
                     {},
                     fmt::format("{} {} has an address as http://127.0.0.1:8700.",
                                 service.what.starts_with('o') ? "An" : "A", service.what)};
    }
    return partOf(url, CURLUPART_PASSWORD).empty()
               ? done()
               : Outcome(Error{
                     Cause::invalid, {}, "A password in an address would be kept as text; leave it out."});
}

std::optional<std::string> addressWithin(const HttpService& service, const std::string& relative) {
    const auto base = service.address.ends_with('/') ? service.address : service.address + "/";
    auto url = urlOf(base);
    const auto home = urlOf(base);
    if (!url || curl().urlSet(url.get(), CURLUPART_URL, relative.c_str(), 0) != CURLUE_OK ||
        !isSameHost(url, home)) {
        return std::nullopt;
    }
    char* text = nullptr;
    if (curl().urlGet(url.get(), CURLUPART_URL, &text, 0) != CURLUE_OK) {
        return std::nullopt;
    }
    const std::unique_ptr<char, decltype(&curl_free)> owned(text, curl().release);
    return std::string(text);
}

Outcome exchange(const HttpService& service, const std::string& address, const std::string* body,
                 const std::function<Outcome(std::string_view)>& take, RunControl& control) {
    return Exchange(service, control).run(address, body, take);
}

Result<std::string> answerOf(const HttpService& service, const std::string& address, const std::string* body,
                             RunControl& control) {
    std::string answer;
    const auto take = [&](std::string_view bytes) -> Outcome {
        if (answer.size() + bytes.size() > service.limits.mostAnswer) {
            return Error{Cause::damaged,
                         {},
                         "The " + service.what + " " + displayPath(service.address) +
                             " answers with more than any answer takes."};
        }
        answer += bytes;
        return done();
    };
    const auto exchanged = exchange(service, address, body, take, control);
    return exchanged ? Result(std::move(answer)) : Result<std::string>(exchanged.error());
}

Result<std::string> askService(const HttpService& service, const std::string& relative,
                               const std::string& body, RunControl& control) {
    RETURN_IF_FAILED(isServiceAddress(service));
    return answerOf(service, addressWithin(service, relative).value_or(service.address), &body, control);
}

} // namespace sober
