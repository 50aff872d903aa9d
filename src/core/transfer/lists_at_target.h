#pragma once

#include "core/transfer/chosen.h"
#include "core/transfer/target_list.h"
#include "core/transfer/target_names.h"
#include "core/transfer/target_place.h"

namespace sober {

/// What a transfer's own lists are called there, before their endings.
inline constexpr std::string_view everythingList = "Everything";
inline constexpr std::string_view leftBehindList = "What did not come";

/// The lists of a transfer as they are to be written: every chosen one, named after its source; then one of
/// everything that comes, and a text of what does not and why. Nothing of others is written over: only what
/// an earlier transfer has written there.
Result<std::vector<TransferList>> listsAtTarget(const Catalogue& catalogue,
                                                std::span<const ChosenList> chosen,
                                                std::span<const TransferItem> items,
                                                std::span<const Holding> holdings,
                                                std::span<const NotComing> left, const TargetPlace& place,
                                                const ListWay& way, const NameReplacements& replacements);

} // namespace sober
