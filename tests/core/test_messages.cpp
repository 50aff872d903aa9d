// The line between a program and its worker: what is told arrives, and nonsense is no more than nonsense.
#include "core/evidence/worker/answers.h"
#include "core/evidence/worker/messages.h"
#include "support/temp_folder.h"

#include <catch2/catch.hpp>
#include <sys/socket.h>

#include <array>
#include <thread>
#include <unistd.h>

using namespace sober;
using namespace sober::test;

namespace {

struct Line {
    Line() {
        std::array<int, 2> both{};
        REQUIRE(socketpair(AF_UNIX, SOCK_STREAM, 0, both.data()) == 0);
        here = FileHandle(both[0]);
        there = FileHandle(both[1]);
    }
    FileHandle here;
    FileHandle there;
};

} // namespace

TEST_CASE("a message arrives with its bytes and its open files") {
    const TempFolder folder;
    writeFile(folder / "a", "first");
    writeFile(folder / "b", "second");
    const auto a = openForReading(folder / "a");
    const auto b = openForReading(folder / "b");
    const Line line;
    const std::string bytes = std::string("\0x\0", 3) + std::string(100'000, 'y');
    std::jthread sender([&] {
        CHECK(sendMessage(line.here.get(), 'q', bytes, std::array{a->get(), b->get()}));
    });
    auto message = receiveMessage(line.there.get());
    REQUIRE(message.has_value());
    CHECK(message->letter == 'q');
    CHECK(message->bytes == bytes);
    REQUIRE(message->files.size() == 2);
    std::array<std::uint8_t, 6> read{};
    CHECK(*readAt(message->files[1], "b", 0, read) == 6);
    CHECK(read[0] == 's');
}

TEST_CASE("a line whose other end is gone, or tells nonsense, has nothing to say") {
    SECTION("gone") {
        Line line;
        line.here.reset();
        CHECK_FALSE(receiveMessage(line.there.get()).has_value());
        CHECK_FALSE(sendMessage(line.there.get(), 'x', "words"));
    }
    SECTION("cut short") {
        Line line;
        REQUIRE(write(line.here.get(), "\x10\0\0\0a", 5) == 5);
        line.here.reset();
        CHECK_FALSE(receiveMessage(line.there.get()).has_value());
    }
    SECTION("of no sane length") {
        const Line line;
        REQUIRE(write(line.here.get(), "\xFF\xFF\xFF\xFF\x61\0\0\0", 8) == 8);
        CHECK_FALSE(receiveMessage(line.there.get()).has_value());
    }
}

TEST_CASE("answers are understood again, and from no part of them is anything but a sentence made") {
    TagFields tags{{{"TITLE", {"Fog", "\xC3\xA9 \xFF"}}, {"EMPTY", {}}}, {{"image/png", 3, "\x89PNG"}}};
    DecodeComparison comparison;
    comparison.offset = -1.25;
    comparison.overTime = {-30.5F, -60};
    comparison.byBand[3] = -12;
    const auto whole = packAnswer(Result(tags));
    CHECK(*unpackAnswer<TagFields>(whole, "/a") == tags);
    const auto again = unpackAnswer<DecodeComparison>(packAnswer(Result(comparison)), "/a");
    CHECK(again->offset == -1.25);
    CHECK(again->overTime == comparison.overTime);
    CHECK(again->byBand == comparison.byBand);
    for (std::size_t length = 0; length < whole.size(); ++length) {
        const auto part = unpackAnswer<TagFields>(std::string_view(whole).substr(0, length), "/a");
        REQUIRE_FALSE(part.ok());
        CHECK(part.error().cause == Cause::unreadable);
    }
    // Asked for something else than was answered.
    CHECK_FALSE(unpackAnswer<TimeSpectrum>(whole, "/a").ok());
    const Error error{Cause::notAudio, "/caf\xE9", "It holds no audio."};
    const auto refused = unpackAnswer<TagFields>(packAnswer(Result<TagFields>(error)), "/a");
    REQUIRE_FALSE(refused.ok());
    CHECK(refused.error().cause == Cause::notAudio);
    CHECK(refused.error().path == "/caf\xE9");
    // A picture whose figures promise more than there is shows nothing.
    SmallPicture picture{1000, 1000, "too few"};
    CHECK(unpackAnswer<SmallPicture>(packAnswer(Result(picture)), "")->width == 0);
}
