#include "core/salvage/examine_finds.h"

#include "core/evidence/worker/evidence_worker.h"
#include "core/media/carve/piece.h"
#include "core/salvage/recogniser.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <mutex>
#include <thread>

namespace sober {
namespace {

class FindExamination {
  public:
    FindExamination(const Catalogue& catalogue, const ExaminedImage& image, RunControl& control)
        : catalogue_(catalogue), store_(catalogue), image_(image), control_(control) {}

    Outcome run(const std::vector<Find*>& waiting,
                const std::function<void(std::uint64_t, std::uint64_t)>& onExamined) {
        std::mutex taking;
        std::size_t next = 0;
        std::uint64_t files = 0;
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
                const auto record = worker.examinePart(image_.image, nameFor(*find), find->extents, control_,
                                                       [](std::uint64_t) {});
                const std::lock_guard lock(taking);
                bytes += find->bytes;
                ++files;
                if (const auto taken = takeIn(*find, record); !taken) {
                    failed = taken.error();
                }
                onExamined(files, bytes);
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

  private:
    /// The ending tells decoders and tag readers what it is.
    BytePath nameFor(const Find& find) const {
        if (!find.name.empty()) {
            return find.name;
        }
        const auto kind = pieceKindOf(find.format);
        return fmt::format("{}.{}", (find.extents.empty() ? 0 : find.extents.front().first),
                           kind ? endingFor(*kind) : "audio");
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
            for (const auto& [from, to] : image_.unread) {
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

    const Catalogue& catalogue_;
    SalvageStore store_;
    const ExaminedImage& image_;
    RunControl& control_;
};

} // namespace

Outcome examineFinds(const Catalogue& catalogue, const ExaminedImage& image, const std::vector<Find*>& finds,
                     RunControl& control,
                     const std::function<void(std::uint64_t, std::uint64_t)>& onExamined) {
    return FindExamination(catalogue, image, control).run(finds, onExamined);
}

} // namespace sober
