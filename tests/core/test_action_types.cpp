// The table of kinds: each has its words, and changes that are taken back by what is made.
#include "core/remedy/actions/action_type.h"

#include <catch2/catch.hpp>

#include <set>

using namespace sober;

TEST_CASE("every kind has a word of its own, and is found by it") {
    std::set<std::string_view> words;
    for (const auto kind : everyKind) {
        CHECK(words.insert(word(kind)).second);
        CHECK(actionKindOf(word(kind)) == kind);
        CHECK_FALSE(pastOf(kind).empty());
    }
    CHECK_FALSE(actionKindOf("").has_value());
    CHECK_FALSE(actionKindOf("Retire").has_value());
}

// The Library of Congress's vocabulary of preservation events, id.loc.gov/vocabulary/preservation/eventType.
TEST_CASE("every kind is an event that PREMIS knows") {
    const std::set<std::string_view> known{
        "deaccession", "quality review", "recovery",    "modification", "metadata modification",
        "transfer",    "migration",      "replication", "creation",     "capture",
        "deletion"};
    for (const auto kind : everyKind) {
        CHECK(known.contains(premisEventOf(kind)));
    }
}

TEST_CASE("what a kind changes on a volume it takes back too, and proves before") {
    for (const auto kind : everyKind) {
        const auto& type = typeOf(kind);
        CAPTURE(word(kind));
        // Only what is let go of, because it is held elsewhere, does not come back.
        const bool isForGood = kind == ActionKind::discard;
        CHECK((isForGood || type.forth.empty() == type.back.empty()));
        CHECK((type.forth.empty() || type.prove != nullptr));
        CHECK((isForGood || (type.record == nullptr) == (type.withdraw == nullptr)));
        CHECK((kind == ActionKind::repoint || type.whyNot != nullptr));
        // What is made is made before anything goes; a note is written before its file goes.
        std::set<Step> met;
        for (const auto& leg : type.forth) {
            CHECK(leg.way == Way::forth);
            CHECK((leg.step != Step::setAside || met.contains(Step::note)));
            CHECK((leg.step != Step::place || met.contains(Step::make)));
            CHECK(met.insert(leg.step).second);
        }
        CHECK(type.isMade() == met.contains(Step::make));
    }
}
