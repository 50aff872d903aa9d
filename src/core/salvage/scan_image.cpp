#include "core/salvage/scan_image.h"

#include "core/base/text.h"
#include "core/evidence/worker/answers.h"
#include "core/evidence/worker/evidence_worker.h"
#include "core/evidence/worker/image_bytes.h"
#include "core/salvage/examine_finds.h"
#include "core/salvage/image_map.h"
#include "core/salvage/lenders.h"
#include "core/salvage/part_memory.h"
#include "core/salvage/recogniser.h"
#include "core/salvage/unite_finds.h"

#include <fmt/format.h>

#include <algorithm>
#include <chrono>
#include <future>
#include <set>

namespace sober {
namespace {

constexpr std::uint64_t stretch = 64U << 20; // bytes between two writes of the catalogue
/// With less of its blocks a missing holding is not laid together; its pieces stay finds of their own. No
/// source.
constexpr double leastProven = 0.05;

/// In order, and what overlaps or touches as one: folders that are broken give clusters out twice.
std::vector<ByteRange> merged(std::vector<ByteRange> ranges) {
    std::ranges::sort(ranges);
    std::vector<ByteRange> all;
    for (const auto& range : ranges) {
        if (!all.empty() && range.first <= all.back().second) {
            all.back().second = std::max(all.back().second, range.second);
        } else {
            all.push_back(range);
        }
    }
    return all;
}

class ImageScan {
  public:
    ImageScan(const Catalogue& catalogue, const ScanChoices& choices, RunControl& control,
              const ProgressSink& onProgress, const std::function<void()>& onFound)
        : catalogue_(catalogue),
          store_(catalogue),
          choices_(choices),
          control_(control),
          onProgress_(onProgress),
          onFound_(onFound) {}

    Result<SalvageSource> run() {
        for (const auto phase : {&ImageScan::begin, &ImageScan::readNames, &ImageScan::scan, &ImageScan::join,
                                 &ImageScan::examineAll, &ImageScan::layTogether, &ImageScan::conclude}) {
            RETURN_IF_FAILED((this->*phase)());
            if (control_.isCancelled()) {
                break;
            }
        }
        return source_;
    }

  private:
    Outcome begin() {
        auto image = openMeasured(choices_.image, control_);
        RETURN_IF_FAILED(image);
        image_ = std::move(*image);
        bytes_ = bytesOf(image_, choices_.image);
        auto unread = unreadOf(choices_.image);
        RETURN_IF_FAILED(unread);
        unread_ = std::move(*unread);
        if (image_.size == 0) {
            return Error{Cause::invalid, choices_.image, displayPath(choices_.image) + " is empty."};
        }
        const auto before = store_.sourceOf(choices_.image);
        RETURN_IF_FAILED(before);
        const bool goesOn = *before && !choices_.anew && (*before)->size == image_.size &&
                            (*before)->mtime == image_.mtime && (*before)->kinds == choices_.kinds.bits() &&
                            (*before)->everywhere == choices_.everywhere;
        if (goesOn) {
            source_ = **before;
            return done();
        }
        source_ = {0,
                   choices_.image,
                   image_.size,
                   image_.mtime,
                   choices_.kinds.bits(),
                   choices_.everywhere,
                   0,
                   SalvageState::scanning,
                   timeNow(),
                   {}};
        const auto id = store_.begin(source_);
        RETURN_IF_FAILED(id);
        source_.id = *id;
        return done();
    }

    /// What file systems know: places of what is there, which needs no salvage, and names of what was
    /// deleted.
    Outcome readNames() {
        if (source_.state != SalvageState::scanning) {
            return done();
        }
        EvidenceWorker worker(namesLimits());
        const auto systems = worker.fileSystems(image_, choices_.image, control_);
        if (!systems) {
            // A file system that breaks its reader names nothing; what lies there is found by its form.
            if (!tellsOfTheFile(systems.error())) {
                return stopped(systems.error());
            }
            source_.fileSystems = "a file system that cannot be read";
            return store_.advance(source_, {});
        }
        std::vector<Find> named;
        std::set<std::string> types;
        for (const auto& system : *systems) {
            types.insert(system.type);
            for (const auto& entry : system.entries) {
                if (entry.extents.empty()) {
                    continue;
                }
                if (entry.deleted) {
                    named.push_back(findOf(entry));
                } else if (!choices_.everywhere) {
                    present_.insert(present_.end(), entry.extents.begin(), entry.extents.end());
                }
            }
        }
        present_ = merged(std::move(present_));
        if (source_.reached > 0) {
            return done(); // they were taken in when it began
        }
        source_.fileSystems.clear();
        for (const auto& type : types) {
            source_.fileSystems += (source_.fileSystems.empty() ? "" : ", ") + type;
        }
        return store_.advance(source_, named);
    }

