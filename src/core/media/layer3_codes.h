#pragma once

#include <array>
#include <cstdint>
#include <vector>

namespace sober {

/// A Huffman code of Layer III and what it stands for.
struct Layer3Code {
    std::uint8_t length; ///< bits, without signs and what follows
    std::uint8_t values; ///< of a pair of lines four bits each, the first above; of four lines a bit each
    std::uint8_t bits;   ///< with the signs of what is not zero
    std::uint8_t beyond; ///< values of 15 of a pair: bits that follow for each, see bitsBeyond
};

/// The Huffman codes of Layer III: ISO/IEC 11172-3, section 2.4.3.4.6 and table B.7. Answers may be asked for
/// from any thread.
class Layer3Codes {
  public:
    Layer3Codes();
    Layer3Codes(Layer3Codes&&) = default;
    Layer3Codes& operator=(Layer3Codes&&) = default;

    /// The code that the next 32 bits begin with, by the number of a table of pairs (1 to 31, but not 4 and
    /// 14, which there are not).
    Layer3Code pair(unsigned table, std::uint32_t next) const { return codeOf(*pairs_[table], next); }
    /// Of four lines of at most 1, by the first or the second table for them.
    Layer3Code quad(bool second, std::uint32_t next) const { return codeOf(quads_[second ? 1 : 0], next); }

    /// A value of 15 is followed by so many bits of what is beyond it.
    static unsigned bitsBeyond(unsigned table);
    static bool isTable(unsigned table) { return table < 32 && table != 4 && table != 14; }

  private:
    static constexpr unsigned quickBits = 10;
    struct Table {
        std::vector<Layer3Code> codes;                   ///< in their order
        std::vector<std::uint32_t> begins;               ///< each with its bits at the top
        std::array<Layer3Code, 1U << quickBits> quick{}; ///< by the next bits; a length of 0: a longer code
    };
    static Table tableOf(std::vector<Layer3Code> codes);
    static Layer3Code codeOf(const Table& table, std::uint32_t next) {
        const auto code = table.quick[next >> (32 - quickBits)];
        return code.length > 0 ? code : longCodeOf(table, next);
    }
    static Layer3Code longCodeOf(const Table& table, std::uint32_t next);

    std::vector<Table> tables_;            ///< of pairs, each once
    std::array<const Table*, 32> pairs_{}; ///< by number: those from 16 and from 24 on are two
    std::array<Table, 2> quads_;
};

} // namespace sober
