#pragma once

#include "core/audit/carriers.h"
#include "core/catalogue/docket_store.h"
#include "core/catalogue/records.h"

#include <optional>

namespace sober {

/// The kinds of action that can be carried out.
inline constexpr std::string_view retireKind = "retire";
inline constexpr std::string_view writeOffKind = "write-off";
/// Keep a recording as it is, whatever its evidence says. Nothing on a volume changes.
inline constexpr std::string_view acceptKind = "accept";

/// Take a holding's content as it is now for what it should be. Nothing on a volume changes.
inline constexpr std::string_view acceptChangeKind = "accept-change";
/// Put what was recorded of a drifted or missing holding back, from a healthy copy.
inline constexpr std::string_view restoreKind = "restore";
/// Put it together from damaged copies whose damage lies in different blocks.
inline constexpr std::string_view repairKind = "repair";
/// Whether a kind of action puts back what was recorded.
inline bool isMended(std::string_view kind) {
    return kind == restoreKind || kind == repairKind;
}
/// Make an MP3 or Ogg file anew without the bytes that belong neither to its audio nor to its tags.
inline constexpr std::string_view rewriteKind = "rewrite";
/// Write fields that other copies know into the tags, the audio data untouched.
inline constexpr std::string_view retagKind = "retag";
/// Make every reference that leads to a place lead to another.
inline constexpr std::string_view repointKind = "repoint";
/// Move a holding to another place on its file system.
inline constexpr std::string_view moveKind = "move";

/// In the ledger: a missing holding was restored. There was nothing to set aside.
inline constexpr std::string_view bringBackKind = "bring-back";

/// One action of the docket as it would be carried out now, by what the catalogue knows.
struct PlannedAction {
    DocketAction action;
    Holding holding;                    ///< of an action about a place without one its id is 0
    std::string volume;                 ///< label
    BytePath path;                      ///< absolute
    BytePath target;                    ///< absolute: where it moves, or where references lead then
    std::uint64_t references = 0;       ///< that are taken along
    std::uint64_t frees = 0;            ///< bytes, once the trash is emptied; 0 where refused
    std::optional<std::string> refused; ///< the sentence why it will not be carried out
    std::vector<Carrier> carriers;      ///< of what is retired: what stays of its recording
    Loss loss = Loss::none;             ///< what is no longer held afterwards
    /// It is refused only because nobody has consented to that loss.
    bool awaitsConsent = false;
};

struct DocketReview {
    std::vector<PlannedAction> actions; ///< in the order of the docket
    std::uint64_t frees = 0;
    std::vector<std::pair<std::string, std::uint64_t>> freesByVolume;
    std::uint64_t refused = 0;
    std::uint64_t references = 0; ///< that are taken along
};

/// Reads the docket through: what each action would do and free, and what has to be refused. Where
/// every copy at hand of a recording is told to retire, none of them is.
Result<DocketReview> reviewDocket(const Catalogue& catalogue);

/// Consents to the loss that retiring this one holding brings as the docket stands now, by name: should it
/// become another loss, that one is asked for anew. Cause::invalid where it is on no docket or nothing would
/// be lost.
Outcome consentToLoss(const Catalogue& catalogue, HoldingId holding);

} // namespace sober