    /// By the one who asked, whom the source tells how far it came; or by others, which is said.
    Outcome stopped(const Error& error) const { return control_.isCancelled() ? done() : Outcome(error); }

    static WorkerLimits namesLimits() {
        WorkerLimits limits;
        limits.seconds = 600;
        return limits;
    }

    static Find findOf(const ImageEntry& entry) {
        Find find;
        find.how = FoundHow::entry;
        find.extents = entry.extents;
        find.bytes = entry.size;
        find.name = BytePath(nameOf(entry.path));
        find.from = entry.path;
        find.overwritten = entry.overwritten;
        find.ends = !entry.overwritten;
        return find;
    }

    static Find findOf(const Piece& piece) {
        Find find;
        find.how = FoundHow::carved;
        find.format = std::string(word(piece.kind));
        find.extents = {{piece.first, piece.past}};
        find.bytes = piece.past - piece.first;
        find.seconds = piece.seconds;
        find.begins = piece.begins;
        find.ends = piece.ends;
        if (!piece.begins || !piece.ends) {
            find.piece = packed(shapeOf(piece));
        }
        if (piece.emptyFrom > piece.first) {
            find.complete = static_cast<double>(piece.emptyFrom - piece.first) /
                            static_cast<double>(piece.past - piece.first);
        }
        return find;
    }

    void report(std::uint64_t bytes, std::uint64_t total, const std::string& at) {
        progress_.bytes = bytes;
        progress_.totalBytes = total;
        progress_.at = at;
        progress_.elapsed = std::chrono::duration<double>(std::chrono::steady_clock::now() - began_).count();
        onProgress_(progress_);
    }

    Outcome scan() {
        auto memory = PartMemory::of(catalogue_);
        RETURN_IF_FAILED(memory);
        memory_ = std::move(*memory);
        if (source_.state != SalvageState::scanning) {
            return done();
        }
        began_ = std::chrono::steady_clock::now();
        const auto from = source_.reached;
        EvidenceWorker worker;
        while (source_.reached < source_.size && control_.proceed()) {
            const auto to = std::min(source_.reached + stretch, source_.size);
            const ScanRequest request{source_.reached, to, choices_.kinds,
                                      presentWithin(source_.reached, to)};
            std::vector<MetStart> met;
            // While one processor follows formats, another looks for remembered parts.
            auto lookingUp =
                std::async(std::launch::async, [&] { return lookUpParts(request.from, request.to, met); });
            std::uint64_t bytes = 0;
            const auto scanned =
                worker.scan(image_, choices_.image, request, control_, [&](std::uint64_t more) {
                    bytes += more;
                    report(source_.reached - from + bytes, source_.size - from, "looking through the image");
                });
            lookingUp.get();
            if (!scanned) {
                if (!tellsOfTheFile(scanned.error())) {
                    return stopped(scanned.error());
                }
                // What breaks its reader is passed over, and said.
                source_.passedOver.emplace_back(request.from, request.to);
                source_.passedOver = merged(std::move(source_.passedOver));
                source_.reached = request.to;
                ++progress_.errors;
                if (const auto passed = store_.advance(source_, {}, met); !passed) {
                    return passed;
                }
                continue;
            }
            if (scanned->reached <= source_.reached || control_.isCancelled()) {
                return done();
            }
            std::vector<Find> found;
            std::ranges::transform(scanned->pieces, std::back_inserter(found),
                                   [](const Piece& piece) { return findOf(piece); });
            if (scanned->reached > request.to) {
                lookUpParts(request.to, scanned->reached, met);
            }
            source_.reached = scanned->reached;
            progress_.files += found.size();
            if (const auto kept = store_.advance(source_, found, met); !kept) {
                return kept;
            }
            onFound_();
        }
        if (source_.reached >= source_.size) {
            source_.state = SalvageState::examining;
            return store_.advance(source_, {});
        }
        return done();
    }

