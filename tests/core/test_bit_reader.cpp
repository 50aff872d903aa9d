#include "core/media/bit_reader.h"

#include <catch2/catch.hpp>

#include <random>
#include <vector>

using namespace sober;

namespace {

/// One bit after another: what reading many at once has to come to.
unsigned bitAt(const std::vector<std::uint8_t>& bytes, std::uint64_t at) {
    return at / 8 < bytes.size() ? (bytes[at / 8] >> (7 - at % 8)) & 1U : 0U;
}

} // namespace

TEST_CASE("bits of any number at any place are those that stand there, and zeros behind the end") {
    std::mt19937 random(6); // NOLINT: the same each time
    for (const std::size_t length : {0U, 1U, 4U, 5U, 7U, 8U, 9U, 40U}) {
        CAPTURE(length);
        std::vector<std::uint8_t> bytes(length);
        for (auto& byte : bytes) {
            byte = static_cast<std::uint8_t>(random());
        }
        for (std::uint64_t at = 0; at < length * 8 + 10; ++at) {
            BitReader reader(bytes);
            reader.goTo(at);
            std::uint32_t next = 0;
            for (unsigned bit = 0; bit < 32; ++bit) {
                next = next << 1 | bitAt(bytes, at + bit);
            }
            REQUIRE(reader.next32() == next);
            const unsigned count = random() % 33;
            REQUIRE(reader.take(count) == (count > 0 ? next >> (32 - count) : 0));
            REQUIRE(reader.at() == at + count);
            REQUIRE(reader.isOver() == (at + count >= length * 8));
        }
    }
}

TEST_CASE("zeros are counted up to the next one, however many, and to the end where there is none") {
    struct Row {
        std::size_t bytes;
        std::uint64_t one; ///< where the one stands
        std::uint64_t from;
    };
    for (const auto& [length, one, from] : {Row{1, 0, 0}, Row{1, 7, 0}, Row{1, 7, 7}, Row{2, 15, 3},
                                            Row{16, 100, 1}, Row{16, 127, 0}, Row{9, 64, 5}}) {
        CAPTURE(length, one, from);
        std::vector<std::uint8_t> bytes(length);
        bytes[one / 8] = static_cast<std::uint8_t>(0x80U >> one % 8);
        BitReader reader(bytes);
        reader.goTo(from);
        CHECK(reader.takeUnary() == one - from);
        CHECK(reader.at() == one + 1);
    }
    const std::vector<std::uint8_t> zeros(12);
    BitReader reader(zeros, 1);
    CHECK(reader.takeUnary() >= 11 * 8);
    CHECK(reader.isOver());
    CHECK(BitReader({}).isOver());
}
