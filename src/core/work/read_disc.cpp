#include "core/work/read_disc.h"

#include "core/base/http_exchange.h"
#include "core/base/presence.h"
#include "core/base/room.h"
#include "core/base/text.h"
#include "core/base/times.h"
#include "core/catalogue/docket_store.h"
#include "core/disc/cue_sheet.h"
#include "core/disc/disc_tags.h"
#include "core/disc/sliding_crc.h"
#include "core/evidence/worker/evidence_worker.h"
#include "core/remedy/disc_spool.h"
#include "core/salvage/recogniser.h"
#include "core/transfer/filing.h"
#include "core/work/become_volume.h"
#include "core/work/carry_out.h"
#include "core/work/encode_crew.h"

#include <fmt/format.h>

#include <algorithm>
#include <chrono>
#include <set>

namespace sober {
namespace {

constexpr const char* usualLayout = "albumartist|artist / album / disc \"-\" track.2 \" \" title";
constexpr const char* sheetStem = "disc";
constexpr const char* reportStem = "how it was read";
/// Longer than any drive's cache, so that the second reading of a stretch comes from the disc.
constexpr int stretchSectors = 2'400;

struct Form {
    std::string words;
    EncodingForm form;
    std::string name; ///< for a folder of its own: "mp3 V0"
};

Result<std::vector<Form>> formsFrom(const std::vector<std::string>& said) {
    std::vector<Form> forms;
    for (const auto& each : said) {
        const auto* const preset = std::ranges::find(discPresets, each, &DiscPreset::name);
        const std::string words = preset != std::end(discPresets) ? preset->form : each;
        const auto form = encodingFormFrom(words);
        if (!form) {
            return form.error();
        }
        if (std::ranges::find(forms, words, &Form::words) != forms.end()) {
            continue;
        }
        auto name = words;
        std::ranges::replace(name, ':', ' ');
        std::ranges::replace(name, '/', ' ');
        std::erase(name, '%');
        forms.push_back({words, *form, std::move(name)});
    }
    return forms.empty() ? Result<std::vector<Form>>(Error{Cause::invalid, {}, "Say in which form, as flac."})
                         : Result(std::move(forms));
}

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
              &DiscReading::readAll, &DiscReading::await, &DiscReading::place, &DiscReading::putOnDocket}) {
            if (const auto taken = (this->*step)(); !taken) {
                return taken.error();
            }
        }
        return std::move(result_);
    }

  private:
    RippedDisc& disc() { return result_.disc; }

    Outcome open() {
        auto forms = formsFrom(request_.forms);
        if (!forms) {
            return forms.error();
        }
        forms_ = std::move(*forms);
        auto tray = Tray::open(request_.disc, control_, request_.silentSeconds);
        if (!tray) {
            return tray.error();
        }
        tray_.emplace(std::move(*tray));
        auto look =
            lookAtDisc(&catalogue_, *tray_, request_.names ? std::string() : request_.lookup, control_);
        if (!look) {
            return look.error();
        }
        if (request_.answer > 1 && static_cast<std::size_t>(request_.answer) > look->names.size()) {
            return Error{
                Cause::invalid, request_.disc,
                fmt::format("There is no answer {}: there are {}.", request_.answer, look->names.size())};
        }
        areNamesSure_ = request_.names || request_.answer > 1;
        look_ = std::move(*look);
        disc().contents = look_.contents;
        disc().id = look_.id;
        disc().offset = request_.offset;
        disc().when = timeNow();
        disc().names = request_.names        ? *request_.names
                       : look_.names.empty() ? namesOnDisc(look_.contents)
                                             : look_.names[static_cast<std::size_t>(request_.answer - 1)];
        auto spool = DiscSpool::open(discsFolder(catalogue_.path()), look_.contents);
        if (!spool) {
            return spool.error();
        }
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
        if (!target) {
            return target.error();
        }
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
        const auto audio = std::ranges::count_if(disc().contents.tracks, &DiscTrack::isAudio);
        check_.emplace(std::move(*pressings), static_cast<int>(audio), request_.offset);
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
            if (!spool_->has(first)) {
                const int before = first - stretchSectors;
                if (readBefore != before && spool_->has(before)) {
                    auto known = spool_->stretch(before);
                    if (!known) {
                        return known.error();
                    }
                    reader.comesAfter(std::move(*known));
                }
                const auto read = reader.read(first, count);
                const auto kept = read ? spool_->add(*read) : Outcome(read.error());
                if (!kept) {
                    return kept;
                }
                readBefore = first;
            }
            tell(first, spool_->stretches().at(first));
            progress_.bytes = readBefore_ + static_cast<std::uint64_t>(count) * discSectorBytes;
            report();
            if (const auto finished = finishTracks(); !finished) {
                return finished;
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
            return spool_->has(stretch.first) || !concerns(track, stretch.first, stretch.second);
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
                if (!samples) {
                    return samples.error();
                }
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
        if (!wave) {
            return wave.error();
        }
        for (const auto& form : forms_) {
            auto tags = tagsOfTrack(disc(), wholeDisc, request_.plainTags);
            const auto name =
                holdingOfTrack(disc(), wholeDisc).tags.title + "." + std::string(endingOf(form.form));
            tags.fields["CUESHEET"] = {sheetFor(form, name)};
            crew_->add({wholeDisc, *wave, form.words,
                        fmt::format("disc-{}.{}", form.name, endingOf(form.form)), std::move(tags)});
            ++progress_.totalFiles;
        }
        return done();
    }

    Outcome send(const Chosen& track) {
        const auto samples = spool_->samples(firstSample(track) + disc().offset,
                                             std::int64_t{track.sectors} * samplesPerSector);
        if (!samples) {
            return samples.error();
        }
        const bool isSilent = std::ranges::all_of(*samples, [](std::int16_t each) { return each == 0; });
        if (track.number == 0 && isSilent) {
            return done(); // nothing is hidden there
        }
        const auto wave = spool_->writeTrack(track.number, *samples);
        const auto named = wave ? nameBy(track, *wave) : Outcome(wave.error());
        if (!named) {
            return named;
        }
        auto& ripped = disc().tracks.emplace_back(statsOf(track, *samples));
        if (check_ && track.number > 0) {
            if (check_->offset()) {
                check_->takeAt(track.number, *samples, disc().offset);
            }
            ripped.word = check_->wordFor(track.number);
        }
        // What takes longest first, so that no processor waits for it at the end.
        auto forms = request_.oneFile ? std::vector<Form>() : forms_;
        std::ranges::stable_sort(forms, {}, [](const Form& form) { return form.form.isLossless(); });
        for (const auto& form : forms) {
            crew_->add({track.number, *wave, form.words,
                        fmt::format("{:02}-{}.{}", track.number, form.name, endingOf(form.form)),
                        tagsOfTrack(disc(), track.number, request_.plainTags)});
            ++progress_.totalFiles;
        }
        crew_->add({track.number, *wave, {}, {}, {}});
        if (hooks_.onTrack) {
            hooks_.onTrack(ripped);
        }
        return done();
    }

    /// Names of what is held and only as long are believed once the first track sounds like it.
    Outcome nameBy(const Chosen& track, const BytePath& wave) {
        if (areNamesSure_ || track.number == 0 || look_.held.empty() ||
            disc().names != look_.held.front().names) {
            return done();
        }
        areNamesSure_ = true;
        auto heardWords = EvidenceWorker().fingerprint(wave, control_);
        if (!heardWords) {
            return heardWords.error();
        }
        Find find;
        find.fingerprint = packFingerprint(*heardWords);
        find.examined = true;
        std::vector<Find> finds{std::move(find)};
        const auto heard = recogniseByEar(catalogue_, finds);
        const auto known =
            heard ? standingsOf(catalogue_, finds) : Result<std::vector<KnownFind>>(heard.error());
        if (!known) {
            return known.error();
        }
        const auto isIt = [&](const HeldDisc& held) {
            return known->front().standing != FindStanding::unknown &&
                   isWithin(known->front().place, held.folder);
        };
        if (std::ranges::any_of(look_.held, isIt)) {
            return done();
        }
        const auto other = std::ranges::find_if(look_.names, [&](const DiscNames& names) {
            return std::ranges::find(look_.held, names, &HeldDisc::names) == look_.held.end();
        });
        disc().names = other != look_.names.end() ? *other : namesOnDisc(look_.contents);
        return done();
    }

    RippedTrack statsOf(const Chosen& track, const DiscSamples& samples) {
        RippedTrack ripped;
        ripped.number = track.number;
        ripped.sectors = track.sectors;
        ripped.crc = crcOf(samples);
        ripped.title = tagsOfTrack(disc(), track.number, true).fields.at("TITLE").front();
        for (const auto each : samples) {
            ripped.peak = std::max(ripped.peak, std::abs(static_cast<double>(each)) / 32'768);
        }
        for (const auto& each : disc().contents.tracks) {
            ripped.preEmphasis = ripped.preEmphasis || (each.number == track.number && each.preEmphasis);
        }
        for (const auto& [first, sectors] : spool_->stretches()) {
            for (std::size_t i = 0; i < sectors.size(); ++i) {
                const int sector = first + static_cast<int>(i);
                if (sector >= track.first && sector < track.first + track.sectors) {
                    note(ripped, sector, sectors[i]);
                }
            }
        }
        return ripped;
    }

    static void note(RippedTrack& ripped, int sector, const SectorReading& reading) {
        ripped.readings = std::max<int>(ripped.readings, reading.readings);
        ripped.late += reading.state == SectorState::agreedLate ? 1 : 0;
        ripped.unread += reading.state == SectorState::unread ? 1 : 0;
        if (reading.isKnown()) {
            return;
        }
        if (!ripped.doubtful.empty() && ripped.doubtful.back().second == sector - 1) {
            ripped.doubtful.back().second = sector;
        } else {
            ripped.doubtful.emplace_back(sector, sector);
        }
    }

    Outcome takeDone() {
        bool isHeard = false;
        for (auto& each : crew_->done()) {
            if (each.failure) {
                if (each.failure->cause == Cause::interrupted) {
                    return *each.failure;
                }
                result_.failed.push_back({request_.disc, fmt::format("Track {} as {}: {}", each.job.track,
                                                                     each.job.form, each.failure->sentence)});
            }
            if (each.heard) {
                Find find;
                find.id = each.job.track;
                find.fingerprint = packFingerprint(*each.heard);
                find.examined = true;
                heard_.push_back(std::move(find));
                isHeard = true;
            }
            if (each.file) {
                made_.push_back({each.job.track, each.job.form, std::move(*each.file)});
                ++progress_.files;
            }
        }
        report();
        // The first says whether the disc is held; the others are asked together.
        return isHeard && !wasFirstHeard_ ? recognise() : done();
    }

    Outcome recognise() {
        wasFirstHeard_ = true;
        if (const auto heard = recogniseByEar(catalogue_, heard_); !heard) {
            return heard;
        }
        const auto known = standingsOf(catalogue_, heard_);
        if (!known) {
            return known.error();
        }
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
        const auto order = [this](const Made& made) {
            return std::pair(made.track, std::ranges::find(forms_, made.form, &Form::words) - forms_.begin());
        };
        std::ranges::sort(made_, {}, order);
        const auto recognised = taken ? recognise() : taken;
        if (recognised && disc().offset != 0) {
            const int edge = disc().offset > 0 ? end() : begin();
            const bool isReached = std::ranges::any_of(chosen_, [&](const Chosen& each) {
                return disc().offset > 0 ? each.first + each.sectors == edge : each.first == edge;
            });
            disc().missing = isReached ? std::abs(disc().offset) : 0;
        }
        return recognised;
    }

    struct Made {
        int track = 0;
        std::string form;
        RippedFile file;
        BytePath place = {};
    };

    /// Several forms get a folder each, so that no player meets a recording twice.
    Outcome place() {
        const auto target = placeOnVolume(catalogue_, request_.to, control_);
        const auto layout = Layout::named(request_.layout.empty() ? usualLayout : request_.layout);
        if (!target || !layout) {
            return target ? layout.error() : target.error();
        }
        std::vector<Holding> holdings;
        for (const auto& each : made_) {
            holdings.push_back(holdingOfTrack(disc(), each.track));
        }
        auto known = holdings;
        if (disc().names.disc > 0 && (disc().names.discs > 1 || disc().names.disc > 1) && !known.empty()) {
            known.push_back(known.front()); // the other discs of the set count, too
            known.back().filing.disc = "another";
        }
        const Filing filing(known);
        const auto replacements = usualReplacements();
        std::vector<TargetName> names;
        for (std::size_t i = 0; i < made_.size(); ++i) {
            auto filed = filing.nameFor(holdings[i], holdings[i].path, *layout, *target->rules, replacements);
            const auto form = std::ranges::find(forms_, made_[i].form, &Form::words);
            filed.name.ending = endingOf(form->form);
            filed.name.folder =
                forms_.size() > 1 ? joinPath(form->name, filed.name.folder) : filed.name.folder;
            names.push_back(std::move(filed.name));
        }
        fitAll(*target->rules, replacements, names, [&](const BytePath& path, std::size_t /*which*/) {
            return presenceOf(joinPath(target->folder, path)) != Presence::gone;
        });
        for (std::size_t i = 0; i < made_.size(); ++i) {
            made_[i].place = joinPath(target->folder, pathOf(names[i]));
            for (auto& track : disc().tracks) {
                if (track.number == made_[i].track || made_[i].track == wholeDisc) {
                    track.files.push_back(made_[i].place);
                }
            }
        }
        return done();
    }

    DocketAction actionFor(ActionKind kind, const BytePath& place, std::string change) {
        DocketAction action;
        action.kind = kind;
        action.reason = "disc " + (disc().names.title.empty() ? disc().id : disc().names.title);
        action.added = timeNow();
        action.place = place;
        action.target = place;
        action.change = std::move(change);
        result_.places.push_back(place);
        return action;
    }

    Outcome putOnDocket() {
        std::vector<DocketAction> actions;
        for (const auto& each : made_) {
            actions.push_back(actionFor(ActionKind::rip, each.place, packRippedFile(each.file)));
        }
        std::set<BytePath> folders;
        for (const auto& form : forms_) {
            if (const auto first = std::ranges::find(made_, form.words, &Made::form); first != made_.end()) {
                const BytePath folder(parentOf(first->place));
                actions.push_back(
                    actionFor(ActionKind::writeList, freeName(folder, sheetStem, ".cue"),
                              sheetFor(form, first->track == wholeDisc ? std::string(nameOf(first->place))
                                                                       : std::string())));
                folders.insert(folder);
            }
        }
        if (!made_.empty()) {
            const BytePath folder(parentOf(made_.front().place));
            result_.report = freeName(folder, reportStem, ".txt");
            actions.push_back(actionFor(ActionKind::writeList, result_.report, reportText(disc())));
            actions.push_back(
                actionFor(ActionKind::writeList, freeName(folder, reportStem, ".json"), reportJson(disc())));
        }
        const auto kept = spool_->setStays(!result_.failed.empty());
        const auto replaced = kept ? takeEarlierOff() : kept;
        return replaced ? DocketStore(catalogue_).add(actions) : replaced;
    }

    /// What an earlier reading of this disc has put on the docket was made anew, under other names perhaps.
    Outcome takeEarlierOff() {
        const DocketStore docket(catalogue_);
        const auto waiting = docket.all();
        if (!waiting) {
            return waiting.error();
        }
        std::set<BytePath> folders;
        std::vector<ActionId> earlier;
        for (const auto& action : *waiting) {
            const auto ripped =
                action.kind == ActionKind::rip ? unpackRippedFile(action.change) : std::nullopt;
            if (ripped && isWithin(ripped->file, spool_->folder())) {
                folders.insert(BytePath(parentOf(action.place)));
                earlier.push_back(action.id);
            }
        }
        for (const auto& action : *waiting) {
            const auto name = nameOf(action.place);
            const bool isOurs = name.starts_with(sheetStem) || name.starts_with(reportStem);
            if (action.kind == ActionKind::writeList && isOurs &&
                folders.contains(BytePath(parentOf(action.place)))) {
                earlier.push_back(action.id);
            }
        }
        const auto removed = docket.removeActions(earlier);
        return removed ? done() : Outcome(removed.error());
    }

    /// "disc 2.cue" where "disc.cue" is taken.
    static BytePath freeName(const BytePath& folder, const std::string& stem, const std::string& ending) {
        for (int number = 1;; ++number) {
            auto path = joinPath(folder, stem + (number == 1 ? "" : " " + std::to_string(number)) + ending);
            if (presenceOf(path) == Presence::gone) {
                return path;
            }
        }
    }

    /// `whole`: the name of the one file that holds all; "" where each has its own.
    std::string sheetFor(const Form& form, const std::string& whole) {
        std::vector<CueTrack> tracks;
        for (const auto& track : disc().tracks) {
            const auto chosen = std::ranges::find(chosen_, track.number, &Chosen::number);
            const auto file = std::ranges::find_if(made_, [&](const Made& each) {
                return each.form == form.words && each.track == track.number;
            });
            const bool isLossless = form.form.isLossless();
            if (!whole.empty()) {
                tracks.push_back({track.number, whole, isLossless, chosen->first - chosen_.front().first});
            } else if (file != made_.end()) {
                tracks.push_back({track.number, std::string(nameOf(file->place)), isLossless, 0});
            }
        }
        return cueSheet(disc().contents, disc().names, tracks);
    }

    Catalogue& catalogue_;
    const DiscRequest& request_;
    RunControl& control_;
    const DiscHooks& hooks_;
    std::vector<Form> forms_;
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
    bool wasWholeSent_ = false;
    std::vector<Made> made_;
    Progress progress_;
    std::uint64_t readBefore_ = 0; ///< bytes of the stretches before
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
