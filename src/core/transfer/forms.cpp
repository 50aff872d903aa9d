#include "core/transfer/forms.h"

namespace sober {

Result<FormRule> formRuleFrom(std::string_view text) {
    const auto at = text.find('=');
    if (at == std::string_view::npos || at == 0) {
        return Error{Cause::invalid,
                     {},
                     "A form is asked for as SOURCE=TARGET:QUALITY, as lossless=mp3:V0; SOURCE is lossless, "
                     "lossy, all or a "
                     "codec."};
    }
    const auto form = encodingFormFrom(text.substr(at + 1));
    return form ? Result(FormRule{std::string(text.substr(0, at)), std::string(text.substr(at + 1)), *form})
                : Result<FormRule>(form.error());
}

const FormRule* ruleFor(std::span<const FormRule> rules, const Holding& holding) {
    const auto& claims = holding.claims;
    for (const auto& rule : rules) {
        const bool isMeant = rule.source == "all" || rule.source == claims.codec ||
                             rule.source == (claims.lossless ? "lossless" : "lossy");
        const bool isPossible = holding.problem.empty() && (claims.lossless || !rule.form.isLossless());
        if (isMeant && isPossible) {
            return &rule;
        }
    }
    return nullptr;
}

std::uint64_t bytesBy(const FormRule* rule, const Holding& holding) {
    const auto& claims = holding.claims;
    return rule == nullptr ? holding.size
                           : estimatedBytes(rule->form, claims.duration, claims.sampleRate, claims.channels,
                                            claims.bitDepth);
}

std::vector<std::pair<std::string, std::uint64_t>>
costsOf(std::span<const Holding> holdings, const std::function<std::uint64_t(std::uint64_t)>& roomFor) {
    std::vector<std::pair<std::string, std::uint64_t>> costs{{{}, 0}};
    for (const auto& holding : holdings) {
        costs.front().second += roomFor(holding.size);
    }
    for (const auto words : offeredForms) {
        std::uint64_t needs = 0;
        if (const auto rule = formRuleFrom(words)) {
            for (const auto& holding : holdings) {
                needs += roomFor(bytesBy(ruleFor(std::span(&*rule, 1), holding), holding));
            }
        }
        costs.emplace_back(words, needs);
    }
    return costs;
}

double losslessTimesLossy(std::span<const Holding> holdings) {
    constexpr std::int64_t goodLossy = 192'000; // bit/s
    struct Rate {
        double bytes = 0;
        double seconds = 0;
    };
    Rate lossless;
    Rate lossy;
    for (const auto& holding : holdings) {
        const auto& claims = holding.claims;
        if (claims.lossless || claims.bitrate >= goodLossy) {
            auto& rate = claims.lossless ? lossless : lossy;
            rate.bytes += static_cast<double>(holding.size);
            rate.seconds += claims.duration;
        }
    }
    const bool areBoth = lossless.seconds > 0 && lossy.seconds > 0 && lossy.bytes > 0;
    return areBoth ? lossless.bytes / lossless.seconds / (lossy.bytes / lossy.seconds) : 0;
}

} // namespace sober
