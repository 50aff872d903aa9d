#include "core/transfer/layout.h"

#include <catch2/catch.hpp>

using namespace sober;

namespace {

LayoutFields song() {
    LayoutFields fields;
    fields[LayoutField::albumArtist] = "Pell Silver Band";
    fields[LayoutField::artist] = "Maud Pell";
    fields[LayoutField::album] = "Bandstand";
    fields[LayoutField::disc] = "2/3";
    fields[LayoutField::track] = "7/12";
    fields[LayoutField::title] = "AC/DC at Sea";
    fields[LayoutField::date] = "1974-05-02";
    fields[LayoutField::year] = "1974";
    fields[LayoutField::name] = "07 whatever";
    fields[LayoutField::folders] = "Old/Place";
    return fields;
}

std::string laid(const std::string& layout, const LayoutFields& fields) {
    const auto parsed = Layout::parse(layout);
    INFO((parsed ? std::string() : parsed.error().sentence));
    REQUIRE(parsed.ok());
    std::string path;
    for (const auto& name : parsed->namesFor(fields)) {
        path += (path.empty() ? "" : " > ") + name;
    }
    return path;
}

} // namespace

TEST_CASE("a layout puts a file where its fields say") {
    const struct {
        const char* layout;
        std::vector<LayoutField> without;
        const char* path;
    } rows[] = {
        {R"(albumartist|artist / album / disc "-" track.2 " " title)",
         {},
         "Pell Silver Band > Bandstand > 2-07 AC-DC at Sea"},
        {R"(albumartist|artist / album / disc "-" track.2 " " title)",
         {LayoutField::albumArtist, LayoutField::disc},
         "Maud Pell > Bandstand > 07 AC-DC at Sea"},
        {R"(albumartist|artist / album / disc "-" track.2 " " title)",
         {LayoutField::track, LayoutField::album},
         "Pell Silver Band > 2AC-DC at Sea"},
        {R"(artist " - " title)", {LayoutField::artist}, "AC-DC at Sea"},
        {R"(artist " - " title)", {LayoutField::title}, "Maud Pell"},
        {R"("Disc " disc / title)", {}, "Disc 2 > AC-DC at Sea"},
        {R"("Disc " disc / title)", {LayoutField::disc}, "AC-DC at Sea"},
        {R"L(title " (" year ")")L", {}, "AC-DC at Sea (1974)"},
        {R"L(title " (" year ")")L", {LayoutField::year}, "AC-DC at Sea"},
        {R"(genre|composer|artist / track.3)", {}, "Maud Pell > 007"},
        {R"(folders / name)", {}, "Old > Place > 07 whatever"},
        {R"(folders / name)", {LayoutField::folders}, "07 whatever"},
        {R"(genre / genre)", {}, "07 whatever"}, // nothing to name it by: as it is
        {R"(title)", {LayoutField::title}, "07 whatever"},
        {"date", {}, "1974-05-02"},
        {R"("a""b" title)", {}, "abAC-DC at Sea"},
        {R"("" title)", {}, "AC-DC at Sea"},
    };
    for (const auto& row : rows) {
        CAPTURE(row.layout);
        auto fields = song();
        for (const auto field : row.without) {
            fields[field].clear();
        }
        CHECK(laid(row.layout, fields) == row.path);
    }
    const std::vector<std::string> kept{"Old", "Place", "07 whatever"};
    CHECK(Layout::keep().namesFor(song()) == kept);
    CHECK(Layout::flat().namesFor(song()) == std::vector<std::string>{"07 whatever"});
}

TEST_CASE("a layout that is wrong is told where and how") {
    const std::pair<const char*, const char*> rows[] = {
        {"", "the file needs a name"},
        {"artist /", "the file needs a name"},
        {"/ title", "before the slash"},
        {"artist // title", "before the slash"},
        {"singer / title", "there is no field \"singer\""},
        {"Artist", "there is no field"},
        {"title \"", "has no end"},
        {"\"a/b\" title", "cannot hold a slash"},
        {"| title", "between two fields"},
        {"\"x\" | title", "between two fields"},
        {"artist | \"x\" title", "between two fields"},
        {"artist |", "a field is missing"},
        {"artist | / title", "before the slash"},
        {"artist || title", "between two fields"},
        {"track.", "how many digits"},
        {"track.0", "how many digits"},
        {"track.99999999999", "how many digits"},
        {"artist / \"always\"", "the same name"},
        {"%artist%", "there is no field"},
    };
    for (const auto& [layout, sentence] : rows) {
        CAPTURE(layout);
        const auto parsed = Layout::parse(layout);
        REQUIRE_FALSE(parsed.ok());
        CHECK(parsed.error().cause == Cause::invalid);
        CHECK(parsed.error().sentence.find(sentence) != std::string::npos);
    }
}

TEST_CASE("numbers are padded where they are numbers") {
    CHECK(numberOf("7", 2) == "07");
    CHECK(numberOf("007", 2) == "07");
    CHECK(numberOf("7/12", 3) == "007");
    CHECK(numberOf("0", 2) == "00");
    CHECK(numberOf("112", 2) == "112");
    CHECK(numberOf("A1", 2) == "A1");
    CHECK(numberOf("7b", 2) == "7b");
    CHECK(numberOf("", 2).empty());
}
