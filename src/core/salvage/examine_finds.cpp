#include "core/salvage/examine_finds.h"

#include "core/base/byte_ranges.h"
#include "core/evidence/worker/evidence_worker.h"
#include "core/evidence/worker/image_bytes.h"
#include "core/salvage/recogniser.h"

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
                const auto record = examine(worker, *find);
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
    /// The ending of its name tells decoders and tag readers what it is.
    Result<FileRecord> examine(EvidenceWorker& worker, const Find& find) const {
        const auto ask = [&](const OpenedImage& image) {
            return worker.examinePart(image, image_.path, find.nameOrPlace(), find.extents, control_,
                                      [](std::uint64_t) {});
        };
        if (find.others.empty()) {
            return ask(image_.image);
        }
        auto image = openMeasured(image_.path, control_);
        const auto others = image ? openOthers(*image, find.others) : Outcome(image.error());
        return others ? ask(*image) : Result<FileRecord>(others.error());
    }

    Outcome takeIn(Find& find, const Result<FileRecord>& record) {
        if (!record) {
            if (!tellsOfTheFile(record.error())) {
                return control_.isCancelled() ? done() : Outcome(record.error());
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
        RETURN_IF_FAILED(taken);
        markUnread(find);
        if (!find.ends || find.overwritten) {
            find.sound = find.recognised == RecognisedBy::bytes ? find.sound : std::optional(false);
        }
        return store_.update(std::span(&find, 1));
    }

    /// What lies across places that were never read is not whole, however silent it is there.
    void markUnread(Find& find) const {
        const auto lost = overlapOf(find.extents, image_.unread);
        if (lost > 0 && find.bytes > 0 && find.recognised != RecognisedBy::bytes) {
            const auto share = 1 - static_cast<double>(lost) / static_cast<double>(find.bytes);
            find.complete = std::min(find.complete.value_or(1), share);
            find.sound = false;
        }
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
