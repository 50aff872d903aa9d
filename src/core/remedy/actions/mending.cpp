#include "core/remedy/actions/mending.h"

#include "core/base/file_handle.h"
#include "core/base/text.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/volumes.h"
#include "core/evidence/worker/inside_reader.h"
#include "core/remedy/actions/take_in.h"
#include "core/remedy/changes/file_changes.h"

#include <algorithm>
#include <array>
#include <map>
#include <memory>

namespace sober {
namespace {

std::optional<BytePath> pathAtHand(const Holding& holding, std::span<const Volume> volumes) {
    const auto volume = std::ranges::find(volumes, holding.volume, &Volume::id);
    return volume != volumes.end() && volume->atHand ? std::optional(joinPath(volume->root, holding.path))
                                                     : std::nullopt;
}

std::vector<bool> healthyBlocks(std::span<const Checksum128> recorded, std::span<const Checksum128> now) {
    std::vector<bool> healthy(recorded.size());
    for (std::size_t at = 0; at < std::min(recorded.size(), now.size()); ++at) {
        healthy[at] = recorded[at] == now[at];
    }
    return healthy;
}

/// What became of a holding: it drifted, or it is missing and is what was last recorded of it.
Result<Drift> lossOf(const FixityStore& store, const Holdings& holdings, HoldingId id) {
    auto drift = store.of(id);
    const auto found = holdings.byIds(std::array{id});
    if (!drift || !found) {
        return drift ? found.error() : drift.error();
    }
    if (*drift && (*drift)->accepted == 0) {
        return std::move(**drift);
    }
    const auto unreadable = store.unreadableOf(id);
    auto facts = store.factsOf(id);
    if (!unreadable || !facts) {
        return unreadable ? facts.error() : unreadable.error();
    }
    const bool isMissing = !found->empty() && found->front().state == HoldingState::missing;
    if (found->empty() || (!isMissing && unreadable->empty())) {
        return Error{Cause::invalid, {}, "It is what was recorded: there is nothing to mend."};
    }
    return Drift{id,
                 isMissing ? DriftKind::missing : DriftKind::audioAltered,
                 0,
                 facts->value_or(FixityFacts{}),
                 found->front().sha256,
                 0,
                 {}};
}

/// What the drive could not read of a file is not healthy, whatever its checksums were.
void leaveUnreadable(std::vector<bool>& healthy, std::span<const ByteRange> unreadable) {
    for (const auto& [first, past] : unreadable) {
        for (auto block = first / checksumBlock; block * checksumBlock < past && block < healthy.size();
             ++block) {
            healthy[block] = false;
        }
    }
}

/// One block of what was recorded, from the first source that still has it. `opened` are those that were
/// asked.
Outcome copyBlock(const Mending& mending, std::size_t block, const BytePath& to,
                  std::map<BytePath, Result<FileHandle>>& opened) {
    const auto& recorded = mending.drift.recorded;
    const std::uint64_t begins = block * std::uint64_t{checksumBlock};
    const auto length =
        static_cast<std::size_t>(std::min<std::uint64_t>(checksumBlock, recorded.size - begins));
    std::vector<std::uint8_t> bytes(length);
    for (const auto& source : mending.sources) {
        if (!source.healthy[block]) {
            continue;
        }
        if (!opened.contains(source.path)) {
            opened.emplace(source.path, openContent(source.path));
        }
        const auto& file = opened.at(source.path);
        const auto got = file ? readAt(*file, source.path, begins, bytes) : Result<std::size_t>(file.error());
        if (got && *got == length && checksumOf(bytes) == recorded.blocks[block]) {
            return appendTo(to, {reinterpret_cast<const char*>(bytes.data()), bytes.size()});
        }
    }
    return Error{Cause::damaged, to,
                 "Block " + humanCount(block + 1) + " could not be read sound from any copy any more."};
}

Outcome assembleAt(const Mending& mending, const BytePath& to, Unflushed& unflushed, RunControl& control) {
    if (const auto made = writeNewFile(to, {}, unflushed); !made) {
        return made;
    }
    std::map<BytePath, Result<FileHandle>> opened;
    for (std::size_t block = 0; block < mending.drift.recorded.blocks.size(); ++block) {
        if (!control.proceed()) {
            return Error{Cause::interrupted, to, "Stopped."};
        }
        if (const auto copied = copyBlock(mending, block, to, opened); !copied) {
            return copied;
        }
    }
    return done();
}

} // namespace

Result<Mending> mendingOf(const Catalogue& catalogue, HoldingId holding, std::span<const Volume> volumes) {
    const FixityStore store(catalogue);
    const Holdings holdings(catalogue);
    auto drift = lossOf(store, holdings, holding);
    RETURN_IF_FAILED(drift);
    Mending mending;
    mending.drift = std::move(*drift);
    const auto copies = store.carriersOf(mending.drift);
    const auto damaged = store.driftedFrom(mending.drift.recorded.content);
    if (!copies || !damaged) {
        return copies ? damaged.error() : copies.error();
    }
    for (const auto& copy : *copies) {
        const auto path = pathAtHand(copy, volumes);
        const auto unreadable = store.unreadableOf(copy.id);
        if (path && copy.id != holding && unreadable && unreadable->empty()) {
            mending.healthy.push_back(*path);
        }
    }
    const auto outside = store.outsideCopiesOf(mending.drift.recorded.content);
    RETURN_IF_FAILED(outside);
    std::ranges::copy(*outside, std::back_inserter(mending.healthy));
    // What was never recorded otherwise and cannot be read in part is a source of its other blocks.
    auto sources = *damaged;
    for (const auto& copy : *copies) {
        const auto unreadable = store.unreadableOf(copy.id);
        if (unreadable && !unreadable->empty()) {
            sources.push_back(copy.id);
        }
    }
    const auto others = holdings.byIds(sources);
    RETURN_IF_FAILED(others);
    std::vector<bool> any(mending.drift.recorded.blocks.size());
    for (const auto& other : *others) {
        const auto path = pathAtHand(other, volumes);
        const auto blocks = store.blocksOf(other.id);
        RETURN_IF_FAILED(blocks);
        if (path) {
            auto healthy = healthyBlocks(mending.drift.recorded.blocks, *blocks);
            if (const auto unreadable = store.unreadableOf(other.id)) {
                leaveUnreadable(healthy, *unreadable);
            }
            mending.sources.push_back({other.id, *path, std::move(healthy)});
            for (std::size_t at = 0; at < any.size(); ++at) {
                any[at] = any[at] || mending.sources.back().healthy[at];
            }
        }
    }
    mending.canBeAssembled =
        mending.sources.size() > 1 && !any.empty() && std::ranges::all_of(any, [](bool one) { return one; });
    return mending;
}

Result<FileRecord> makeMended(EvidenceWorker& worker, const Mending& mending, bool assemble,
                              const BytePath& to, RunControl& control) {
    Unflushed unflushed; // what is made is known once it has its place
    Error last{Cause::notFound, to, "No healthy copy of what was recorded is at hand."};
    const auto readMade = [&](const Outcome& made) -> Result<FileRecord> {
        auto record = made ? readBack(worker, to, control) : Result<FileRecord>(made.error());
        if (record && !mending.drift.isBaseline(record->checksums)) {
            record = Error{Cause::damaged, to, "What was taken for a healthy copy is not what was recorded."};
        }
        if (!record) {
            last = record.error();
            removeFile(to, unflushed).ok();
        }
        return record;
    };
    if (assemble) {
        return readMade(assembleAt(mending, to, unflushed, control));
    }
    for (const auto& path : mending.healthy) {
        auto record = readMade(copyToNew(path, to, unflushed));
        if (record || record.error().cause == Cause::interrupted) {
            return record;
        }
        last.sentence = displayPath(path) + ": " + last.sentence;
    }
    return last;
}

} // namespace sober
