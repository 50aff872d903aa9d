#pragma once

#include "core/base/result.h"
#include "core/evidence/checksums.h"
#include "core/evidence/fingerprint.h"
#include "core/media/probe.h"

#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace sober {

// The form in which an offer shelf is asked and answers: JSON, ours, described in docs/method.md.

/// What is asked for; all of it is sent, and nothing else.
struct OfferQuestion {
    std::size_t number = 0; ///< by which the answer says what it is for
    std::string title;
    std::string artist;
    double seconds = 0;
};

/// A file that the shelf says it could give.
struct Offer {
    std::size_t number = 0; ///< of the question
    std::string address;    ///< as given: whole or relative to the shelf
    std::string title;
    std::string artist;
    Claims claims; ///< as promised, its length too
    std::uint64_t bytes = 0;
    Sha256 sha256{};
    Fingerprint fingerprint; ///< empty where it gives none
};

std::string textOfQuestions(std::span<const OfferQuestion> questions);

/// Reads an answer. An offer that lacks what it must say, or answers no question, is left out; Cause::damaged
/// where the text is no answer at all. Texts are cut to what a tag may hold.
Result<std::vector<Offer>> offersFrom(std::string_view text, std::size_t questions);

} // namespace sober
