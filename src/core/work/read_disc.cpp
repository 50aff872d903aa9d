#include "core/work/read_disc.h"

#include "core/base/http_exchange.h"
#include "core/base/presence.h"
#include "core/base/room.h"
#include "core/base/text.h"
#include "core/base/times.h"
#include "core/disc/disc_tags.h"
#include "core/disc/track_stats.h"
#include "core/evidence/worker/evidence_worker.h"
#include "core/remedy/disc_spool.h"
#include "core/salvage/recogniser.h"
#include "core/work/become_volume.h"
#include "core/work/carry_out.h"
#include "core/work/encode_crew.h"
#include "core/work/plan_rips.h"

#include <fmt/format.h>

#include <algorithm>
#include <chrono>
#include <set>

namespace sober {
namespace {

/// Longer than any drive's cache, so that the second reading of a stretch comes from the disc.
constexpr int stretchSectors = 2'400;

/// One of the tracks that are to be read.
struct Chosen {
    int number = 0;
    int first = 0;
    int sectors = 0;
    bool isTaken = false; ///< heard by the register
    bool isSent = false;  ///< to the crew
};

class DiscReading {
  public:
    DiscReading(Catalogue& catalogue, const DiscRequest& request, RunControl& control, const DiscHooks& hooks)
        : catalogue_(catalogue), request_(request), control_(control), hooks_(hooks) {}

    Result<DiscRead> run() {
        for (const auto step :
             {&DiscReading::open, &DiscReading::choose, &DiscReading::checkRoom, &DiscReading::askRegister,
              &DiscReading::readAll, &DiscReading::await, &DiscReading::plan}) {
            RETURN_IF_FAILED((this->*step)());
        }
        return std::move(result_);
    }

  private:
    RippedDisc& disc() { return result_.disc; }

