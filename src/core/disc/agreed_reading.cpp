#include "core/disc/agreed_reading.h"

#include <algorithm>

namespace sober {
namespace {

constexpr int mostAtOnce = 26; // sectors: 64 KiB, which drives give at once
constexpr int chunk = 22;      // for which one call is
constexpr int margin = 2;      // sectors before and behind: a call may be displaced by so much
constexpr int careRounds = 3;
constexpr int mostRetries = 50; // so that all rounds have a bit of their own
constexpr int anchoredEnough = 2;
constexpr int looseEnough = 3;
constexpr int looseEnoughAlike = 5;

/// Whether it looks like itself in another place: silence, a plain tone.
bool repeatsItself(std::span<const std::int16_t> samples) {
    constexpr int longestPeriod = samplesPerSector / 2;
    for (int period = 1; period <= longestPeriod; ++period) {
        const auto shift = static_cast<std::ptrdiff_t>(2 * period);
        if (std::equal(samples.begin() + shift, samples.end(), samples.begin())) {
            return true;
        }
    }
    return false;
}

} // namespace

AgreedReader::AgreedReader(SectorSource& source, int begin, int end, const ReadingEffort& effort,
                           RunControl& control, OnSectors onSectors)
    : source_(source),
      begin_(begin),
      end_(end),
      effort_(effort),
      control_(control),
      onSectors_(std::move(onSectors)) {}

void AgreedReader::comesAfter(AgreedStretch before) {
    before_ = std::move(before);
}

Result<AgreedStretch> AgreedReader::read(int first, int count) {
    now_ = {first, DiscSamples(static_cast<std::size_t>(count) * sectorNumbers),
            std::vector<SectorReading>(static_cast<std::size_t>(count))};
    standings_.assign(static_cast<std::size_t>(count), {});
    calls_.clear();
    round_ = 0;
    RETURN_IF_FAILED(findBeginning());
    early_ = round_;
    const int early = early_;
    const int rounds = early + 2 + std::min(effort_.retries, mostRetries);
    for (; round_ < rounds + careRounds; ++round_) {
        // The second round over a long stretch comes to what is long gone from any cache.
        const bool wantsDistraction =
            round_ > early + 1 || (round_ > 0 && (round_ == early || count < effort_.distraction));
        const auto distracted = wantsDistraction ? distract() : done();
        const auto read = !distracted          ? distracted
                          : round_ < early + 2 ? readRound()
                                               : readAgain(round_ == early + 2, round_ >= rounds);
        RETURN_IF_FAILED(read);
        if (round_ > early) {
            consider();
            tell();
            if (openRuns().empty()) {
                break;
            }
        }
    }
    return finish();
}

/// Where nothing is known just before, the first sectors are read until three readings are one: they anchor
/// all that comes after.
Outcome AgreedReader::findBeginning() {
    const int count = std::min(chunk, static_cast<int>(now_.sectors.size()));
    for (int sector = now_.first - margin; sector < now_.first; ++sector) {
        if (const auto known = knownSector(sector); !known.empty() && !repeatsItself(known)) {
            return done();
        }
    }
    for (; round_ < looseEnough; ++round_) {
        const auto distracted = round_ > 0 ? distract() : done();
        const auto read = distracted ? callFor(now_.first, count, false) : distracted;
        if (!read) {
            return read;
        }
    }
    consider();
    return done();
}

/// All of the stretch, by calls that end at other sectors each round.
Outcome AgreedReader::readRound() {
    const int end = now_.first + static_cast<int>(now_.sectors.size());
    int first = now_.first - (round_ % 2 == 0 ? 0 : chunk / 2);
    for (; first < end; first += chunk) {
        const int from = std::max(first, now_.first);
        if (const auto called = callFor(from, std::min(first + chunk, end) - from, false); !called) {
            return called;
        }
        const double share = static_cast<double>(first + chunk - now_.first) / (end - now_.first);
        tellRound((round_ - early_ + std::clamp(share, 0.0, 1.0)) / 2);
    }
    return done();
}

/// What is open. At first of each run the beginning alone: where only an anchor was missing, that is enough.
Outcome AgreedReader::readAgain(bool onlyBeginnings, bool withCare) {
    tellRound(1);
    for (auto [from, to] : openRuns()) {
        to = onlyBeginnings ? std::min(to, from + chunk) : to;
        if (withCare && isNeverRead(from, to)) {
            continue;
        }
        const int length = chunk - round_ * 5 % (chunk / 2);
        for (int first = from; first < to;) {
            // An anchor that is farther away is worth a call for fewer.
            const int begins = beginsAtAnchor(first);
            const int past =
                std::min({first == from ? first + length : first + chunk, to, begins + mostAtOnce - margin});
            if (const auto called = callFor(begins, past - begins, withCare); !called) {
                return called;
            }
            first = past;
        }
    }
    return done();
}

bool AgreedReader::isNeverRead(int from, int to) const {
    for (int sector = from; sector < to; ++sector) {
        if (!standings_[static_cast<std::size_t>(sector - now_.first)].candidates.empty()) {
            return false;
        }
    }
    return true;
}

/// Where a call for a sector is to begin, the margin aside, so that it has something known to be anchored by.
int AgreedReader::beginsAtAnchor(int first) const {
    const int farthest = std::max(begin_, first - (mostAtOnce - 2 * margin - 2));
    for (int sector = first - 1; sector >= farthest; --sector) {
        if (const auto known = knownSector(sector); !known.empty() && !repeatsItself(known)) {
            return std::min(first, sector + margin);
        }
    }
    return first;
}

Outcome AgreedReader::distract() {
    const int here = now_.first;
    const int count = std::min(effort_.distraction, end_ - begin_);
    const int from = here - begin_ > (end_ - begin_) / 2 ? begin_ : end_ - count;
    for (int first = from; first < from + count; first += chunk) {
        if (!control_.proceed()) {
            return Error{Cause::interrupted, {}, "Stopped while the disc was read."};
        }
        const auto read = source_.read(first, std::min(chunk, from + count - first));
        if (!read && read.error().cause != Cause::unreadable) {
            return read.error();
        }
    }
    return done();
}

Outcome AgreedReader::callFor(int first, int count, bool withCare) {
    const int from = std::max(begin_, first - margin);
    const int to = std::min(end_, first + count + margin);
    return callWithin(from, to - from, withCare);
}

/// What cannot be read as a whole is read in halves, down to the sector that fails.
Outcome AgreedReader::callWithin(int first, int count, bool withCare) {
    if (!control_.proceed()) {
        return Error{Cause::interrupted, {}, "Stopped while the disc was read."};
    }
    auto read = withCare ? source_.readWithCare(first, count) : source_.read(first, count);
    if (read) {
        calls_.push_back({first, std::move(*read), round_});
        return done();
    }
    if (read.error().cause != Cause::unreadable) {
        return read.error();
    }
    if (count == 1 || withCare) {
        if (isOpen(first)) {
            ++standings_[static_cast<std::size_t>(first - now_.first)].differing;
        }
        return done();
    }
    const auto one = callWithin(first, count / 2, withCare);
    return one ? callWithin(first + count / 2, count - count / 2, withCare) : one;
}

bool AgreedReader::isOpen(int sector) const {
    const int at = sector - now_.first;
    return at >= 0 && at < static_cast<int>(now_.sectors.size()) &&
           !now_.sectors[static_cast<std::size_t>(at)].isKnown();
}

std::span<const std::int16_t> AgreedReader::knownSector(int sector) const {
    for (const auto* stretch : {&now_, &before_}) {
        const int at = sector - stretch->first;
        if (at >= 0 && at < static_cast<int>(stretch->sectors.size())) {
            return stretch->sectors[static_cast<std::size_t>(at)].isKnown()
                       ? std::span(stretch->samples)
                             .subspan(static_cast<std::size_t>(at) * sectorNumbers, sectorNumbers)
                       : std::span<const std::int16_t>();
        }
    }
    return {};
}

/// By how many samples a known sector stands beside its place in a call; first the likeliest is tried.
std::optional<int> AgreedReader::displacementAt(const Call& call, int sector, int likeliest) const {
    constexpr int farthest = margin * samplesPerSector;
    const auto known = knownSector(sector);
    const int frames = call.sectors() * samplesPerSector;
    const int at = (sector - call.first) * samplesPerSector;
    const auto isThere = [&](int by) {
        const int place = at + by;
        return place >= 0 && place + samplesPerSector <= frames &&
               std::equal(known.begin(), known.end(), call.samples.begin() + std::ptrdiff_t{2} * place);
    };
    if (isThere(likeliest)) {
        return likeliest;
    }
    for (int by = 0; by <= farthest; ++by) {
        for (const int each : {by, -by}) {
            if (isThere(each)) {
                return each;
            }
        }
    }
    return std::nullopt;
}

/// All that is known within a call has to be displaced alike: the beginning of a call may come from a cache,
/// and the rest from elsewhere.
AgreedReader::Anchoring AgreedReader::anchoringOf(const Call& call) const {
    Anchoring anchoring;
    for (int sector = call.first; sector < call.first + call.sectors(); ++sector) {
        const auto known = knownSector(sector);
        if (known.empty() || repeatsItself(known)) {
            continue;
        }
        const auto found = displacementAt(call, sector, anchoring.by);
        anchoring.isMixed = anchoring.isMixed || (found && anchoring.isAnchored && *found != anchoring.by);
        anchoring.isAnchored = anchoring.isAnchored || found.has_value();
        anchoring.by = found.value_or(anchoring.by);
    }
    return anchoring;
}

/// Three readings that nothing anchors are not displaced alike by chance. Of what looks like itself elsewhere
/// (silence, and silence before a sound that came late) they may be: there it takes more, and none other that
/// comes near.
bool AgreedReader::isEnough(const Standing& standing, const Candidate& candidate) {
    const bool isDisputed = standing.candidates.size() > 1;
    if (candidate.anchored >= (isDisputed ? looseEnough : anchoredEnough)) {
        return true;
    }
    const int votes = candidate.anchored + candidate.loose;
    if (!repeatsItself(candidate.samples)) {
        return votes >= looseEnough;
    }
    int others = 0;
    for (const auto& each : standing.candidates) {
        others = std::max(others, &each == &candidate ? 0 : each.anchored + each.loose);
    }
    return votes >= looseEnoughAlike && votes >= 3 * others;
}

/// True where something became known by it.
bool AgreedReader::castVotes(const Call& call) {
    const int end = call.first + call.sectors();
    bool isNeeded = false;
    for (int sector = call.first; sector < end; ++sector) {
        isNeeded = isNeeded || isOpen(sector);
    }
    if (!isNeeded) {
        return false;
    }
    const auto anchoring = anchoringOf(call);
    if (anchoring.isMixed) {
        return false;
    }
    const int frames = call.sectors() * samplesPerSector;
    bool isProgress = false;
    for (int sector = call.first; sector < end; ++sector) {
        const int place = (sector - call.first) * samplesPerSector + anchoring.by;
        if (!isOpen(sector) || place < 0 || place + samplesPerSector > frames) {
            continue;
        }
        const auto samples =
            std::span(call.samples).subspan(std::size_t{2} * static_cast<std::size_t>(place), sectorNumbers);
        auto& standing = standings_[static_cast<std::size_t>(sector - now_.first)];
        ++standing.readings;
        auto candidate = std::ranges::find_if(standing.candidates, [&](const Candidate& each) {
            return std::ranges::equal(each.samples, samples);
        });
        if (candidate == standing.candidates.end()) {
            candidate = standing.candidates.insert(candidate, {{samples.begin(), samples.end()}, 0, 0, 0});
        }
        const auto bit = std::uint64_t{1} << call.round;
        if ((candidate->rounds & bit) != 0) {
            continue;
        }
        candidate->rounds |= bit;
        (anchoring.isAnchored ? candidate->anchored : candidate->loose) += 1;
        if (isEnough(standing, *candidate)) {
            accept(sector, *candidate);
            isProgress = true;
        }
    }
    return isProgress;
}

/// Counts all readings of what is open anew, as often as that yields something: what becomes known anchors
/// what lies beside it.
void AgreedReader::consider() {
    std::ranges::stable_sort(calls_, {}, &Call::first);
    for (bool isProgress = true; isProgress;) {
        isProgress = false;
        for (std::size_t i = 0; i < standings_.size(); ++i) {
            if (!now_.sectors[i].isKnown()) {
                standings_[i].candidates.clear();
                standings_[i].readings = 0;
            }
        }
        for (const auto& call : calls_) {
            isProgress = castVotes(call) || isProgress;
        }
    }
    for (std::size_t i = 0; i < standings_.size(); ++i) {
        if (!now_.sectors[i].isKnown()) {
            const int readings = standings_[i].readings + standings_[i].differing;
            now_.sectors[i].readings = static_cast<std::uint8_t>(std::min(readings, 255));
        }
    }
    std::erase_if(calls_, [this](const Call& call) {
        for (int sector = call.first; sector < call.first + call.sectors(); ++sector) {
            if (isOpen(sector)) {
                return false;
            }
        }
        return true;
    });
}

void AgreedReader::accept(int sector, const Candidate& candidate) {
    const auto at = static_cast<std::size_t>(sector - now_.first);
    const auto& standing = standings_[at];
    std::ranges::copy(candidate.samples,
                      now_.samples.begin() + static_cast<std::ptrdiff_t>(at * sectorNumbers));
    const bool isLate = standing.differing > 0 || standing.candidates.size() > 1;
    now_.sectors[at] = {isLate ? SectorState::agreedLate : SectorState::agreed,
                        static_cast<std::uint8_t>(std::min(standing.readings + standing.differing, 255))};
}

std::vector<std::pair<int, int>> AgreedReader::openRuns() const {
    std::vector<std::pair<int, int>> runs;
    const int end = now_.first + static_cast<int>(now_.sectors.size());
    for (int sector = now_.first; sector < end; ++sector) {
        if (!isOpen(sector)) {
            continue;
        }
        if (runs.empty() || runs.back().second != sector) {
            runs.emplace_back(sector, sector);
        }
        runs.back().second = sector + 1;
    }
    return runs;
}

void AgreedReader::tellRound(double share) const {
    if (onRound_) {
        onRound_(static_cast<int>(share * static_cast<double>(now_.sectors.size())), round_ - early_ + 1);
    }
}

void AgreedReader::tell() const {
    if (onSectors_) {
        onSectors_(now_.first, now_.sectors);
    }
}

/// What is still open gets its likeliest samples, and says so.
AgreedStretch AgreedReader::finish() {
    for (std::size_t i = 0; i < standings_.size(); ++i) {
        if (now_.sectors[i].isKnown()) {
            continue;
        }
        const auto& standing = standings_[i];
        const auto likeliest =
            std::ranges::max_element(standing.candidates, {}, [](const Candidate& candidate) {
                return std::pair(candidate.anchored, candidate.loose);
            });
        const bool isRead = likeliest != standing.candidates.end();
        if (isRead) {
            std::ranges::copy(likeliest->samples,
                              now_.samples.begin() + static_cast<std::ptrdiff_t>(i * sectorNumbers));
        }
        now_.sectors[i] = {isRead ? SectorState::doubtful : SectorState::unread,
                           static_cast<std::uint8_t>(std::min(standing.readings + standing.differing, 255))};
    }
    tell();
    before_ = now_;
    calls_.clear();
    return now_;
}

} // namespace sober
