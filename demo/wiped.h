#pragma once

#include "core/base/paths.h"

#include <nlohmann/json_fwd.hpp>

#include <vector>

namespace sober::demo {

/// The image of a recorder's card that was formatted by mistake, RECORDER.img, and what lies in the trash
/// folders of GANNET and TERN. To be called while the files that go missing are still there: `going` says
/// where, relative to `folder`. False, with a word on standard error, where that fails.
bool makeWiped(const BytePath& folder, const std::vector<BytePath>& going);

/// What lies where, and what can be had back.
nlohmann::ordered_json wipedTruth(const BytePath& folder);

} // namespace sober::demo
