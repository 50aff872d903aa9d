#pragma once

#include "core/transfer/chosen.h"
#include "core/transfer/forms.h"
#include "core/transfer/target_list.h"
#include "core/transfer/target_names.h"
#include "core/transfer/target_place.h"

namespace sober {

/// What a custodian asks for.
struct TransferRequest {
    TransferChoice choice;
    BytePath to;
    std::string rules = "auto";        ///< or a word of target_rules.h
    std::optional<std::uint64_t> room; ///< bytes free, of a device that is described by hand
    std::size_t longestPath = 0; ///< that the player reads, in the target's units and with its root; 0: any
    std::string layout = "keep"; ///< or "flat", or in the language of layout.h
    TransferMode mode = TransferMode::copy;
    ListWay lists = {};
    NameReplacements replacements = usualReplacements();
    std::vector<FormRule> forms = {};
};

/// What would be done, before anything is.
struct TransferPlan {
    Transfer transfer;
    TargetPlace place;
    std::vector<TransferItem> items;
    std::vector<NotComing> left;
    std::vector<TransferList> lists;
    std::vector<HoldingId> inNoList;
    /// Brought to the target's folder by earlier transfers, and not among what comes; by path, which is
    /// absolute. What stands there otherwise is nobody's to let go here.
    std::vector<std::pair<BytePath, HoldingId>> noLonger;
    /// Folders in which renames leave no file, the topmost ones; absolute. They go to the trash.
    std::vector<BytePath> emptied;
    double seconds = 0;             ///< of what comes
    std::uint64_t bytes = 0;        ///< of what comes, wherever it is now
    std::uint64_t unsound = 0;      ///< of what comes, that does not decode whole
    std::uint64_t contradicted = 0; ///< of what comes, whose evidence contradicts its claim
    /// By volume: bytes that are catalogued there, and those of them that come.
    struct From {
        Volume volume;
        std::uint64_t bytes = 0;
        std::uint64_t coming = 0;
    };
    std::vector<From> from;
    std::uint64_t bytesThere = 0; ///< catalogued in the target's folder
    std::vector<Holding> sample;  ///< some of what comes, for previewNames
    std::uint64_t encoded = 0;    ///< of what comes, that is written in another form
    std::uint64_t reencoded = 0;  ///< of those, that went through a lossy encoder already
    /// What each offered form would need, in bytes; first as it is.
    std::vector<std::pair<std::string, std::uint64_t>> costs;
    /// As losslessTimesLossy, of what comes.
    double losslessTimes = 0;
};

/// Plans by the catalogue, the lists and the names at the target; reads no audio and changes nothing. Every
/// name is one that the target can hold, and no two are one there. Cause::invalid for a layout that is none,
/// where nothing is chosen, and for a reorder that leads to no volume.
Result<TransferPlan> planTransfer(const Catalogue& catalogue, const TransferRequest& request,
                                  RunControl& control);

/// What holdings would be called by a layout, while it is typed.
struct NamePreview {
    BytePath from; ///< relative to its volume
    BytePath to;   ///< relative to the target
    std::string altered;
};
Result<std::vector<NamePreview>> previewNames(std::span<const Holding> holdings, const std::string& layout,
                                              const TargetRules& rules, const NameReplacements& replacements,
                                              std::span<const FormRule> forms);

/// Keeps a plan, so that it can be carried out; its number.
Result<TransferId> keepPlan(const Catalogue& catalogue, const TransferPlan& plan);

/// Puts on the docket that what earlier transfers brought and is no longer among what comes be retired.
Outcome letRestGo(const Catalogue& catalogue, const TransferPlan& plan);

} // namespace sober
