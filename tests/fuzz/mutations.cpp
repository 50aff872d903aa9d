#include "mutations.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <filesystem>
#include <fstream>
#include <iterator>

namespace {

bool isLetter(char c) {
    return std::isalnum(static_cast<unsigned char>(c)) != 0 || c == ' ';
}

/// A length of four bytes in either order, one that no file should have or every file could.
void setLength(std::string& bytes, std::size_t at, std::mt19937_64& random) {
    constexpr std::array<std::uint32_t, 9> lengths{0,      1,          3,          8,         0x7F,
                                                   0xFFFF, 0x7FFFFFFF, 0x80000000, 0xFFFFFFFF};
    if (at + 4 > bytes.size()) {
        return;
    }
    auto length = lengths[random() % lengths.size()];
    length += static_cast<std::uint32_t>(random() % 3) - 1;
    for (std::size_t i = 0; i < 4; ++i) {
        bytes[at + i] = static_cast<char>(length >> (random() % 2 == 0 ? 8 * i : 24 - 8 * i));
    }
}

} // namespace

std::vector<std::size_t> landmarksOf(const std::string& bytes) {
    std::vector<std::size_t> found;
    for (std::size_t at = 0; at + 4 <= bytes.size() && found.size() < 4096; ++at) {
        const bool letters = std::all_of(bytes.begin() + static_cast<std::ptrdiff_t>(at),
                                         bytes.begin() + static_cast<std::ptrdiff_t>(at + 4), isLetter);
        const auto first = static_cast<unsigned char>(bytes[at]);
        const auto second = static_cast<unsigned char>(bytes[at + 1]);
        const bool sync = first == 0xFF && (second & 0xE0) == 0xE0;
        if (letters || sync) {
            found.push_back(at);
            at += 3;
        }
    }
    return found;
}

std::string mutated(std::string bytes, std::mt19937_64& random) {
    const auto changes = 1 + random() % 6;
    for (std::uint64_t change = 0; change < changes && !bytes.empty(); ++change) {
        const auto marks = landmarksOf(bytes);
        const auto mark = marks.empty() ? random() % bytes.size() : marks[random() % marks.size()];
        const auto other = marks.empty() ? random() % bytes.size() : marks[random() % marks.size()];
        const auto [first, past] = std::minmax(mark, other);
        switch (random() % 8) {
        case 0:
            setLength(bytes, mark + 4, random);
            break;
        case 1:
            setLength(bytes, mark >= 4 ? mark - 4 : 0, random);
            break;
        case 2:
            bytes.erase(first, std::min<std::size_t>(past - first, 1U << 16));
            break;
        case 3:
            bytes.insert(first, bytes.substr(first, std::min<std::size_t>(past - first, 1U << 14)));
            break;
        case 4:
            bytes.resize(past);
            break;
        case 5: {
            const auto length = std::min<std::size_t>(past - first, 1U << 12);
            std::swap_ranges(bytes.begin() + static_cast<std::ptrdiff_t>(first),
                             bytes.begin() + static_cast<std::ptrdiff_t>(first + length),
                             bytes.begin() + static_cast<std::ptrdiff_t>(bytes.size() - length));
            break;
        }
        default:
            for (int i = 0; i < 4; ++i) {
                const auto at = std::min(bytes.size() - 1, mark + random() % 32);
                bytes[at] = static_cast<char>(random());
            }
        }
    }
    return bytes;
}

std::vector<std::string> seedsBelow(const std::string& folder, std::size_t mostBytes) {
    std::vector<std::filesystem::path> paths;
    for (const auto& entry : std::filesystem::recursive_directory_iterator(folder)) {
        if (entry.is_regular_file() && !entry.is_symlink()) {
            paths.push_back(entry.path());
        }
    }
    std::ranges::sort(paths);
    std::vector<std::string> seeds;
    for (const auto& path : paths) {
        std::ifstream file(path, std::ios::binary);
        std::string bytes(std::filesystem::file_size(path), '\0');
        file.read(bytes.data(), static_cast<std::streamsize>(bytes.size()));
        if (bytes.size() > mostBytes) {
            bytes.erase(mostBytes / 2, bytes.size() - mostBytes);
        }
        seeds.push_back(std::move(bytes));
    }
    return seeds;
}
