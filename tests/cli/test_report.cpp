// What is reported agrees with what the other commands say, stands by itself, and names nothing where paths
// are left out. HTML is held against HTML Tidy, the table against Python's csv module.
#include "core/base/text.h"
#include "core/catalogue/holdings.h"
#include "core/work/make_report.h"
#include "support/demo_copy.h"
#include "support/mounts.h"
#include "support/run_program.h"

#include <catch2/catch.hpp>

#include <filesystem>
#include <set>

using namespace sober;
using namespace sober::test;
using nlohmann::json;
namespace fs = std::filesystem;

namespace {

std::string said(std::vector<std::string> words, int code = 0) {
    const auto ran = sober::test::sober(demoCatalogue, std::move(words));
    INFO(ran.err);
    REQUIRE(ran.code == code);
    return ran.out;
}

json asked(const std::string& command) {
    return json::parse(said({command, "--json"}));
}

/// Every name of a file or folder that the catalogue knows and that is long enough to be told from a word.
std::set<std::string> knownNames() {
    const auto catalogue = Catalogue::openForReading(demoCatalogue);
    REQUIRE(catalogue.ok());
    std::set<std::string> names;
    REQUIRE(Holdings(*catalogue)
                .eachOutline([&](const HoldingOutline& holding) {
                    for (const auto& part : fs::path(std::string(holding.path))) {
                        names.insert(part.string());
                    }
                })
                .ok());
    std::erase_if(names, [](const std::string& name) { return name.size() < 8; });
    return names;
}

} // namespace

TEST_CASE("a report says what the other commands say") {
    const auto report = json::parse(said({"report", "--form", "json"}));
    CHECK(report["schema"] == "sober.report/1");
    const auto condition = asked("condition");
    CHECK(report["condition"]["findings"] == condition["findings"]);
    CHECK(report["condition"]["volumes"].size() == condition["volumes"].size());
    CHECK(report["missing"].size() == condition["findings"]["missing"]);
    CHECK(report["fixity"]["drift"].size() == condition["findings"]["drift"]);
    CHECK(report["damage"].size() == condition["findings"]["damaged"]);
    const auto copies = asked("copies")["sets"];
    REQUIRE(report["copies"].size() == copies.size());
    for (std::size_t i = 0; i < copies.size(); ++i) {
        CAPTURE(i);
        const auto& mine = report["copies"][i];
        CHECK(mine["sameness"] == copies[i]["sameness"]);
        CHECK(mine["reclaimable_bytes"] == copies[i]["reclaimable_bytes"]);
        for (std::size_t member = 0; member < copies[i]["members"].size(); ++member) {
            CHECK(mine["members"][member]["path"] == copies[i]["members"][member]["path"]);
            CHECK(mine["members"][member]["suggestion"] == copies[i]["members"][member]["suggestion"]);
        }
    }
    const auto claims = asked("claims")["holdings"];
    REQUIRE(report["claims"].size() == claims.size());
    for (std::size_t i = 0; i < claims.size(); ++i) {
        CHECK(report["claims"][i]["path"] == claims[i]["path"]);
        CHECK(report["claims"][i]["verdict"] == claims[i]["verdict"]);
        CHECK(report["claims"][i]["measured"]["cutoff_hz"] == claims[i]["measured"]["cutoff_hz"]);
    }
    // One holding has one number throughout.
    std::map<std::string, std::set<int>> numbers;
    for (const auto* part : {"claims", "missing", "damage"}) {
        for (const auto& each : report[part]) {
            numbers[each["path"]].insert(each["holding"].get<int>());
        }
    }
    CHECK(std::ranges::all_of(numbers, [](const auto& each) { return each.second.size() == 1; }));
    std::uint64_t present = 0;
    for (const auto& volume : report["fixity"]["last_read"]) {
        for (const auto* span : {"within_30_days", "within_180_days", "within_365_days", "longer_ago"}) {
            present += volume[span].get<std::uint64_t>();
        }
    }
    CHECK(present == report["condition"]["holdings"]);
}

TEST_CASE("only what was chosen is reported, and nonsense is told") {
    const auto some = json::parse(said({"report", "--form", "json", "--about", "missing,claims"}));
    CHECK(some.contains("missing"));
    CHECK(some.contains("claims"));
    CHECK_FALSE(some.contains("copies"));
    CHECK(json::parse(said({"report", "--json"}))["schema"] == "sober.report/1");
    said({"report", "--form", "pdf"}, 2);
    said({"report", "--about", "weather"}, 2);
    said({"report", "--json", "--form", "csv"}, 2);
}

