#include "core/base/text.h"
#include "core/evidence/checksumming_source.h"
#include "core/evidence/checksums.h"
#include "core/evidence/compare_content.h"
#include "core/evidence/examination.h"
#include "support/run_program.h"
#include "support/small_audio.h"
#include "support/temp_folder.h"

#include <catch2/catch.hpp>
#include <sys/stat.h>

#include <fcntl.h>
#include <filesystem>

using namespace sober;
using namespace sober::test;

namespace {

FileChecksums checksumsOf(const std::string& content, bool sha256 = false) {
    ChecksumPass pass(sha256);
    constexpr std::size_t odd = 100'003; // pieces end where blocks do not
    for (std::size_t at = 0; at < content.size(); at += odd) {
        pass.feed(
            {reinterpret_cast<const std::uint8_t*>(content.data()) + at, std::min(odd, content.size() - at)});
    }
    return pass.finish();
}

std::string firstWord(const std::string& text) {
    return text.substr(0, text.find(' '));
}

} // namespace

// FIPS 180-4 examples (NIST "SHA-256 example"), the one-block, two-block and million-a messages.
TEST_CASE("SHA-256 gives the published digests") {
    const auto [message, digest] = GENERATE(table<std::string, std::string>({
        {"abc", "ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad"},
        {"abcdbcdecdefdefgefghfghighijhijkijkljklmklmnlmnomnopnopq",
         "248d6a61d20638b8e5c026930c3e6039a33ce45964ff2167f6ecedd419db06c1"},
        {std::string(1'000'000, 'a'), "cdc76e5c9914fb9281a1c7e284d73e67f1809a48a497200e046d39ccc7112cd0"},
    }));
    CHECK(toHex(*checksumsOf(message, true).sha256) == digest);
}

TEST_CASE("checksums agree with xxhsum and sha256sum, in whole and by block") {
    const TempFolder folder;
    for (const std::size_t size : {std::size_t{1}, std::size_t{240}, std::size_t{241}, checksumBlock,
                                   checksumBlock + 1, 3 * checksumBlock - 7}) {
        std::string content = smallWav(5, 40).substr(0, size);
        content.resize(size, 'x');
        writeFile(folder / "f", content);
        const auto checksums = checksumsOf(content, true);
        CHECK(checksums.file.hex() == firstWord(run({"xxhsum", "-H2", folder / "f"}).out));
        CHECK(toHex(*checksums.sha256) == firstWord(run({"sha256sum", folder / "f"}).out));
        REQUIRE(checksums.blocks.size() == (size + checksumBlock - 1) / checksumBlock);
        writeFile(folder / "last", content.substr((checksums.blocks.size() - 1) * checksumBlock));
        CHECK(checksums.blocks.back().hex() == firstWord(run({"xxhsum", "-H2", folder / "last"}).out));
    }
}

TEST_CASE("a pass over a file leaves it as it was, access time included") {
    const TempFolder folder;
    const BytePath path = folder / "f.wav";
    writeFile(path, smallWav(1));
    const timespec old[2] = {{1'000'000'000, 5}, {1'100'000'000, 7}};
    utimensat(AT_FDCWD, path.c_str(), old, 0);
    struct stat before {};
    stat(path.c_str(), &before);
    RunControl control;
    std::uint64_t passed = 0;
    const bool whole = GENERATE(false, true);
    const auto onBytes = [&](std::uint64_t bytes) { passed += bytes; };
    const auto record = whole ? examineFile(path, control, onBytes) : passOverFile(path, control, onBytes);
    REQUIRE(record.ok());
    CHECK(record->evidence.has_value() == whole);
    CHECK(passed == record->stamp.size);
    CHECK(record->claims.duration == Approx(0.2));
    struct stat after {};
    stat(path.c_str(), &after);
    CHECK(after.st_atim.tv_sec == before.st_atim.tv_sec);
    CHECK(after.st_mtim.tv_nsec == before.st_mtim.tv_nsec);
    CHECK(after.st_ctim.tv_sec == before.st_ctim.tv_sec);
}

