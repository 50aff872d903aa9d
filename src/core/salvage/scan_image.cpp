#include "core/salvage/scan_image.h"

#include "core/base/text.h"
#include "core/evidence/worker/answers.h"
#include "core/evidence/worker/evidence_worker.h"
#include "core/salvage/image_map.h"
#include "core/salvage/part_memory.h"
#include "core/salvage/recogniser.h"

#include <fmt/format.h>

#include <algorithm>
#include <chrono>
#include <future>
#include <map>
#include <mutex>
#include <set>
#include <thread>

namespace sober {
namespace {

constexpr std::uint64_t stretch = 64U << 20; // bytes between two writes of the catalogue
/// So much of a piece lies in what was laid together: then it is a part of that, and no find of its own.
constexpr double mostly = 0.9;
/// With less of its blocks a missing holding is not laid together; its pieces stay finds of their own. No
/// source.
constexpr double leastProven = 0.05;

std::uint64_t beginningOf(const Find& find) {
    return find.extents.empty() ? 0 : find.extents.front().first;
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
            if (const auto taken = (this->*phase)(); !taken) {
                return taken.error();
            }
            if (control_.isCancelled()) {
                break;
            }
        }
        return source_;
    }

  private:
    Outcome begin() {
        auto image = openImage(choices_.image);
        if (!image) {
            return image.error();
        }
        image_ = std::move(*image);
        bytes_ = std::make_unique<OpenFileSource>(image_.file, choices_.image, image_.size);
        auto unread = unreadOf(choices_.image);
        if (!unread) {
            return unread.error();
        }
        unread_ = std::move(*unread);
        if (image_.size == 0) {
            return Error{Cause::invalid, choices_.image, displayPath(choices_.image) + " is empty."};
        }
        const auto before = store_.sourceOf(choices_.image);
        if (!before) {
            return before.error();
        }
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
        if (!id) {
            return id.error();
        }
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
            return systems.error().cause == Cause::unreadable ? done() : Outcome(systems.error());
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
        std::ranges::sort(present_);
        if (source_.reached > 0) {
            return done(); // they were taken in when it began
        }
        source_.fileSystems.clear();
        for (const auto& type : types) {
            source_.fileSystems += (source_.fileSystems.empty() ? "" : ", ") + type;
        }
        return store_.advance(source_, named);
    }

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
        if (!memory) {
            return memory.error();
        }
        memory_ = std::move(*memory);
        if (source_.state != SalvageState::scanning) {
            return done();
        }
        began_ = std::chrono::steady_clock::now();
        const auto from = source_.reached;
        EvidenceWorker worker;
        while (source_.reached < source_.size && control_.proceed()) {
            ScanRequest request{source_.reached, std::min(source_.reached + stretch, source_.size),
                                choices_.kinds, present_};
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
                if (scanned.error().cause == Cause::interrupted) {
                    return done();
                }
                // What breaks its reader is passed over, and said.
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
        if (!finds) {
            return finds.error();
        }
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
            return joined.error().cause == Cause::unreadable || joined.error().cause == Cause::interrupted
                       ? done()
                       : Outcome(joined.error());
        }
        std::vector<FindId> parts;
        std::vector<Find> wholes;
        for (const auto& each : *joined) {
            auto find = findOf(each.piece);
            find.extents = each.extents;
            find.bytes = 0;
            for (const auto& [first, past] : each.extents) {
                find.bytes += past - first;
            }
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
        if (!finds) {
            return finds.error();
        }
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
        progress_.files = 0;
        progress_.totalFiles = waiting.size();
        std::mutex taking;
        std::size_t next = 0;
        std::uint64_t bytes = 0;
        std::optional<Error> failed;
        const auto work = [&] {
            EvidenceWorker worker;
            while (true) {
                Find* find = nullptr;
                {
                    const std::lock_guard lock(taking);
                    if (next == waiting.size() || failed || !control_.proceed()) {
                        return;
                    }
                    find = waiting[next++];
                }
                const auto record =
                    worker.examinePart(image_, nameFor(*find), find->extents, control_, [](std::uint64_t) {});
                const std::lock_guard lock(taking);
                bytes += find->bytes;
                ++progress_.files;
                if (const auto taken = takeIn(*find, record); !taken) {
                    failed = taken.error();
                }
                report(bytes, total, "examining what was found");
                onFound_();
            }
        };
        {
            std::vector<std::jthread> threads;
            const auto count =
                std::min<std::size_t>(std::max(1U, std::thread::hardware_concurrency()), waiting.size());
            for (std::size_t i = 0; i < count; ++i) {
                threads.emplace_back(work);
            }
        }
        return failed ? Outcome(*failed) : done();
    }

