#pragma once

#include "core/catalogue/catalogue.h"
#include "core/disc/ripped_file.h"
#include "core/media/encoding_form.h"
#include "core/work/read_disc.h"

namespace sober {

/// A form in which tracks are written.
struct RipForm {
    std::string words;
    EncodingForm form;
    std::string name; ///< for a folder of its own: "mp3 V0"
};

/// By the words of forms or the names of presets, each once. Cause::invalid with what is right.
Result<std::vector<RipForm>> ripFormsFrom(const std::vector<std::string>& said);

/// A file that was made of a track, or of the whole disc (disc_tags.h).
struct MadeRip {
    int track = 0;
    std::string form; ///< its words
    RippedFile file;
    BytePath place = {};
};

/// The cue sheet of one form's files. `whole`: the name of the one file that holds all; "" where each track
/// has its own. `begins`: the sector at which that file begins.
std::string sheetOfRips(const RippedDisc& disc, const RipForm& form, std::span<const MadeRip> made,
                        const std::string& whole, int begins);

struct RipPlan {
    std::span<const RipForm> forms;
    BytePath to;        ///< absolute
    std::string layout; ///< "": the usual one
    BytePath spool;     ///< the folder in which the files wait
    int begins = 0;     ///< the first sector that was chosen
};

/// Gives what was made its places and puts it on the docket with sheets and reports, in place of what an
/// earlier reading of the disc has put there. Places and the report are taken down in `read`.
Outcome planRips(Catalogue& catalogue, const RipPlan& plan, std::vector<MadeRip>& made, DiscRead& read,
                 RunControl& control);

} // namespace sober
