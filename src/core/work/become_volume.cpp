#include "core/work/become_volume.h"

#include "core/remedy/changes/file_changes.h"
#include "core/survey/survey.h"

namespace sober {

Result<TargetPlace> placeOnVolume(Catalogue& catalogue, const BytePath& folder, RunControl& control) {
    auto target = targetPlaceAt(catalogue, folder, "auto", std::nullopt);
    if (!target || target->volume) {
        return target;
    }
    Unflushed unflushed;
    RETURN_IF_FAILED(makeFolder(target->folder, 0777, unflushed));
    unflushed.flush();
    const auto surveyed =
        surveyVolume(catalogue, {target->folder, {}, {}, {}}, control, [](const Progress&) {});
    return surveyed ? std::move(target) : Result<TargetPlace>(surveyed.error());
}

} // namespace sober
