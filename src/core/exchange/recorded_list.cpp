#include "core/exchange/recorded_list.h"

#include "core/base/inner_path.h"
#include "core/base/text.h"
#include "core/catalogue/fixity_store.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/volumes.h"

#include <algorithm>
#include <array>

namespace sober {

Result<std::vector<ListedFile>> recordedList(const Catalogue& catalogue, const BytePath& folder,
                                             ListedChecksum kind, RunControl& control) {
    const auto volumes = Volumes(catalogue).all();
    RETURN_IF_FAILED(volumes);
    const auto root = realPathOf(folder).value_or(folder);
    const auto found = volumeHolding(*volumes, root);
    RETURN_IF_FAILED(found);
    const auto* volume = *found;
    const auto below = *relativeTo(root, volume->root);
    std::vector<std::pair<HoldingId, BytePath>> meant;
    const auto walked =
        FixityStore(catalogue).eachRecordedOn(volume->id, [&](const FixityStore::Recorded& each) {
            auto path = below.empty() ? std::optional(each.path) : relativeTo(each.path, below);
            if (path && !path->empty() && each.state == HoldingState::present &&
                !isInsideArchive(each.path)) { // of no file that another tool could open
                meant.emplace_back(each.id, std::move(*path));
            }
        });
    RETURN_IF_FAILED(walked);
    std::vector<ListedFile> files;
    for (auto& [id, path] : meant) {
        const auto holding = Holdings(catalogue).byIds(std::array{id});
        RETURN_IF_FAILED(holding);
        const bool known = kind == ListedChecksum::sha256 && !holding->empty() && holding->front().sha256;
        auto hex = known ? Result<std::string>(toHex(*holding->front().sha256))
                         : checksumOfFile(joinPath(root, path), kind, control);
        RETURN_IF_FAILED(hex);
        files.push_back({std::move(path), std::move(*hex)});
    }
    return files;
}

} // namespace sober
