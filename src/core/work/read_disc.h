#pragma once

#include "core/catalogue/catalogue.h"
#include "core/disc/rip_report.h"
#include "core/remedy/journal/carried_out.h"
#include "core/remedy/journal/hooks.h"
#include "core/work/look_at_disc.h"

#include <functional>

namespace sober {

struct DiscRequest {
    BytePath disc;                          ///< a device or a cue sheet
    BytePath to;                            ///< absolute
    std::vector<std::string> forms{"flac"}; ///< words of encoding_form.h, or names of presets
    std::vector<int> tracks = {};           ///< all if none; 0 is what is hidden before the first
    std::string layout = "";                ///< "": the usual one
    ReadingEffort effort = {};
    int offset = 0;                   ///< samples that the drive is known to read late
    std::string registerAddress = ""; ///< "": none is asked
    std::string lookup = "";
    int answer = 0;                      ///< which of the names that were found, from 1 on; 0: the likeliest
    std::optional<DiscNames> names = {}; ///< instead of them
    bool oneFile = false;                ///< all tracks in one file of each form, with a cue sheet in it
    bool plainTags = false;              ///< title, artist, album and numbers alone
    unsigned silentSeconds = 60;         ///< that a tray may take for any answer
};

/// A form by a name for what it is for.
struct DiscPreset {
    const char* name;
    const char* form;
    const char* purpose;
};
inline constexpr DiscPreset discPresets[]{
    {"archive", "flac", "every sample, in half the room"},
    {"plain", "wav", "every sample, as any program reads it"},
    {"player", "mp3:V0", "MP3 of a variable rate, the highest"},
    {"steady", "mp3:192", "MP3 of one rate, for old players"},
    {"telephone", "aac:192", "AAC"},
    {"small", "opus:96", "Opus, for speech and for little room"},
    {"open", "vorbis:q6", "Ogg Vorbis of a variable rate"},
    {"taster", "mp3:V2@30", "the first thirty seconds as MP3"},
};

struct DiscHooks {
    ProgressSink onProgress = [](const Progress&) {};
    AgreedReader::OnSectors onSectors = {};
    /// Hears of a track as soon as it is read.
    std::function<void(const RippedTrack&)> onTrack = {};
};

/// What was read, and what stands on the docket of it.
struct DiscRead {
    RippedDisc disc;
    std::vector<BytePath> places;      ///< absolute: of the files, sheets and reports that are to be written
    BytePath report;                   ///< among them, the text
    std::vector<RefusedAction> failed; ///< what could not be made, and why
};

/// Reads a disc until its readings agree, makes the files beside the catalogue, on all processors while the
/// disc is still read, and puts them on the docket. A reading that is stopped or breaks off is gone on with
/// where it was; what was read is kept until its files are in their places.
Result<DiscRead> readDisc(Catalogue& catalogue, const DiscRequest& request, RunControl& control,
                          const DiscHooks& hooks);

/// Carries out what was put on the docket.
Result<CarriedOut> placeDisc(Catalogue& catalogue, const DiscRead& read, RunControl& control,
                             const CarryOutHooks& hooks);

} // namespace sober