    /// What file systems give out from a place on, and somewhat beyond another.
    std::vector<ByteRange> presentWithin(std::uint64_t from, std::uint64_t to) const {
        std::vector<ByteRange> within;
        const auto first = std::ranges::upper_bound(present_, from, {}, &ByteRange::second);
        std::copy_if(first, present_.end(), std::back_inserter(within),
                     [&](const ByteRange& range) { return range.first < to + stretch; });
        return within;
    }

    void lookUpParts(std::uint64_t from, std::uint64_t to, std::vector<MetStart>& met) {
        if (memory_.isEmpty()) {
            return;
        }
        constexpr std::size_t piece = 1U << 20;
        std::vector<std::uint8_t> bytes(piece + partStart);
        for (auto at = from; at < to && !control_.isCancelled(); at += piece) {
            const auto length = static_cast<std::size_t>(std::min<std::uint64_t>(piece, to - at));
            const auto got = bytes_->readAt(at, std::span(bytes).first(length + partStart));
            if (got > 0) {
                memory_.lookUp(std::span(bytes).first(static_cast<std::size_t>(got)), length, at, met);
            }
        }
    }

    /// What breaks off and what begins in its middle, where the format proves that they are one.
    Outcome join() {
        auto finds =
            source_.state == SalvageState::examining ? store_.finds(source_.id) : Result(std::vector<Find>{});
        RETURN_IF_FAILED(finds);
        std::vector<Piece> pieces;
        std::vector<FindId> ids;
        for (const auto& find : *finds) {
            const auto shape = find.piece.empty() || find.examined ? Json() : unpacked(find.piece);
            if (shape.is_array()) {
                takeFrom(shape, pieces.emplace_back());
                ids.push_back(find.id);
            }
        }
        if (pieces.size() < 2) {
            return done();
        }
        EvidenceWorker worker(namesLimits());
        const auto joined = worker.join(image_, choices_.image, pieces, control_);
        if (!joined) {
            return tellsOfTheFile(joined.error()) ? done() : stopped(joined.error());
        }
        std::vector<FindId> parts;
        std::vector<Find> wholes;
        for (const auto& each : *joined) {
            auto find = findOf(each.piece);
            find.extents = each.extents;
            find.bytes = lengthOf(each.extents);
            find.piece.clear(); // it is not joined again
            wholes.push_back(std::move(find));
            for (const auto part : each.parts) {
                parts.push_back(ids.at(part));
            }
        }
        const auto removed = store_.remove(parts);
        return removed ? store_.advance(source_, wholes) : removed;
    }

    /// Every find that was not looked at yet, one on each processor.
    Outcome examineAll() {
        auto finds = store_.finds(source_.id);
        RETURN_IF_FAILED(finds);
        if (source_.state != SalvageState::examining) {
            return done();
        }
        std::vector<Find*> waiting;
        std::uint64_t total = 0;
        for (auto& find : *finds) {
            if (!find.examined) {
                waiting.push_back(&find);
                total += find.bytes;
            }
        }
        return examine(waiting, total);
    }

    Outcome examine(const std::vector<Find*>& waiting, std::uint64_t total) {
        began_ = std::chrono::steady_clock::now();
        progress_.totalFiles = waiting.size();
        return examineFinds(catalogue_, {image_, choices_.image, unread_}, waiting, control_,
                            [&](std::uint64_t files, std::uint64_t bytes) {
                                progress_.files = files;
                                report(bytes, total, "examining what was found");
                                onFound_();
                            });
    }

