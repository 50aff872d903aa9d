#include "core/intake/offer_shelf.h"

#include "core/base/text.h"

#include <fmt/format.h>

#include <algorithm>

namespace sober {
namespace {

constexpr std::size_t askedTogether = 100;
constexpr std::uint64_t mostFile = 4'000'000'000; // bytes; no source

} // namespace

std::optional<std::string> OfferShelf::addressOf(const Offer& offer) const {
    return addressWithin(service_, offer.address);
}

Result<std::vector<Offer>> OfferShelf::ask(std::span<const OfferQuestion> questions,
                                           RunControl& control) const {
    std::vector<Offer> offers;
    const auto address =
        (service_.address.ends_with('/') ? service_.address : service_.address + "/") + "offers";
    for (std::size_t at = 0; at < questions.size(); at += askedTogether) {
        std::vector<OfferQuestion> asked(
            questions.begin() + static_cast<std::ptrdiff_t>(at),
            questions.begin() + static_cast<std::ptrdiff_t>(std::min(at + askedTogether, questions.size())));
        for (std::size_t i = 0; i < asked.size(); ++i) {
            asked[i].number = i;
        }
        const auto body = textOfQuestions(asked);
        const auto answer = answerOf(service_, address, &body, control);
        auto read = answer ? offersFrom(*answer, asked.size()) : Result<std::vector<Offer>>(answer.error());
        RETURN_IF_FAILED(read);
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
    if (offer.bytes > mostFile) {
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
    const auto exchanged = exchange(service_, *address, nullptr, counted, control);
    return exchanged && got < offer.bytes
               ? Outcome(Error{Cause::damaged,
                               {},
                               fmt::format("The offer shelf sent {} of the {} that it promised.",
                                           humanBytes(got), humanBytes(offer.bytes))})
               : exchanged;
}

} // namespace sober
