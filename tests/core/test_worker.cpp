#include "core/evidence/packed_evidence.h"
#include "core/evidence/worker/evidence_worker.h"
#include "support/examined.h"
#include "support/run_program.h"
#include "support/small_audio.h"
#include "support/sound.h"

#include <catch2/catch.hpp>

#include <csignal>
#include <filesystem>
#include <fstream>
#include <thread>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

void checkSame(const Evidence& packed, const Evidence& fresh) {
    CHECK(packed.payload == fresh.payload);
    CHECK(packed.samplesMd5 == fresh.samplesMd5);
    CHECK(packed.seconds == fresh.seconds);
    CHECK(packed.levels.rms == fresh.levels.rms);
    CHECK(packed.levels.effectiveBitDepth == fresh.levels.effectiveBitDepth);
    CHECK(packed.bandwidth->cutoff == fresh.bandwidth->cutoff);
    CHECK(packed.verdict.verdict == fresh.verdict.verdict);
    CHECK(packed.verdict.reasons == fresh.verdict.reasons);
    CHECK(packed.problems.size() == fresh.problems.size());
    REQUIRE(packed.trace.highest.has_value() == fresh.trace.highest.has_value());
    if (fresh.trace.highest) {
        CHECK(packed.trace.highest->strength == fresh.trace.highest->strength);
        CHECK(packed.trace.highest->excess.size() == fresh.trace.highest->excess.size());
        const auto peak = fresh.trace.highest->offset;
        CHECK(packed.trace.highest->excess[peak] == Approx(fresh.trace.highest->excess[peak]).epsilon(0.02));
    }
}

} // namespace

TEST_CASE("evidence survives being packed, and half of it is no evidence") {
    const TempFolder folder;
    writeMusic(folder / "a.wav", 3, 8);
    ffmpeg({"-i", folder / "a.wav", "-b:a", "128k", folder / "a.mp3"});
    for (const auto* name : {"a.wav", "a.mp3"}) {
        const auto record = recordOf(folder / name);
        REQUIRE(record.ok());
        const auto bytes = packEvidence(*record->evidence);
        const auto again = unpackEvidence(bytes);
        REQUIRE(again.has_value());
        checkSame(*again, *record->evidence);
        CHECK(again->spectrum->mean.size() <= 512);
        for (const double hertz : {500.0, 5000.0, 12'000.0}) {
            const auto& fine = *record->evidence->spectrum;
            const auto& coarse = *again->spectrum;
            CHECK(coarse.high[static_cast<std::size_t>(hertz / coarse.binWidth)] ==
                  Approx(fine.high[static_cast<std::size_t>(hertz / fine.binWidth)]).margin(12));
        }
        for (const std::size_t length :
             {std::size_t{0}, std::size_t{1}, bytes.size() / 2, bytes.size() - 1}) {
            CHECK_FALSE(unpackEvidence(std::string_view(bytes).substr(0, length)).has_value());
        }
        const auto whole = unpackRecord(packRecord(*record));
        REQUIRE((whole.has_value() && whole->ok()));
        CHECK((*whole)->checksums.file == record->checksums.file);
        CHECK((*whole)->checksums.sha256 == record->checksums.sha256);
        CHECK((*whole)->claims == record->claims);
        CHECK((*whole)->stamp == record->stamp);
        CHECK((*whole)->evidence->fingerprint == record->evidence->fingerprint);
    }
    const BytePath odd = "/a/\xFF"
                         "b";
    const auto error = unpackRecord(packRecord(Error{Cause::changed, odd, "It changed."}));
    REQUIRE((error.has_value() && !error->ok()));
    CHECK(error->error().cause == Cause::changed);
    CHECK(error->error().path == odd);
    CHECK_FALSE(unpackRecord("nonsense").has_value());
}

TEST_CASE("a worker answers as an examination in this process does, file after file") {
    const TempFolder folder;
    writeMusic(folder / "a.wav", 4, 6);
    writeFile(folder / "text.mp3", "no sound at all");
    EvidenceWorker worker;
    RunControl control;
    std::uint64_t passed = 0;
    const auto onBytes = [&](std::uint64_t bytes) { passed += bytes; };
    for (int i = 0; i < 3; ++i) {
        const auto refused = worker.examine(folder / "text.mp3", control, onBytes);
        REQUIRE_FALSE(refused.ok());
        CHECK(refused.error().cause == Cause::notAudio);
        passed = 0;
        const auto record = worker.examine(folder / "a.wav", control, onBytes);
        REQUIRE((record.ok() && record->evidence));
        CHECK(passed == record->stamp.size);
        checkSame(*record->evidence, *examined(folder / "a.wav"));
    }
    CHECK(children().size() == 1);
    CHECK(worker.examine(folder / "none.wav", control, onBytes).error().cause == Cause::notFound);
}

TEST_CASE("what breaks the worker or never ends costs one file") {
    const TempFolder folder;
    // Long enough to be caught in the middle, on a fast machine too; few bytes, so that it is quick to write.
    ffmpeg({"-f", "lavfi", "-i", "anoisesrc=d=10:c=pink:r=44100", "-c:a", "pcm_u8", folder / "short.wav"});
    ffmpeg({"-stream_loop", "299", "-i", folder / "short.wav", "-c:a", "copy", folder / "long.wav"});
    writeMusic(folder / "a.wav", 5, 3);
    RunControl control;
    std::uint64_t passed = 0;
    const auto onBytes = [&](std::uint64_t bytes) { passed += bytes; };
    SECTION("killed in the middle") {
        EvidenceWorker worker;
        std::jthread killer([] {
            while (children().empty()) {
                std::this_thread::sleep_for(std::chrono::milliseconds(5));
            }
            std::this_thread::sleep_for(std::chrono::milliseconds(150));
            for (const auto child : children()) {
                kill(child, SIGSEGV);
            }
        });
        const auto record = worker.examine(folder / "long.wav", control, onBytes);
        REQUIRE(record.ok());
        CHECK(record->problem.find("Segmentation fault") != std::string::npos);
        CHECK_FALSE(record->evidence.has_value());
        CHECK(record->checksums.file.hex() == run({"xxhsum", "-H2", folder / "long.wav"}).out.substr(0, 32));
        CHECK(passed == record->stamp.size);
        CHECK(worker.examine(folder / "a.wav", control, onBytes)->evidence.has_value());
    }
    SECTION("longer than it may") {
        EvidenceWorker worker(WorkerLimits{2ULL << 30, 1, 0});
        const auto record = worker.examine(folder / "long.wav", control, onBytes);
        REQUIRE(record.ok());
        CHECK(record->problem.find("took longer") != std::string::npos);
        CHECK(worker.examine(folder / "a.wav", control, onBytes)->evidence.has_value());
    }
    SECTION("more memory than it may") {
        EvidenceWorker worker(WorkerLimits{48U << 20, 60, 0});
        const auto record = worker.examine(folder / "long.wav", control, onBytes);
        REQUIRE(record.ok());
        CHECK(record->problem.find("could not be examined") != std::string::npos);
        CHECK(record->checksums.file.hex() == run({"xxhsum", "-H2", folder / "long.wav"}).out.substr(0, 32));
    }
    SECTION("cancelled") {
        EvidenceWorker worker;
        std::jthread canceller([&] {
            std::this_thread::sleep_for(std::chrono::milliseconds(200));
            control.cancel();
        });
        const auto record = worker.examine(folder / "long.wav", control, onBytes);
        REQUIRE_FALSE(record.ok());
        CHECK(record.error().cause == Cause::interrupted);
        CHECK(children().empty());
    }
}
