#include "core/audit/weak_joins.h"

#include <catch2/catch.hpp>

#include <map>

using namespace sober;

namespace {

/// What is joined with what in the end, told by the smallest number in each group.
std::vector<std::size_t> joined(std::size_t contents,
                                const std::vector<std::pair<std::size_t, std::size_t>>& strong,
                                const std::vector<WeakLink>& weak) {
    Groups groups(contents);
    for (const auto& [a, b] : strong) {
        groups.join(a, b, Sameness::lossyCopy);
    }
    const WeakJoins joins(weak, groups, contents);
    for (const auto& [lead, follows, link] : joins.made()) {
        groups.join(lead, follows, link);
    }
    std::vector<std::size_t> roots;
    std::map<std::size_t, std::size_t> smallest;
    for (std::size_t at = 0; at < contents; ++at) {
        roots.push_back(smallest.try_emplace(groups.rootOf(at), at).first->second);
    }
    return roots;
}

WeakLink master(std::size_t a, std::size_t b, double agreeing = 0.9) {
    return {a, b, Sameness::otherMaster, agreeing, 0, 200, 200};
}

/// `part` of so many seconds begins at `offset` of `whole`.
WeakLink part(std::size_t whole, std::size_t piece, double offset, double wholeSeconds, double partSeconds) {
    return {whole, piece, Sameness::part, 0.9, offset, wholeSeconds, partSeconds};
}

} // namespace

TEST_CASE("weak links join what belongs to one recording and merge no two") {
    struct Row {
        const char* why;
        std::size_t contents;
        std::vector<std::pair<std::size_t, std::size_t>> strong;
        std::vector<WeakLink> weak;
        std::vector<std::size_t> expected;
    };
    const auto row = GENERATE(values<Row>({
        {"all masters follow the waveform that most files carry, whichever pair was met first",
         5,
         {{0, 1}, {1, 2}},
         {master(3, 4, 0.99), master(0, 3, 0.8), master(2, 4, 0.8)},
         {0, 0, 0, 0, 0}},
        {"masters that were both held against one waveform", 3, {}, {master(0, 1), master(1, 2)}, {0, 0, 0}},
        {"a chain of four is two sets",
         4,
         {},
         {master(0, 1, 0.95), master(1, 2, 0.9), master(2, 3, 0.95)},
         {0, 0, 0, 3}},
        {"two trimmed copies of one piece",
         3,
         {},
         {part(0, 1, 3, 200, 194), part(0, 2, 0, 200, 190)},
         {0, 0, 0}},
        {"two songs within the side of a record are two recordings",
         3,
         {},
         {part(0, 1, 0, 900, 200), part(0, 2, 300, 900, 200)},
         {0, 0, 2}},
        {"a passage that two longer recordings share does not merge them",
         3,
         {},
         {part(1, 0, 10, 200, 60), part(2, 0, 40, 300, 60)},
         {0, 0, 2}},
        {"two longer ones that are tied themselves are one",
         3,
         {},
         {part(1, 0, 10, 200, 100), part(2, 0, 12, 204, 100), part(2, 1, 2, 204, 200)},
         {0, 0, 0}},
    }));
    INFO(row.why);
    CHECK(joined(row.contents, row.strong, row.weak) == row.expected);
}

TEST_CASE("a set says the weakest link that holds it") {
    Groups groups(4);
    groups.join(0, 1, Sameness::samples);
    groups.join(2, 3, Sameness::bytes);
    CHECK(groups.weakest(1) == Sameness::samples);
    CHECK(groups.weakest(3) == Sameness::bytes);
    groups.join(3, 0, Sameness::lossyCopy);
    CHECK(groups.weakest(2) == Sameness::lossyCopy);
}