    /// The ending tells decoders and tag readers what it is.
    BytePath nameFor(const Find& find) const {
        if (!find.name.empty()) {
            return find.name;
        }
        const auto kind = pieceKindOf(find.format);
        return fmt::format("{}.{}", beginningOf(find), kind ? endingFor(*kind) : "audio");
    }

    Outcome takeIn(Find& find, const Result<FileRecord>& record) {
        if (!record) {
            if (record.error().cause == Cause::interrupted) {
                return done();
            }
            if (find.how == FoundHow::entry) {
                return store_.remove(
                    std::array{find.id}); // a name whose content is no audio, or not any more
            }
            find.examined = true;
            find.sound = false;
            return store_.update(std::span(&find, 1));
        }
        const auto taken = takeDown(catalogue_, find, *record);
        if (!taken) {
            return taken.error();
        }
        if (find.format.empty()) {
            find.format = formatWord(record->claims.container);
        }
        markUnread(find);
        if (!find.ends || find.overwritten) {
            find.sound = find.recognised == RecognisedBy::bytes ? find.sound : std::optional(false);
        }
        return store_.update(std::span(&find, 1));
    }

    /// What lies across places that were never read is not whole, however silent it is there.
    void markUnread(Find& find) const {
        std::uint64_t lost = 0;
        for (const auto& [first, past] : find.extents) {
            for (const auto& [from, to] : unread_) {
                const auto begin = std::max(first, from);
                const auto end = std::min(past, to);
                lost += end > begin ? end - begin : 0;
            }
        }
        if (lost > 0 && find.bytes > 0 && find.recognised != RecognisedBy::bytes) {
            const auto share = 1 - static_cast<double>(lost) / static_cast<double>(find.bytes);
            find.complete = std::min(find.complete.value_or(1), share);
            find.sound = false;
        }
    }

    static std::string formatWord(const std::string& container) {
        return pieceKindOf(container) ? container : container == "m4a" ? "mp4" : container;
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
        if (const auto united = uniteNames(*finds); !united) {
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
        std::vector<Find> laid;
        for (auto& each : assembled) {
            if (static_cast<double>(each.proven) < leastProven * static_cast<double>(each.size)) {
                continue;
            }
            Find find;
            find.how = FoundHow::blocks;
            find.bytes = each.size;
            find.extents = std::move(each.extents);
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
        std::vector<FindId> parts;
        for (const auto& find : *finds) {
            if (find.recognised == RecognisedBy::bytes) {
                continue;
            }
            const auto whole =
                std::ranges::find_if(laid, [&](const Find& each) { return isPartOf(find, each); });
            if (whole != laid.end()) {
                parts.push_back(find.id);
                if (whole->name.empty() && beginningOf(find) == beginningOf(*whole)) {
                    whole->name = find.name;
                    whole->from = find.from;
                }
            }
        }
        const auto removed = store_.remove(parts);
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

    /// Or it begins as that does, and goes on where a file system that knows no better, or nobody, said it
    /// would.
    static bool isPartOf(const Find& find, const Find& whole) {
        if (beginningOf(find) == beginningOf(whole)) {
            return true;
        }
        std::uint64_t within = 0;
        for (const auto& [first, past] : find.extents) {
            for (const auto& [from, to] : whole.extents) {
                const auto begin = std::max(first, from);
                const auto end = std::min(past, to);
                within += end > begin ? end - begin : 0;
            }
        }
        return static_cast<double>(within) >= mostly * static_cast<double>(find.bytes);
    }

    /// What a name points to and what its form shows begin at one place: the better of both stays, by its
    /// name.
    Outcome uniteNames(std::vector<Find>& finds) {
        std::map<std::uint64_t, Find*> named;
        for (auto& find : finds) {
            if (find.how == FoundHow::entry && !find.extents.empty()) {
                named.emplace(beginningOf(find), &find);
            }
        }
        std::vector<FindId> less;
        std::vector<Find> changed;
        for (auto& find : finds) {
            const auto same = find.how == FoundHow::carved ? named.find(beginningOf(find)) : named.end();
            if (same == named.end()) {
                continue;
            }
            auto& entry = *same->second;
            const bool carvedIsBetter = entry.sound != true && find.sound == true;
            if (carvedIsBetter) {
                find.name = entry.name;
                find.from = entry.from;
                changed.push_back(find);
            }
            less.push_back(carvedIsBetter ? entry.id : find.id);
        }
        const auto updated = store_.update(changed);
        const auto removed = updated ? store_.remove(less) : updated;
        std::erase_if(finds,
                      [&](const Find& find) { return std::ranges::find(less, find.id) != less.end(); });
        return removed;
    }

    Outcome conclude() {
        if (source_.state != SalvageState::examining) {
            return done();
        }
        auto finds = store_.finds(source_.id);
        if (!finds) {
            return finds.error();
        }
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
    std::unique_ptr<OpenFileSource> bytes_;
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
