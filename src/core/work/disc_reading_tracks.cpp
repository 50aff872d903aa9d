// What is done with a track once it was read: another part of disc_reading.h.
#include "core/base/text.h"
#include "core/disc/disc_tags.h"
#include "core/evidence/worker/evidence_worker.h"
#include "core/work/disc_reading.h"

#include <fmt/format.h>

#include <algorithm>

namespace sober {

std::int64_t DiscReading::firstSample(const Chosen& track) {
    return std::int64_t{track.first} * samplesPerSector;
}

Outcome DiscReading::finishTracks() {
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

Outcome DiscReading::sendWhole() {
    const int end = chosen_.back().first + chosen_.back().sectors;
    const auto samples = spool_->samples(firstSample(chosen_.front()) + disc().offset,
                                         std::int64_t{end - chosen_.front().first} * samplesPerSector);
    const auto wave = samples ? spool_->writeTrack(wholeDisc, *samples) : Result<BytePath>(samples.error());
    RETURN_IF_FAILED(wave);
    for (const auto& form : forms_) {
        auto tags = tagsOfTrack(disc(), wholeDisc, request_.plainTags);
        const auto name =
            holdingOfTrack(disc(), wholeDisc).tags.title + "." + std::string(endingOf(form.form));
        tags.fields["CUESHEET"] = {sheetOfRips(disc(), form, {}, name, chosen_.front().first)};
        crew_->add({wholeDisc, *wave, form.words, fmt::format("disc-{}.{}", form.name, endingOf(form.form)),
                    std::move(tags)});
        ++progress_.totalFiles;
    }
    return done();
}

Outcome DiscReading::send(const Chosen& track) {
    const auto samples =
        spool_->samples(firstSample(track) + disc().offset, std::int64_t{track.sectors} * samplesPerSector);
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

Outcome DiscReading::hearFirst(const Chosen& track, const BytePath& wave) {
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

void DiscReading::addHeard(int track, const Fingerprint& words) {
    Find find;
    find.id = track;
    find.fingerprint = packFingerprint(words);
    find.examined = true;
    heard_.push_back(std::move(find));
}

Result<std::vector<KnownFind>> DiscReading::recognised() {
    const auto heard = recogniseByEar(catalogue_, heard_);
    return heard ? standingsOf(catalogue_, heard_) : Result<std::vector<KnownFind>>(heard.error());
}

void DiscReading::nameBy(const KnownFind& first) {
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

RippedTrack DiscReading::statsOf(const Chosen& track, const DiscSamples& samples) {
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

Outcome DiscReading::takeDone() {
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

Outcome DiscReading::recogniseAll() {
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

} // namespace sober
