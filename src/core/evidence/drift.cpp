#include "core/evidence/drift.h"

#include "core/evidence/evidence.h"
#include "core/evidence/fingerprint.h"
#include "core/evidence/landmarks.h"

#include <algorithm>
#include <array>
#include <bit>
#include <cmath>
#include <numeric>

namespace sober {
namespace {

constexpr double sameLength = 0.15; // seconds: what a container rounds
/// Share of what both usually differ by at other offsets. Noise was measured at 0.7 in other noise.
constexpr double standingOut = 0.6;
constexpr std::size_t stretch = 8; // words: a second
constexpr int stretchErrors = 2;   // bits in a stretch: what is untouched sounds as it did
/// What Chromaprint makes of digital silence: two that fall silent have nothing in common by that.
constexpr std::uint32_t silentWord = 627'964'279;

/// What is left is the beginning of what was: by its whole blocks or, in less than one, by an end that came
/// too early.
bool isCutShort(const FixityFacts& before, const FixityFacts& now) {
    if (now.size >= before.size) {
        return false;
    }
    const auto whole = static_cast<std::ptrdiff_t>(now.size / checksumBlock);
    if (whole > 0 && std::ssize(before.blocks) >= whole && std::ssize(now.blocks) >= whole) {
        return std::equal(now.blocks.begin(), now.blocks.begin() + whole, before.blocks.begin());
    }
    const double was = before.seconds > 0 ? before.seconds : before.claims.duration;
    const double is = now.seconds > 0 ? now.seconds : now.claims.duration;
    return before.tags == now.tags && before.claims.codec == now.claims.codec &&
           (now.endsEarly || is < was - sameLength);
}

bool sameSound(const FixityFacts& before, const FixityFacts& now) {
    return (before.payload && now.payload && before.payload == now.payload) ||
           (before.samples && now.samples && before.samples == now.samples);
}

/// Whether a second of both is the same where they lie so on each other: what is only damaged in part, or a
/// steady tone.
bool shareAStretch(const Fingerprint& before, const Fingerprint& now, int offset) {
    // A tone without any change in it makes that word too: then it counts.
    const bool isPlain = std::ranges::count(before, silentWord) * 2 > std::ssize(before);
    std::size_t run = 0;
    std::array<int, stretch> errors{};
    for (auto at = static_cast<std::size_t>(std::max(0, offset)); at < before.size(); ++at) {
        const auto beside = static_cast<std::size_t>(static_cast<std::ptrdiff_t>(at) - offset);
        if (beside >= now.size()) {
            break;
        }
        const bool silent = !isPlain && before[at] == silentWord && now[beside] == silentWord;
        run = silent ? 0 : run + 1;
        errors[at % stretch] = std::popcount(before[at] ^ now[beside]);
        if (run >= stretch && std::accumulate(errors.begin(), errors.end(), 0) <= stretchErrors) {
            return true;
        }
    }
    return false;
}

/// What is measured of both tells whether it is one recording; nothing where it cannot tell. They are held
/// against each other at every offset: what was altered throughout is heard in the other as a passage would
/// be.
std::optional<bool> isAnotherBySound(const FixityFacts& before, const FixityFacts& now) {
    if (before.fingerprint.empty() || now.fingerprint.empty()) {
        return std::nullopt;
    }
    const auto longest = static_cast<int>(std::max(before.fingerprint.size(), now.fingerprint.size()));
    const auto match = matchFingerprints(before.fingerprint, now.fingerprint, longest);
    const bool standsOut = match.bitErrors < standingOut * match.usual;
    const bool heard = isTelling(before.fingerprint) && match.bitErrors < heardBitErrors && standsOut;
    // Mostly it was altered where it stood.
    return !heard && !shareAStretch(before.fingerprint, now.fingerprint, 0) &&
           !shareAStretch(before.fingerprint, now.fingerprint, match.offset);
}

bool isAnotherByClaims(const FixityFacts& before, const FixityFacts& now) {
    const bool sameName = before.tags == now.tags && !before.tags.title.empty();
    const bool otherLength = std::abs(before.claims.duration - now.claims.duration) > 1;
    return !sameName && (otherLength || before.claims.codec != now.claims.codec ||
                         before.claims.sampleRate != now.claims.sampleRate);
}

bool sameClaims(const Claims& before, const Claims& now) {
    return before.codec == now.codec && before.sampleRate == now.sampleRate &&
           before.channels == now.channels && before.bitDepth == now.bitDepth &&
           std::abs(before.duration - now.duration) < sameLength;
}

/// Without measured facts: the tags differ, or room was made for them before or after audio of one length.
bool looksLikeTags(const FixityFacts& before, const FixityFacts& now) {
    return sameClaims(before.claims, now.claims) && (before.tags != now.tags || before.size != now.size);
}

} // namespace

std::string_view driftWord(DriftKind kind) {
    switch (kind) {
    case DriftKind::tagsEdited:
        return "tags-edited";
    case DriftKind::audioAltered:
        return "audio-altered";
    case DriftKind::silentChange:
        return "silent-change";
    case DriftKind::truncated:
        return "truncated";
    case DriftKind::replaced:
        return "replaced";
    case DriftKind::missing:
        break;
    }
    return "missing";
}

FixityFacts factsOf(const FileRecord& record) {
    FixityFacts facts{record.stamp.size,
                      record.stamp.mtime,
                      record.checksums.file,
                      record.checksums.blocks,
                      record.claims,
                      record.tags,
                      {},
                      {},
                      {},
                      0,
                      !record.problem.empty()};
    if (record.evidence) {
        facts.payload = record.evidence->payload;
        facts.samples = record.evidence->samplesMd5;
        facts.fingerprint = record.evidence->fingerprint;
        facts.seconds = record.evidence->seconds;
        facts.endsEarly = std::ranges::any_of(record.evidence->problems, [](const DecodeProblem& problem) {
            return problem.kind == "truncated" || problem.kind == "length-mismatch";
        });
    }
    return facts;
}

std::vector<std::pair<std::uint64_t, std::uint64_t>> differingBlocks(std::span<const Checksum128> before,
                                                                     std::span<const Checksum128> now) {
    std::vector<std::pair<std::uint64_t, std::uint64_t>> runs;
    if (before.empty()) {
        return runs; // nothing is known of what it was
    }
    for (std::size_t at = 0; at < std::max(before.size(), now.size()); ++at) {
        if (at < before.size() && at < now.size() && before[at] == now[at]) {
            continue;
        }
        if (!runs.empty() && runs.back().second + 1 == at) {
            runs.back().second = at;
        } else {
            runs.emplace_back(at, at);
        }
    }
    return runs;
}

DriftKind driftKindOf(const FixityFacts& before, const FixityFacts& now) {
    if (before.size == now.size && before.mtime == now.mtime) {
        return DriftKind::silentChange;
    }
    if (sameSound(before, now)) {
        return DriftKind::tagsEdited;
    }
    if (isCutShort(before, now) || (now.size == 0 && before.size > 0)) {
        return DriftKind::truncated;
    }
    if (now.claims.codec.empty()) {
        return DriftKind::audioAltered; // its beginning is destroyed: nothing tells of another recording
    }
    const auto another = isAnotherBySound(before, now);
    if (another.value_or(isAnotherByClaims(before, now))) {
        return DriftKind::replaced;
    }
    const bool measured = (before.payload && now.payload) || (before.samples && now.samples);
    return !measured && looksLikeTags(before, now) ? DriftKind::tagsEdited : DriftKind::audioAltered;
}

} // namespace sober