    /// Missing holdings from their parts; what they are made of is no find of its own then, nor what a name
    /// and a form have found alike.
    Outcome layTogether() {
        if (source_.state != SalvageState::examining) {
            return done();
        }
        auto finds = store_.finds(source_.id);
        const auto met = store_.starts(source_.id);
        if (!finds || !met) {
            return finds ? met.error() : finds.error();
        }
        // Of a run that was stopped while these were examined.
        std::vector<FindId> former;
        for (const auto& find : *finds) {
            if (find.how == FoundHow::blocks) {
                former.push_back(find.id);
            }
        }
        std::erase_if(*finds, [](const Find& find) { return find.how == FoundHow::blocks; });
        if (const auto removed = store_.remove(former); !removed) {
            return removed;
        }
        if (const auto united = uniteNames(store_, *finds); !united) {
            return united;
        }
        std::set<Checksum128> known;
        std::vector<std::uint64_t> boundaries;
        for (const auto& find : *finds) {
            if (find.recognised == RecognisedBy::bytes) {
                known.insert(*find.checksum);
            }
            if (!find.extents.empty()) {
                const auto past = find.extents.back().second;
                boundaries.push_back((past + unit_ - 1) / unit_ * unit_);
            }
        }
        for (const auto& [first, past] : present_) {
            boundaries.push_back((past + unit_ - 1) / unit_ * unit_);
        }
        std::ranges::sort(boundaries);
        boundaries.erase(std::ranges::unique(boundaries).begin(), boundaries.end());
        auto assembled = memory_.assemble(*bytes_, *met, boundaries, known, control_);
        auto lenders = lendersFor(assembled);
        RETURN_IF_FAILED(lenders);
        std::vector<Find> laid;
        for (auto& each : assembled) {
            std::vector<BytePath> others;
            lendTo(each, memory_.remembered(each.holding), (*lenders)[each.size], others);
            if (static_cast<double>(each.proven) < leastProven * static_cast<double>(each.size)) {
                continue;
            }
            Find find;
            find.how = FoundHow::blocks;
            find.bytes = each.size;
            find.extents = std::move(each.extents);
            find.others = std::move(others);
            find.holding = each.holding;
            find.recognised = RecognisedBy::blocks;
            find.complete = static_cast<double>(each.proven) / static_cast<double>(each.size);
            find.agreement = *find.complete;
            find.ends = each.proven == each.size;
            laid.push_back(std::move(find));
        }
        if (control_.isCancelled()) {
            return done();
        }
        const auto removed = store_.remove(partsOf(*finds, laid));
        const auto kept = removed ? store_.advance(source_, laid) : removed;
        if (!kept) {
            return kept;
        }
        std::vector<Find*> waiting;
        std::uint64_t total = 0;
        for (auto& find : laid) {
            waiting.push_back(&find);
            total += find.bytes;
        }
        return examine(waiting, total);
    }

    /// Files that are as long as what was laid together and is not whole; not more than can be tried in a
    /// moment.
    Result<std::map<std::uint64_t, std::vector<BytePath>>>
    lendersFor(std::span<const Assembled> assembled) const {
        constexpr std::size_t mostTried = 64;
        std::vector<std::uint64_t> sizes;
        for (const auto& each : assembled) {
            if (!each.lost.empty()) {
                sizes.push_back(each.size);
            }
        }
        std::map<std::uint64_t, std::vector<BytePath>> lenders;
        const auto files =
            sizes.empty() ? Result(std::multimap<std::uint64_t, BytePath>{}) : store_.filesOfSizes(sizes);
        RETURN_IF_FAILED(files);
        for (const auto& [size, path] : *files) {
            if (auto& tried = lenders[size]; tried.size() < mostTried) {
                tried.push_back(path);
            }
        }
        return lenders;
    }

    Outcome conclude() {
        if (source_.state != SalvageState::examining) {
            return done();
        }
        auto finds = store_.finds(source_.id);
        RETURN_IF_FAILED(finds);
        if (const auto shared = shareOut(catalogue_, *finds); !shared) {
            return shared;
        }
        if (const auto heard = recogniseByEar(catalogue_, *finds); !heard) {
            return heard;
        }
        const auto updated = store_.update(*finds);
        source_.state = SalvageState::done;
        const auto kept = updated ? store_.advance(source_, {}) : updated;
        onFound_();
        return kept;
    }

    const Catalogue& catalogue_;
    SalvageStore store_;
    const ScanChoices& choices_;
    RunControl& control_;
    const ProgressSink& onProgress_;
    const std::function<void()>& onFound_;
    OpenedImage image_;
    std::unique_ptr<ByteSource> bytes_;
    SalvageSource source_;
    PartMemory memory_;
    std::vector<ByteRange> present_; ///< what file systems give out
    std::vector<ByteRange> unread_;  ///< what is not in the image
    Progress progress_;
    std::chrono::steady_clock::time_point began_ = std::chrono::steady_clock::now();
    static constexpr std::uint64_t unit_ = 4096;
};

} // namespace

Result<SalvageSource> scanForAudio(const Catalogue& catalogue, const ScanChoices& choices,
                                   RunControl& control, const ProgressSink& onProgress,
                                   const std::function<void()>& onFound) {
    return ImageScan(catalogue, choices, control, onProgress, onFound).run();
}

} // namespace sober
