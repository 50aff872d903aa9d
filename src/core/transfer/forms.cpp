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

} // namespace sober