TEST_CASE("a pass says in one sentence what it could not take") {
    const TempFolder folder;
    writeFile(folder / "empty.mp3", "");
    writeFile(folder / "text.mp3", "no sound at all");
    std::filesystem::create_symlink("text.mp3", folder / "link.mp3");
    mkfifo((folder / "pipe.wav").c_str(), 0600);
    RunControl control;
    const auto [name, cause] = GENERATE(table<std::string, Cause>({{"empty.mp3", Cause::notAudio},
                                                                   {"text.mp3", Cause::notAudio},
                                                                   {"link.mp3", Cause::wrongKind},
                                                                   {"pipe.wav", Cause::wrongKind},
                                                                   {"none.mp3", Cause::notFound}}));
    const auto record = passOverFile(folder / name, control, [](std::uint64_t) {});
    REQUIRE_FALSE(record.ok());
    CHECK(record.error().cause == cause);
    CHECK(record.error().sentence.ends_with("."));
}

TEST_CASE("two files are compared byte for byte") {
    const TempFolder folder;
    std::string content = smallWav(3, 20);
    writeFile(folder / "a", content);
    writeFile(folder / "b", content);
    content[content.size() - 1] = static_cast<char>(content.back() ^ 1);
    writeFile(folder / "c", content);
    writeFile(folder / "d", content + "x");
    RunControl control;
    const auto nothing = [](std::uint64_t) {};
    const auto same = compareContent(folder / "a", folder / "b", control, nothing);
    REQUIRE(same.ok());
    CHECK(same->equal);
    CHECK(same->checksum.hex() == firstWord(run({"xxhsum", "-H2", folder / "a"}).out));
    CHECK_FALSE(compareContent(folder / "a", folder / "c", control, nothing)->equal);
    CHECK_FALSE(compareContent(folder / "a", folder / "d", control, nothing)->equal);
    CHECK_FALSE(isSameEntry(folder / "a", folder / "b"));
    std::filesystem::create_directory_symlink(".", folder / "loop");
    CHECK(isSameEntry(folder / "a", folder / "loop/a"));
}

TEST_CASE("a source that is read out of order still yields the checksums of the whole file") {
    const TempFolder folder;
    const std::string content = smallWav(6, 30);
    writeFile(folder / "f", content);
    const auto file = openForReading(folder / "f");
    const auto expected = checksumsOf(content, true);
    const std::size_t size = content.size();
    // As parsers do: the head, the end, back to the head, on with gaps and overlaps.
    const std::vector<std::pair<std::size_t, std::size_t>> reads{
        {0, 100},          {size - 500, 500}, {0, 4000},         {100, 50'000},
        {40'000, 200'000}, {500'000, 1000},   {240'000, 300'000}};
    OpenFileSource bytes(*file, folder / "f", size);
    std::uint64_t passed = 0;
    ChecksummingSource source(bytes, [&](std::span<const std::uint8_t> more) { passed += more.size(); });
    std::vector<std::uint8_t> into(400'000);
    for (const auto& [offset, length] : reads) {
        REQUIRE(source.readAt(offset, std::span(into).first(length)) == static_cast<std::int64_t>(length));
        CHECK(std::equal(into.begin(), into.begin() + static_cast<std::ptrdiff_t>(length),
                         content.begin() + static_cast<std::ptrdiff_t>(offset),
                         [](std::uint8_t a, char b) { return a == static_cast<std::uint8_t>(b); }));
    }
    const auto checksums = source.finish();
    REQUIRE(checksums.has_value());
    CHECK(passed == size);
    CHECK(checksums->file == expected.file);
    CHECK(checksums->sha256 == expected.sha256);
    CHECK(checksums->blocks == expected.blocks);
}

TEST_CASE("a running checksum agrees with that of the whole") {
    const std::string content = smallWav(7, 1);
    RunningChecksum running;
    for (std::size_t at = 0; at < content.size(); at += 777) {
        running.feed({reinterpret_cast<const std::uint8_t*>(content.data()) + at,
                      std::min<std::size_t>(777, content.size() - at)});
    }
    CHECK(running.finish() ==
          checksumOf({reinterpret_cast<const std::uint8_t*>(content.data()), content.size()}));
}