TEST_CASE("a report's page is HTML that stands by itself") {
    const TempFolder folder;
    const auto page = folder / "r.html";
    said({"report", "--to", page});
    const auto html = readFile(page);
    const auto tidied =
        run({"tidy", "-errors", "-quiet", "--show-warnings", "yes", "--drop-empty-elements", "no", page});
    INFO(tidied.err);
    CHECK(tidied.code == 0);
    for (const auto* outside : {"src=", "href=", "http:", "https:", "@import", "<script"}) {
        CAPTURE(outside);
        CHECK(html.find(outside) == std::string::npos);
    }
    CHECK(html.find("<svg") != std::string::npos);
    CHECK(fs::status(page).permissions() == (fs::perms::owner_read | fs::perms::owner_write));
    SECTION("what stands at its place stays") {
        writeFile(page, "somebody's");
        const auto again = sober::test::sober(demoCatalogue, {"report", "--to", page});
        CHECK(again.code == 1);
        CHECK(again.err.find("is there already") != std::string::npos);
        CHECK(readFile(page) == "somebody's");
    }
}

TEST_CASE("long lists are cut on the page, and it is said by how much") {
    const auto catalogue = Catalogue::openForReading(demoCatalogue);
    RunControl control;
    const auto report = reportOf(*catalogue, {}, control, [](const Progress&) {});
    REQUIRE(report.ok());
    REQUIRE(report->missing.size() > 3);
    const auto html = reportPage(*report, 3);
    CHECK(html.find("And " + counted(report->missing.size() - 3, "more line")) != std::string::npos);
    CHECK(html.size() < reportPage(*report).size());
}

TEST_CASE("a report's table is what a reader of tables reads, a line for each holding of a finding") {
    const TempFolder folder;
    said({"report", "--form", "csv", "--to", folder / "r.csv"});
    const auto read =
        run({"python3", "-c",
             "import csv,json,sys\n"
             "print(json.dumps(list(csv.DictReader(open(sys.argv[1],newline='',encoding='utf-8')))))",
             folder / "r.csv"});
    INFO(read.err);
    REQUIRE(read.code == 0);
    const auto rows = json::parse(read.out);
    const auto report = json::parse(said({"report", "--form", "json"}));
    std::map<std::string, std::size_t> counts;
    for (const auto& row : rows) {
        ++counts[row["finding"]];
        REQUIRE(row.size() == 11);
    }
    std::size_t members = 0;
    for (const auto& set : report["copies"]) {
        members += set["members"].size();
    }
    CHECK(counts["copies"] == members);
    CHECK(counts["claims"] == report["claims"].size());
    CHECK(counts["missing"] == report["missing"].size());
    CHECK(counts["fixity"] == report["fixity"]["drift"].size());
    CHECK(counts["damage"] == report["damage"].size());
    CHECK(counts["proofs"] == report["proofs"].size());
    CHECK(counts["condition"] == report["condition"]["volumes"].size());
    CHECK(rows[0]["volume"] == report["condition"]["volumes"][0]["label"]);
    const auto first = std::ranges::find(rows, "copies", [](const json& row) { return row["finding"]; });
    CHECK((*first)["path"] == report["copies"][0]["members"][0]["path"]);
}

TEST_CASE("where paths are left out no name is in a report, in no form") {
    const auto names = knownNames();
    REQUIRE(names.size() > 50);
    for (const std::string form : {"html", "csv", "json"}) {
        CAPTURE(form);
        const auto text = said({"report", "--form", form, "--no-paths"});
        CHECK(text.find(TEST_DEMO) == std::string::npos);
        for (const auto& name : names) {
            CAPTURE(name);
            CHECK(text.find(percentEncodeOffending(name)) == std::string::npos);
            CHECK(text.find(displayPath(name)) == std::string::npos);
        }
        CHECK(text.find("PETREL") != std::string::npos);
    }
}

TEST_CASE("a report that is stopped, or that there is no room for, leaves nothing") {
    const TempFolder folder;
    const auto catalogue = Catalogue::openForReading(demoCatalogue);
    RunControl control;
    SECTION("stopped") {
        control.cancel();
        const auto made =
            makeReport(*catalogue, {}, ReportForm::html, folder / "r.html", control, [](const Progress&) {});
        REQUIRE_FALSE(made.ok());
        CHECK(made.error().cause == Cause::interrupted);
    }
    SECTION("no such folder") {
        CHECK_FALSE(makeReport(*catalogue, {}, ReportForm::html, folder / "none/r.html", control,
                               [](const Progress&) {})
                        .ok());
    }
    SECTION("no room") {
        if (!canMount()) {
            return;
        }
        TestMounts mounts;
        fs::create_directories(folder / "full");
        mounts.mount({"-t", "tmpfs", "-o", "size=8k", "none", folder / "full"});
        CHECK_FALSE(makeReport(*catalogue, {}, ReportForm::html, folder / "full/r.html", control,
                               [](const Progress&) {})
                        .ok());
        CHECK(fs::is_empty(folder / "full"));
        return;
    }
    CHECK(fs::is_empty(folder.path()));
}
