#include "core/work/read_disc.h"

#include "core/base/http_exchange.h"
#include "core/base/presence.h"
#include "core/base/room.h"
#include "core/base/text.h"
#include "core/base/times.h"
#include "core/work/become_volume.h"
#include "core/work/carry_out.h"
#include "core/work/disc_reading.h"

#include <fmt/format.h>

#include <algorithm>
#include <set>

namespace sober {
namespace {

/// Longer than any drive's cache, so that the second reading of a stretch comes from the disc.
constexpr int stretchSectors = 2'400;

} // namespace

Result<DiscRead> DiscReading::run() {
    for (const auto step :
         {&DiscReading::open, &DiscReading::choose, &DiscReading::checkRoom, &DiscReading::askRegister,
          &DiscReading::readAll, &DiscReading::await, &DiscReading::plan}) {
        RETURN_IF_FAILED((this->*step)());
    }
    return std::move(result_);
}

Outcome DiscReading::open() {
    auto forms = ripFormsFrom(request_.forms);
    RETURN_IF_FAILED(forms);
    forms_ = std::move(*forms);
    auto tray = Tray::open(request_.disc, control_, request_.silentSeconds);
    RETURN_IF_FAILED(tray);
    tray_.emplace(std::move(*tray));
    auto look = lookAtDisc(&catalogue_, *tray_, request_.names ? std::string() : request_.lookup, control_);
    RETURN_IF_FAILED(look);
    if (request_.answer > 0 && static_cast<std::size_t>(request_.answer) > look->names.size()) {
        return Error{
            Cause::invalid, request_.disc,
            fmt::format("There is no answer {}: there are {}.", request_.answer, look->names.size())};
    }
    areNamesSure_ = request_.names || request_.answer > 0;
    look_ = std::move(*look);
    disc().contents = look_.contents;
    disc().id = look_.id;
    disc().offset = request_.offset;
    disc().when = timeNow();
    disc().names = request_.names ? *request_.names
                   : look_.names.empty()
                       ? namesOnDisc(look_.contents)
                       : look_.names[static_cast<std::size_t>(std::max(request_.answer, 1) - 1)];
    auto spool = DiscSpool::open(discsFolder(catalogue_.path()), look_.contents);
    RETURN_IF_FAILED(spool);
    spool_.emplace(std::move(*spool));
    return done();
}

bool DiscReading::isWanted(int number) const {
    return request_.tracks.empty() || std::ranges::find(request_.tracks, number) != request_.tracks.end();
}

Outcome DiscReading::choose() {
    const auto& contents = disc().contents;
    if (contents.hiddenSectors() > 0 && isWanted(0)) {
        chosen_.push_back({0, 0, contents.hiddenSectors()});
    }
    for (const auto& track : contents.tracks) {
        if (track.isAudio && isWanted(track.number)) {
            chosen_.push_back({track.number, track.firstSector, track.sectors});
        }
    }
    for (const int number : request_.tracks) {
        if (std::ranges::find(chosen_, number, &Chosen::number) == chosen_.end()) {
            return Error{Cause::invalid, request_.disc,
                         fmt::format("{} has no audio track {}.", displayPath(request_.disc), number)};
        }
    }
    return done();
}

Outcome DiscReading::checkRoom() {
    const auto target = placeOnVolume(catalogue_, request_.to, control_);
    RETURN_IF_FAILED(target);
    std::uint64_t needed = 0;
    for (const auto& track : chosen_) {
        for (const auto& form : forms_) {
            needed += estimatedBytes(form.form, static_cast<double>(track.sectors) / sectorsPerSecond,
                                     discSampleRate, 2, 16);
        }
    }
    return target->free != unknownRoom && target->free < needed
               ? Outcome(Error{Cause::full, request_.to,
                               fmt::format("{} has room for {}, and about {} are needed.",
                                           displayPath(request_.to), humanBytes(target->free),
                                           humanBytes(needed))})
               : done();
}

Outcome DiscReading::askRegister() {
    disc().registerAddress = request_.registerAddress;
    if (request_.registerAddress.empty()) {
        return done();
    }
    const HttpService service{"rip register", request_.registerAddress, {}};
    const auto answer = askService(service, "discs", discQuestion(disc().contents), control_);
    auto pressings = answer ? registerFrom(*answer) : Result<std::vector<RegisteredDisc>>(answer.error());
    if (!pressings) {
        disc().problem = pressings.error().sentence;
        return pressings.error().cause == Cause::interrupted ? Outcome(pressings.error()) : done();
    }
    const auto heard = std::ranges::count_if(chosen_, [](const Chosen& track) { return track.number > 0; });
    check_.emplace(std::move(*pressings), static_cast<int>(heard), request_.offset);
    return done();
}

bool DiscReading::concerns(const Chosen& track, int first, int count) const {
    constexpr int around = farthestOffset / samplesPerSector;
    return first < track.first + track.sectors + around && first + count > track.first - around;
}

std::vector<std::pair<int, int>> DiscReading::stretches() const {
    std::vector<std::pair<int, int>> needed;
    for (int first = begin(); first < end(); first += stretchSectors) {
        const int count = std::min(stretchSectors, end() - first);
        if (std::ranges::any_of(chosen_, [&](const Chosen& each) { return concerns(each, first, count); })) {
            needed.emplace_back(first, count);
        }
    }
    return needed;
}

Outcome DiscReading::readAll() {
    stretches_ = stretches();
    crew_.emplace(*spool_, control_);
    AgreedReader reader(*tray_, begin(), end(), request_.effort, control_,
                        [this](int first, std::span<const SectorReading> sectors) { tell(first, sectors); });
    reader.onRound([this](int sectors, int round) {
        progress_.bytes = readBefore_ + static_cast<std::uint64_t>(sectors) * discSectorBytes;
        progress_.at = round > 2 ? fmt::format("{}, read again for the {}. time", at_, round) : at_;
        report();
    });
    progress_.totalBytes = 0;
    for (const auto& [first, count] : stretches_) {
        progress_.totalBytes += static_cast<std::uint64_t>(count) * discSectorBytes;
    }
    int readBefore = -1;
    for (const auto& [first, count] : stretches_) {
        at_ = atWords(first);
        progress_.at = at_;
        readBefore_ = progress_.bytes;
        if (!isKnown(first)) {
            const int before = first - stretchSectors;
            if (readBefore != before && spool_->has(before)) {
                auto known = spool_->stretch(before);
                RETURN_IF_FAILED(known);
                reader.comesAfter(std::move(*known));
            }
            auto read = reader.read(first, count);
            const auto merged = read ? keepKnown(*read) : Outcome(read.error());
            const auto kept = merged ? spool_->add(*read) : merged;
            if (!kept) {
                return kept;
            }
            readBefore = first;
        }
        reached_ = first;
        tell(first, spool_->stretches().at(first));
        progress_.bytes = readBefore_ + static_cast<std::uint64_t>(count) * discSectorBytes;
        report();
        if (const auto finished = finishTracks(); !finished) {
            return finished;
        }
    }
    return done();
}

bool DiscReading::isKnown(int first) const {
    return spool_->has(first) && std::ranges::all_of(spool_->stretches().at(first), &SectorReading::isKnown);
}

Outcome DiscReading::keepKnown(AgreedStretch& read) const {
    if (!spool_->has(read.first)) {
        return done();
    }
    const auto before = spool_->stretch(read.first);
    RETURN_IF_FAILED(before);
    for (std::size_t i = 0; i < read.sectors.size() && i < before->sectors.size(); ++i) {
        if (before->sectors[i].isKnown() && !read.sectors[i].isKnown()) {
            read.sectors[i] = before->sectors[i];
            std::copy_n(before->samples.begin() + static_cast<std::ptrdiff_t>(i * sectorNumbers),
                        sectorNumbers, read.samples.begin() + static_cast<std::ptrdiff_t>(i * sectorNumbers));
        }
    }
    return done();
}

std::string DiscReading::atWords(int sector) const {
    const auto* track = trackAt(result_.disc.contents, sector);
    return track == nullptr ? std::string("before the first track") : fmt::format("track {}", track->number);
}

void DiscReading::tell(int first, std::span<const SectorReading> sectors) const {
    if (hooks_.onSectors) {
        hooks_.onSectors(first, sectors);
    }
}

void DiscReading::report() {
    progress_.elapsed = std::chrono::duration<double>(std::chrono::steady_clock::now() - began_).count();
    hooks_.onProgress(progress_);
}

bool DiscReading::isRead(const Chosen& track) const {
    return std::ranges::all_of(stretches_, [&](const auto& stretch) {
        return stretch.first <= reached_ || !concerns(track, stretch.first, stretch.second);
    });
}

Outcome DiscReading::await() {
    progress_.at = "making the files";
    while (crew_->isBusy()) {
        if (!control_.proceed()) {
            return Error{Cause::interrupted, request_.disc, "Stopped; what was read of the disc is kept."};
        }
        if (const auto taken = takeDone(); !taken) {
            return taken;
        }
    }
    const auto taken = takeDone();
    const auto order = [this](const MadeRip& made) {
        return std::pair(made.track, std::ranges::find(forms_, made.form, &RipForm::words) - forms_.begin());
    };
    std::ranges::sort(made_, {}, order);
    const auto asked = taken ? recogniseAll() : taken;
    if (asked && disc().offset != 0) {
        const int edge = disc().offset > 0 ? end() : begin();
        const bool isReached = std::ranges::any_of(chosen_, [&](const Chosen& each) {
            return disc().offset > 0 ? each.first + each.sectors == edge : each.first == edge;
        });
        disc().missing = isReached ? std::abs(disc().offset) : 0;
    }
    return asked;
}

Outcome DiscReading::plan() {
    const RipPlan plan{forms_, request_.to, request_.layout, spool_->folder(), chosen_.front().first};
    const auto kept = spool_->setStays(!result_.failed.empty());
    return kept ? planRips(catalogue_, plan, made_, result_, control_) : kept;
}

Result<DiscRead> readDisc(Catalogue& catalogue, const DiscRequest& request, RunControl& control,
                          const DiscHooks& hooks) {
    return DiscReading(catalogue, request, control, hooks).run();
}

Result<CarriedOut> placeDisc(Catalogue& catalogue, const DiscRead& read, RunControl& control,
                             const CarryOutHooks& hooks) {
    const std::set<BytePath> places(read.places.begin(), read.places.end());
    return carryOut(catalogue, control, hooks, [&](const DocketAction& action) {
        return (action.kind == ActionKind::rip || action.kind == ActionKind::writeList) &&
               places.contains(action.place);
    });
}

} // namespace sober
