// The table of tags: many cells at once, filled, counted, pasted, taken back; what comes out is what was
// edited.
#include "core/intake/tag_table.h"

#include <catch2/catch.hpp>

using namespace sober;

namespace {

using Cell = TagTable::Cell;
constexpr std::size_t titleField = 0;
constexpr std::size_t artistField = 1;
constexpr std::size_t trackField = 4;
constexpr std::size_t commentField = 9;

TagTable table() {
    std::vector<TaggedFile> files;
    for (const auto* name : {"a", "b", "c", "d"}) {
        files.push_back(
            {std::string("/in/") + name + ".flac",
             {{{"TITLE", {name}}, {"ARTIST", {"Wren", "Tern"}}, {"COMMENT", {"www.example.com"}}}, {}}});
    }
    std::vector<std::vector<TagProposal>> proposals(4);
    proposals[1].push_back({"TITLE", "b", "Bell Buoy", ProposedFor::fromName, "Its name says so.", {}});
    proposals[1].push_back(
        {"COMMENT", "www.example.com", "", ProposedFor::advertising, "It advertises.", {}});
    proposals[2].push_back(
        {"PICTURE", "", "3 B", ProposedFor::picture, "It lies beside it.", Picture{"image/png", 3, "png"}});
    return {std::move(files), std::move(proposals)};
}

std::vector<Cell> column(std::size_t field) {
    return {{0, field}, {1, field}, {2, field}, {3, field}};
}

using Fields = std::map<std::string, std::vector<std::string>>;

} // namespace

TEST_CASE("What is set is set in all cells, and what is as before is no change") {
    auto tags = table();
    CHECK(tags.textAt({0, artistField}) == "Wren; Tern");
    tags.set(column(artistField), "  Knot; Dunlin ");
    for (std::size_t row = 0; row < 4; ++row) {
        CHECK(tags.changeOf(row).fields == Fields{{"ARTIST", {"Knot", "Dunlin"}}});
    }
    CHECK(tags.changedRows() == 4);
    tags.set(column(artistField), "Wren; Tern");
    CHECK(tags.changedRows() == 0);
    CHECK(tags.changeOf(0).isEmpty());
    // Emptied, a field goes.
    tags.set(std::vector<Cell>{{0, commentField}}, "");
    CHECK(tags.changeOf(0).fields == Fields{{"COMMENT", {}}});
    CHECK(unpackTagChange(packTagChange(tags.changeOf(0))) == tags.changeOf(0));
    CHECK_FALSE(changed(TagFields{{{"COMMENT", {"x"}}}, {}}, tags.changeOf(0)).fields.contains("COMMENT"));
}

TEST_CASE("Cells are filled and counted down from the topmost, each column by itself") {
    auto tags = table();
    tags.fillDown(std::vector<Cell>{
        {3, titleField}, {1, titleField}, {2, titleField}, {2, artistField}, {3, artistField}});
    CHECK(tags.textAt({0, titleField}) == "a");
    CHECK(tags.textAt({2, titleField}) == "b");
    CHECK(tags.textAt({3, titleField}) == "b");
    CHECK(tags.textAt({3, artistField}) == "Wren; Tern");
    tags.set(std::vector<Cell>{{0, trackField}}, "7");
    tags.numberDown(column(trackField));
    CHECK(tags.textAt({3, trackField}) == "10");
    tags.numberDown(std::vector<Cell>{{1, commentField}, {2, commentField}}); // from no number
    CHECK(tags.textAt({1, commentField}) == "1");
    CHECK(tags.textAt({2, commentField}) == "2");
}

TEST_CASE("Pasted cells go where they belong, and not beyond the table") {
    auto tags = table();
    tags.paste({2, titleField}, "Ebb\tKnot\r\nFlow\tDunlin\r\nlost\tlost\r\n");
    CHECK(tags.textAt({2, titleField}) == "Ebb");
    CHECK(tags.textAt({3, artistField}) == "Dunlin");
    CHECK(tags.rows() == 4);
    tags.paste({3, commentField}, "one\ttwo\tthree");
    CHECK(tags.textAt({3, commentField}) == "one");
}

TEST_CASE("Steps are taken back and done again in their order; a new one ends what could be done again") {
    auto tags = table();
    CHECK_FALSE(tags.canTakeBack());
    tags.takeBack();
    tags.set(column(titleField), "x");
    tags.set(column(titleField), "x"); // nothing: no step
    tags.set(column(titleField), "y");
    tags.takeBack();
    CHECK(tags.textAt({2, titleField}) == "x");
    tags.takeBack();
    CHECK(tags.textAt({2, titleField}) == "c");
    CHECK_FALSE(tags.canTakeBack());
    tags.doAgain();
    tags.doAgain();
    CHECK(tags.textAt({2, titleField}) == "y");
    tags.takeBack();
    tags.set(std::vector<Cell>{{0, titleField}}, "z");
    CHECK_FALSE(tags.canDoAgain());
    CHECK(tags.textAt({0, titleField}) == "z");
    CHECK(tags.textAt({1, titleField}) == "x");
}

TEST_CASE("Proposals stand in the table until they are taken, pictures too") {
    auto tags = table();
    REQUIRE(tags.proposalFor({1, titleField}) != nullptr);
    CHECK(tags.proposalFor({1, titleField})->shall == "Bell Buoy");
    CHECK(tags.proposalFor({0, titleField}) == nullptr);
    tags.takeProposals(std::vector<std::size_t>{0, 1, 2});
    CHECK(tags.proposalFor({1, titleField}) == nullptr);
    CHECK(tags.changeOf(1).fields == Fields{{"TITLE", {"Bell Buoy"}}, {"COMMENT", {}}});
    REQUIRE(tags.changeOf(2).picture.has_value());
    CHECK(tags.changeOf(2).picture->bytes == "png");
    CHECK(tags.changedRows() == 2);
    tags.takeBack();
    CHECK(tags.changedRows() == 0);
    CHECK_FALSE(tags.changeOf(2).picture.has_value());
}
