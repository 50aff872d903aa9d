#include "core/exchange/listed_baseline.h"

#include "core/base/text.h"
#include "core/catalogue/fixity_store.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/ledger_store.h"
#include "core/catalogue/volumes.h"

#include <fmt/format.h>

#include <algorithm>

namespace sober {
namespace {

class Taker {
  public:
    Taker(const Catalogue& catalogue, const ChecksumList& list, const Volume& volume, Nanoseconds listed,
          RunControl& control)
        : catalogue_(catalogue), list_(list), volume_(volume), listed_(listed), control_(control) {}

    Outcome take(const ListedFile& file, const BytePath& below) {
        const auto path = joinPath(below, file.path);
        const auto holding = Holdings(catalogue_).at(volume_.id, path);
        RETURN_IF_FAILED(holding);
        if (!*holding) {
            found_.uncatalogued.push_back(file.path);
            return done();
        }
        const auto place = joinPath(volume_.root, path);
        if ((*holding)->state != HoldingState::present) {
            found_.missing.push_back(place);
            return done();
        }
        const auto now = digestOf(**holding, place);
        if (!now) {
            if (now.error().cause != Cause::interrupted) {
                found_.errors.push_back({place, now.error().sentence});
            }
            return done();
        }
        if (*now == file.hex) {
            ++found_.asListed;
            return done();
        }
        found_.drifted.push_back(place);
        const bool silent = (*holding)->mtime <= listed_;
        return FixityStore(catalogue_)
            .noteListedOtherwise((*holding)->id,
                                 list_.kind == ListedChecksum::sha256 ? sha256From(file.hex) : std::nullopt,
                                 silent ? DriftKind::silentChange : DriftKind::audioAltered);
    }

    ListedBaseline finish() {
        found_.interrupted = control_.isCancelled();
        return std::move(found_);
    }

  private:
    Result<std::string> digestOf(const Holding& holding, const BytePath& place) {
        return list_.kind == ListedChecksum::sha256 && holding.sha256
                   ? Result<std::string>(toHex(*holding.sha256))
                   : checksumOfFile(place, list_.kind, control_);
    }

    static std::optional<Sha256> sha256From(const std::string& hex) {
        const auto bytes = bytesFromHex(hex);
        Sha256 digest{};
        if (!bytes || bytes->size() != digest.size()) {
            return std::nullopt;
        }
        std::ranges::transform(*bytes, digest.begin(), [](char c) { return static_cast<std::uint8_t>(c); });
        return digest;
    }

    const Catalogue& catalogue_;
    const ChecksumList& list_;
    const Volume& volume_;
    Nanoseconds listed_;
    RunControl& control_;
    ListedBaseline found_;
};

} // namespace

Result<ListedBaseline> takeListedBaseline(const Catalogue& catalogue, const ChecksumList& list,
                                          const BytePath& folder, Nanoseconds listed, RunControl& control,
                                          const ProgressSink& onProgress) {
    const auto volumes = Volumes(catalogue).all();
    RETURN_IF_FAILED(volumes);
    const auto root = realPathOf(folder).value_or(folder);
    const auto volume = volumeHolding(*volumes, root);
    RETURN_IF_FAILED(volume);
    const LedgerStore ledger(catalogue);
    const auto entry = ledger.open("verify", "holding a list against the catalogue", std::nullopt);
    RETURN_IF_FAILED(entry);
    Taker taker(catalogue, list, **volume, listed, control);
    Progress progress;
    progress.totalFiles = list.files.size();
    Outcome outcome = done();
    for (const auto& file : list.files) {
        if (!outcome || !control.proceed()) {
            break;
        }
        progress.at = displayPath(file.path);
        onProgress(progress);
        outcome = taker.take(file, *relativeTo(root, (*volume)->root));
        ++progress.files;
    }
    auto found = taker.finish();
    const auto summary = fmt::format("{} of a list: {} as listed, {} drifted, {} missing, {} not catalogued",
                                     counted(list.files.size(), "file"), humanCount(found.asListed),
                                     humanCount(found.drifted.size()), humanCount(found.missing.size()),
                                     humanCount(found.uncatalogued.size()));
    const auto closed = ledger.close(*entry, outcome ? summary : outcome.error().sentence);
    return !outcome ? Result<ListedBaseline>(outcome.error())
           : closed ? Result<ListedBaseline>(std::move(found))
                    : Result<ListedBaseline>(closed.error());
}

} // namespace sober