    Outcome open() {
        auto forms = ripFormsFrom(request_.forms);
        RETURN_IF_FAILED(forms);
        forms_ = std::move(*forms);
        auto tray = Tray::open(request_.disc, control_, request_.silentSeconds);
        RETURN_IF_FAILED(tray);
        tray_.emplace(std::move(*tray));
        auto look =
            lookAtDisc(&catalogue_, *tray_, request_.names ? std::string() : request_.lookup, control_);
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

    bool isWanted(int number) const {
        return request_.tracks.empty() || std::ranges::find(request_.tracks, number) != request_.tracks.end();
    }

    Outcome choose() {
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

    /// Before anything is read.
    Outcome checkRoom() {
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

    Outcome askRegister() {
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
        const auto heard =
            std::ranges::count_if(chosen_, [](const Chosen& track) { return track.number > 0; });
        check_.emplace(std::move(*pressings), static_cast<int>(heard), request_.offset);
        return done();
    }

    int begin() const { return result_.disc.contents.audioBegin(); }
    int end() const { return result_.disc.contents.audioEnd(); }

    /// Sectors around a track that an offset may bring into it.
    bool concerns(const Chosen& track, int first, int count) const {
        constexpr int around = farthestOffset / samplesPerSector;
        return first < track.first + track.sectors + around && first + count > track.first - around;
    }

    std::vector<std::pair<int, int>> stretches() const {
        std::vector<std::pair<int, int>> needed;
        for (int first = begin(); first < end(); first += stretchSectors) {
            const int count = std::min(stretchSectors, end() - first);
            if (std::ranges::any_of(chosen_,
                                    [&](const Chosen& each) { return concerns(each, first, count); })) {
                needed.emplace_back(first, count);
            }
        }
        return needed;
    }

    Outcome readAll() {
        stretches_ = stretches();
        crew_.emplace(*spool_, control_);
        AgreedReader reader(
            *tray_, begin(), end(), request_.effort, control_,
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

    /// A stretch that was read before is read again where something of it is not known: somebody may have
    /// wiped the disc.
    bool isKnown(int first) const {
        return spool_->has(first) &&
               std::ranges::all_of(spool_->stretches().at(first), &SectorReading::isKnown);
    }

    /// What was known of a stretch before, and is not now.
    Outcome keepKnown(AgreedStretch& read) const {
        if (!spool_->has(read.first)) {
            return done();
        }
        const auto before = spool_->stretch(read.first);
        RETURN_IF_FAILED(before);
        for (std::size_t i = 0; i < read.sectors.size() && i < before->sectors.size(); ++i) {
            if (before->sectors[i].isKnown() && !read.sectors[i].isKnown()) {
                read.sectors[i] = before->sectors[i];
                std::copy_n(before->samples.begin() + static_cast<std::ptrdiff_t>(i * sectorNumbers),
                            sectorNumbers,
                            read.samples.begin() + static_cast<std::ptrdiff_t>(i * sectorNumbers));
            }
        }
        return done();
    }

    std::string atWords(int sector) const {
        const auto* track = trackAt(result_.disc.contents, sector);
        return track == nullptr ? std::string("before the first track")
                                : fmt::format("track {}", track->number);
    }

    void tell(int first, std::span<const SectorReading> sectors) const {
        if (hooks_.onSectors) {
            hooks_.onSectors(first, sectors);
        }
    }

    void report() {
        progress_.elapsed = std::chrono::duration<double>(std::chrono::steady_clock::now() - began_).count();
        hooks_.onProgress(progress_);
    }

    bool isRead(const Chosen& track) const {
        return std::ranges::all_of(stretches_, [&](const auto& stretch) {
            return stretch.first <= reached_ || !concerns(track, stretch.first, stretch.second);
        });
    }

    static std::int64_t firstSample(const Chosen& track) {
        return std::int64_t{track.first} * samplesPerSector;
    }

    /// What is read whole is heard by the register and, once the offset is known, sent on.
    Outcome finishTracks() {
        for (auto& track : chosen_) {
            if (track.isTaken || !isRead(track)) {
                continue;
            }
            track.isTaken = true;
            if (check_ && track.number > 0 && !check_->offset()) {
                const auto samples =
                    spool_->samples(firstSample(track) - farthestOffset,
                                    std::int64_t{track.sectors} * samplesPerSector + 2 * farthestOffset);
                RETURN_IF_FAILED(samples);
                check_->take(track.number, *samples);
            }
        }
        const bool isAllTaken = std::ranges::all_of(chosen_, &Chosen::isTaken);
        if (check_ && !check_->offset() && !isAllTaken) {
            return takeDone();
        }
        disc().offset = check_ ? check_->offset().value_or(request_.offset) : request_.offset;
        disc().isOffsetProven = check_ && check_->offset();
        for (auto& track : chosen_) {
            if (track.isTaken && !track.isSent) {
                track.isSent = true;
                if (const auto sent = send(track); !sent) {
                    return sent;
                }
            }
        }
        const bool isAllSent = std::ranges::all_of(chosen_, &Chosen::isSent);
        if (isAllSent && request_.oneFile && !wasWholeSent_) {
            wasWholeSent_ = true;
            if (const auto sent = sendWhole(); !sent) {
                return sent;
            }
        }
        return takeDone();
    }

    /// From the first of the chosen to the last, what lies between them too.
    Outcome sendWhole() {
        const int end = chosen_.back().first + chosen_.back().sectors;
        const auto samples = spool_->samples(firstSample(chosen_.front()) + disc().offset,
                                             std::int64_t{end - chosen_.front().first} * samplesPerSector);
        const auto wave =
            samples ? spool_->writeTrack(wholeDisc, *samples) : Result<BytePath>(samples.error());
        RETURN_IF_FAILED(wave);
        for (const auto& form : forms_) {
            auto tags = tagsOfTrack(disc(), wholeDisc, request_.plainTags);
            const auto name =
                holdingOfTrack(disc(), wholeDisc).tags.title + "." + std::string(endingOf(form.form));
            tags.fields["CUESHEET"] = {sheetOfRips(disc(), form, {}, name, chosen_.front().first)};
            crew_->add({wholeDisc, *wave, form.words,
                        fmt::format("disc-{}.{}", form.name, endingOf(form.form)), std::move(tags)});
            ++progress_.totalFiles;
        }
        return done();
    }

    Outcome send(const Chosen& track) {
        const auto samples = spool_->samples(firstSample(track) + disc().offset,
                                             std::int64_t{track.sectors} * samplesPerSector);
        RETURN_IF_FAILED(samples);
        const bool isSilent = std::ranges::all_of(*samples, [](std::int16_t each) { return each == 0; });
        if (track.number == 0 && isSilent) {
            return done(); // nothing is hidden there
        }
        const auto wave = spool_->writeTrack(track.number, *samples);
        RETURN_IF_FAILED(wave);
        const bool isFirst = track.number > 0 && !wasFirstHeard_;
        if (isFirst) {
            wasFirstHeard_ = true;
            if (const auto heard = hearFirst(track, *wave); !heard) {
                return heard;
            }
        }
        auto& ripped = disc().tracks.emplace_back(statsOf(track, *samples));
        ripped.heldAs = isFirst ? firstHeld_ : BytePath();
        if (check_ && track.number > 0) {
            if (check_->offset()) {
                check_->takeAt(track.number, *samples, disc().offset);
            }
            ripped.word = check_->wordFor(track.number);
        }
        // What takes longest first, so that no processor waits for it at the end.
        auto forms = request_.oneFile ? std::vector<RipForm>() : forms_;
        std::ranges::stable_sort(forms, {}, [](const RipForm& form) { return form.form.isLossless(); });
        for (const auto& form : forms) {
            crew_->add({track.number, *wave, form.words,
                        fmt::format("{:02}-{}.{}", track.number, form.name, endingOf(form.form)),
                        tagsOfTrack(disc(), track.number, request_.plainTags)});
            ++progress_.totalFiles;
        }
        if (!isFirst) {
            crew_->add({track.number, *wave, {}, {}, {}});
        }
        if (hooks_.onTrack) {
            hooks_.onTrack(ripped);
        }
        return done();
    }

    /// The first track says whether the disc is held; the others are asked together in the end.
    Outcome hearFirst(const Chosen& track, const BytePath& wave) {
        const auto words = EvidenceWorker().fingerprint(wave, control_);
        if (!words) {
            nameBy({}); // nothing to be heard
            return words.error().cause == Cause::interrupted ? Outcome(words.error()) : done();
        }
        addHeard(track.number, *words);
        const auto known = recognised();
        RETURN_IF_FAILED(known);
        firstHeld_ = known->front().standing == FindStanding::held ? known->front().place : BytePath();
        nameBy(known->front());
        return done();
    }

    void addHeard(int track, const Fingerprint& words) {
        Find find;
        find.id = track;
        find.fingerprint = packFingerprint(words);
        find.examined = true;
        heard_.push_back(std::move(find));
    }

    Result<std::vector<KnownFind>> recognised() {
        const auto heard = recogniseByEar(catalogue_, heard_);
        return heard ? standingsOf(catalogue_, heard_) : Result<std::vector<KnownFind>>(heard.error());
    }

    /// Names of what is held and only as long are believed once the first track sounds like it.
    void nameBy(const KnownFind& first) {
        const bool isHelds = !look_.held.empty() && disc().names == look_.held.front().names;
        const auto isIt = [&](const HeldDisc& held) {
            return first.standing != FindStanding::unknown && isWithin(first.place, held.folder);
        };
        if (areNamesSure_ || !isHelds || std::ranges::any_of(look_.held, isIt)) {
            return;
        }
        const auto other = std::ranges::find_if(look_.names, [&](const DiscNames& names) {
            return std::ranges::find(look_.held, names, &HeldDisc::names) == look_.held.end();
        });
        disc().names = other != look_.names.end() ? *other : namesOnDisc(look_.contents);
    }

    RippedTrack statsOf(const Chosen& track, const DiscSamples& samples) {
        DiscTrack known;
        for (const auto& each : disc().contents.tracks) {
            known = each.number == track.number ? each : known;
        }
        known.number = track.number;
        known.firstSector = track.first;
        known.sectors = track.sectors;
        auto ripped = statsOfTrack(known, samples, spool_->stretches());
        ripped.title = tagsOfTrack(disc(), track.number, true).fields.at("TITLE").front();
        return ripped;
    }

    Outcome takeDone() {
        for (auto& each : crew_->done()) {
            if (each.failure) {
                if (each.failure->cause == Cause::interrupted) {
                    return *each.failure;
                }
                result_.failed.push_back({request_.disc, fmt::format("Track {} as {}: {}", each.job.track,
                                                                     each.job.form, each.failure->sentence)});
            }
            if (each.heard) {
                addHeard(each.job.track, *each.heard);
            }
            if (each.file) {
                made_.push_back({each.job.track, each.job.form, std::move(*each.file)});
                ++progress_.files;
            }
        }
        report();
        return done();
    }

    Outcome recogniseAll() {
        const auto known = recognised();
        RETURN_IF_FAILED(known);
        for (std::size_t i = 0; i < heard_.size(); ++i) {
            for (auto& track : disc().tracks) {
                if (track.number == heard_[i].id && (*known)[i].standing == FindStanding::held) {
                    track.heldAs = (*known)[i].place;
                    if (hooks_.onTrack) {
                        hooks_.onTrack(track);
                    }
                }
            }
        }
        return done();
    }

    Outcome await() {
        progress_.at = "making the files";
        while (crew_->isBusy()) {
            if (!control_.proceed()) {
                return Error{Cause::interrupted, request_.disc,
                             "Stopped; what was read of the disc is kept."};
            }
            if (const auto taken = takeDone(); !taken) {
                return taken;
            }
        }
        const auto taken = takeDone();
        const auto order = [this](const MadeRip& made) {
            return std::pair(made.track,
                             std::ranges::find(forms_, made.form, &RipForm::words) - forms_.begin());
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

    Outcome plan() {
        const RipPlan plan{forms_, request_.to, request_.layout, spool_->folder(), chosen_.front().first};
        const auto kept = spool_->setStays(!result_.failed.empty());
        return kept ? planRips(catalogue_, plan, made_, result_, control_) : kept;
    }

    Catalogue& catalogue_;
    const DiscRequest& request_;
    RunControl& control_;
    const DiscHooks& hooks_;
    std::vector<RipForm> forms_;
    DiscLook look_;
    bool areNamesSure_ = false;
    std::optional<Tray> tray_;
    std::optional<DiscSpool> spool_;
    std::optional<RegisterCheck> check_;
    std::vector<Chosen> chosen_;
    std::vector<std::pair<int, int>> stretches_;
    std::optional<EncodeCrew> crew_;
    std::vector<Find> heard_;
    bool wasFirstHeard_ = false;
    BytePath firstHeld_; ///< the holding that the first track sounds like
    bool wasWholeSent_ = false;
    std::vector<MadeRip> made_;
    Progress progress_;
    std::uint64_t readBefore_ = 0; ///< bytes of the stretches before
    int reached_ = -1;             ///< the stretch that was come to last
    std::string at_;
    std::chrono::steady_clock::time_point began_ = std::chrono::steady_clock::now();
    DiscRead result_;
};

} // namespace

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
