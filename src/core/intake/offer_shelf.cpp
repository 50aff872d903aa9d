#include "core/intake/offer_shelf.h"

#include "core/base/text.h"

#include <curl/curl.h>
#include <fmt/format.h>

#include <algorithm>
#include <memory>

namespace sober {
namespace {

constexpr std::size_t askedTogether = 100;

struct EasyCleanup {
    void operator()(CURL* handle) const { curl_easy_cleanup(handle); }
};
using Easy = std::unique_ptr<CURL, EasyCleanup>;

struct UrlCleanup {
    void operator()(CURLU* handle) const { curl_url_cleanup(handle); }
};
using Url = std::unique_ptr<CURLU, UrlCleanup>;

Url urlOf(const std::string& text) {
    Url url(curl_url());
    return url && curl_url_set(url.get(), CURLUPART_URL, text.c_str(), 0) == CURLUE_OK ? std::move(url)
                                                                                       : Url();
}

std::string partOf(const Url& url, CURLUPart part) {
    char* text = nullptr;
    if (!url || curl_url_get(url.get(), part, &text, CURLU_DEFAULT_PORT) != CURLUE_OK) {
        return {};
    }
    const std::unique_ptr<char, decltype(&curl_free)> owned(text, curl_free);
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
    Exchange(std::string shelf, const ShelfLimits& limits, RunControl& control)
        : shelf_(std::move(shelf)), limits_(limits), control_(control) {}

    /// Follows redirects on its own host. `take` gets the body alone.
    Outcome run(const std::string& address, const std::string* body,
                const std::function<Outcome(std::string_view)>& take) {
        take_ = &take;
        auto url = urlOf(address);
        const auto home = urlOf(shelf_);
        for (int hops = 0; url; ++hops) {
            if (!isSameHost(home, url)) {
                return unreadable("leads to another host, which is not asked.");
            }
            if (hops > limits_.mostRedirects) {
                return unreadable("leads in a circle.");
            }
            Easy easy(curl_easy_init());
            if (!easy) {
                return unreadable("cannot be asked: there is no memory for it.");
            }
            prepare(easy.get(), url, body);
            const auto code = curl_easy_perform(easy.get());
            if (failure_) {
                return *failure_;
            }
            if (code != CURLE_OK) {
                return failed(code);
            }
            long status = 0;
            curl_easy_getinfo(easy.get(), CURLINFO_RESPONSE_CODE, &status);
            if (status / 100 == 3) {
                const char* next = nullptr;
                curl_easy_getinfo(easy.get(), CURLINFO_REDIRECT_URL, &next);
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
        curl_easy_setopt(easy, CURLOPT_CURLU, url.get());
        curl_easy_setopt(easy, CURLOPT_PROTOCOLS_STR, "http,https");
        curl_easy_setopt(easy, CURLOPT_FOLLOWLOCATION, 0L);
        curl_easy_setopt(easy, CURLOPT_NOSIGNAL, 1L);
        curl_easy_setopt(easy, CURLOPT_NOPROXY, "localhost,127.0.0.1,::1");
        curl_easy_setopt(easy, CURLOPT_USERAGENT, "sober-archivist");
        curl_easy_setopt(easy, CURLOPT_CONNECTTIMEOUT, limits_.connectSeconds);
        curl_easy_setopt(easy, CURLOPT_LOW_SPEED_LIMIT, 1L);
        curl_easy_setopt(easy, CURLOPT_LOW_SPEED_TIME, limits_.silentSeconds);
        curl_easy_setopt(easy, CURLOPT_WRITEFUNCTION, &Exchange::write);
        curl_easy_setopt(easy, CURLOPT_WRITEDATA, this);
        curl_easy_setopt(easy, CURLOPT_NOPROGRESS, 0L);
        curl_easy_setopt(easy, CURLOPT_XFERINFOFUNCTION, &Exchange::progress);
        curl_easy_setopt(easy, CURLOPT_XFERINFODATA, this);
        if (body != nullptr) {
            curl_easy_setopt(easy, CURLOPT_POSTFIELDSIZE_LARGE, static_cast<curl_off_t>(body->size()));
            curl_easy_setopt(easy, CURLOPT_POSTFIELDS, body->c_str());
        }
        easy_ = easy;
    }

    static std::size_t write(const char* bytes, std::size_t size, std::size_t count, void* self) {
        auto& exchange = *static_cast<Exchange*>(self);
        long status = 0;
        curl_easy_getinfo(exchange.easy_, CURLINFO_RESPONSE_CODE, &status);
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
        exchange.failure_ = Error{Cause::interrupted, {}, "Stopped while the offer shelf was asked."};
        return 1;
    }

    Error unreadable(const std::string& what) const {
        return {Cause::unreadable, {}, "The offer shelf " + displayPath(shelf_) + " " + what};
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
            return unreadable(fmt::format("could not be asked: {}.", curl_easy_strerror(code)));
        }
    }

    std::string shelf_;
    const ShelfLimits& limits_;
    RunControl& control_;
    const std::function<Outcome(std::string_view)>* take_ = nullptr;
    CURL* easy_ = nullptr;
    std::optional<Error> failure_;
};

} // namespace

Outcome isShelfAddress(const std::string& address) {
    const auto url = urlOf(address);
    const auto scheme = partOf(url, CURLUPART_SCHEME);
    if (!url || (scheme != "http" && scheme != "https") || partOf(url, CURLUPART_HOST).empty()) {
        return Error{Cause::invalid, {}, "An offer shelf has an address as http://127.0.0.1:8700."};
    }
    return partOf(url, CURLUPART_PASSWORD).empty()
               ? done()
               : Outcome(Error{
                     Cause::invalid, {}, "A password in an address would be kept as text; leave it out."});
}

std::optional<std::string> OfferShelf::addressOf(const Offer& offer) const {
    const auto base = address_.ends_with('/') ? address_ : address_ + "/";
    auto url = urlOf(base);
    const auto home = urlOf(base);
    if (!url || curl_url_set(url.get(), CURLUPART_URL, offer.address.c_str(), 0) != CURLUE_OK ||
        !isSameHost(url, home)) {
        return std::nullopt;
    }
    char* text = nullptr;
    if (curl_url_get(url.get(), CURLUPART_URL, &text, 0) != CURLUE_OK) {
        return std::nullopt;
    }
    const std::unique_ptr<char, decltype(&curl_free)> owned(text, curl_free);
    return std::string(text);
}

Result<std::vector<Offer>> OfferShelf::ask(std::span<const OfferQuestion> questions,
                                           RunControl& control) const {
    std::vector<Offer> offers;
    const auto address = (address_.ends_with('/') ? address_ : address_ + "/") + "offers";
    for (std::size_t at = 0; at < questions.size(); at += askedTogether) {
        std::vector<OfferQuestion> asked(
            questions.begin() + static_cast<std::ptrdiff_t>(at),
            questions.begin() + static_cast<std::ptrdiff_t>(std::min(at + askedTogether, questions.size())));
        for (std::size_t i = 0; i < asked.size(); ++i) {
            asked[i].number = i;
        }
        const auto body = textOfQuestions(asked);
        std::string answer;
        const auto take = [&](std::string_view bytes) -> Outcome {
            if (answer.size() + bytes.size() > limits_.mostAnswer) {
                return Error{Cause::damaged,
                             {},
                             "The offer shelf " + displayPath(address_) +
                                 " answers with more than any list of offers."};
            }
            answer += bytes;
            return done();
        };
        const auto exchanged = Exchange(address_, limits_, control).run(address, &body, take);
        auto read =
            exchanged ? offersFrom(answer, asked.size()) : Result<std::vector<Offer>>(exchanged.error());
        if (!read) {
            return read.error();
        }
        for (auto& offer : *read) {
            offer.number = questions[at + offer.number].number;
            offers.push_back(std::move(offer));
        }
    }
    return offers;
}

Outcome OfferShelf::fetch(const Offer& offer, const std::function<Outcome(std::string_view)>& take,
                          RunControl& control) const {
    const auto address = addressOf(offer);
    if (!address) {
        return Error{
            Cause::refused, {}, "What is offered lies on another host than the shelf; that is not asked."};
    }
    if (offer.bytes > limits_.mostFile) {
        return Error{
            Cause::refused,
            {},
            fmt::format("What is offered would be {}; that is no recording.", humanBytes(offer.bytes))};
    }
    std::uint64_t got = 0;
    const auto counted = [&](std::string_view bytes) -> Outcome {
        got += bytes.size();
        return got > offer.bytes
                   ? Outcome(Error{Cause::damaged, {}, "The offer shelf sends more than it promised."})
                   : take(bytes);
    };
    const auto exchanged = Exchange(address_, limits_, control).run(*address, nullptr, counted);
    return exchanged && got < offer.bytes
               ? Outcome(Error{Cause::damaged,
                               {},
                               fmt::format("The offer shelf sent {} of the {} that it promised.",
                                           humanBytes(got), humanBytes(offer.bytes))})
               : exchanged;
}

} // namespace sober
