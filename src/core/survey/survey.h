#pragma once

#include "core/base/run_control.h"
#include "core/catalogue/catalogue.h"
#include "core/catalogue/holding_writer.h"
#include "core/catalogue/records.h"

namespace sober {

/// What to read. What is left empty is taken from the volume as it was surveyed before.
struct SurveyRequest {
    BytePath root; ///< as the user gave it
    std::optional<std::string> label;
    std::optional<SurveyChoices> choices;
    std::optional<Effort> effort;
    /// Changes some of the choices that are kept with the volume.
    std::function<void(SurveyChoices&)> changeChoices = {};
};

struct SurveyReport {
    VolumeId volume = 0;
    std::string label;
    std::uint64_t seen = 0; ///< files of audio that are there now
    std::uint64_t added = 0;
    std::uint64_t changed = 0; ///< content is another one
    std::uint64_t unchanged = 0;
    std::uint64_t missing = 0; ///< no longer there since this survey
    std::uint64_t leftOut = 0; ///< known, and left out by the choices: not missing
    std::uint64_t away = 0;    ///< on file systems that were mounted within and are not there now
    std::uint64_t moved = 0;
    std::uint64_t returned = 0;   ///< were missing and are back
    std::uint64_t passedOver = 0; ///< files that are no audio
    std::uint64_t bytesRead = 0;
    double seconds = 0;
    bool interrupted = false; ///< cancelled: what was read is kept, nothing was called missing
    std::vector<SurveyError> errors;
};

/// Reads a volume into the catalogue: what is new or changed is read once, what is unchanged not at
/// all. Never writes to the volume. Refused with one sentence: a root that is not there, is no folder, is a
/// trash, lies within (or around) another volume that is catalogued or is one of those by another way; and
/// the mount point of a volume that is away.
Result<SurveyReport> surveyVolume(Catalogue& catalogue, const SurveyRequest& request, RunControl& control,
                                  const ProgressSink& onProgress);

} // namespace sober
