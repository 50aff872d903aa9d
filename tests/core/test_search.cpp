#include "core/audit/found_holding.h"
#include "core/audit/refresh_findings.h"
#include "core/base/text.h"
#include "core/catalogue/browse.h"
#include "core/catalogue/evidence_store.h"
#include "core/catalogue/findings.h"
#include "core/catalogue/holding_writer.h"
#include "core/catalogue/search.h"
#include "core/catalogue/standing_lists.h"
#include "support/player_collection.h"
#include "support/run_program.h"
#include "support/small_audio.h"

#include <catch2/catch.hpp>

#include <cstring>
#include <filesystem>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

/// A catalogue that says of holdings what a test wants it to.
struct SearchedCollection : PlayerCollection {
    SearchedCollection() {
        writeFile(*this / "V/Choir/01 Evening Hymn.wav", smallWav(1));
        writeFile(*this / "V/Band/Slipway.wav", smallWav(2));
        writeFile(*this / "V/Band/100% brass_band.wav", smallWav(3));
        writeFile(*this / "W/S\xC3\xA9r\xC3\xA9nade.wav", smallWav(4));
        writeFile(*this / "W/bad\xFFname.wav", smallWav(5));
        survey("V");
        survey("W");
    }
    HoldingId tell(const std::string& volume, const BytePath& path, const Tags& tags,
                   const Claims& claims = {}) {
        HoldingWriter writer(catalogue(), this->volume(volume).id, timeNow());
        FileRecord record;
        record.stamp.size = 1000;
        record.tags = tags;
        record.claims = claims;
        record.checksums.file.bytes[0] = static_cast<std::uint8_t>(++told_);
        const auto id = writer.add(path, record, false);
        REQUIRE(writer.commit().ok());
        return id;
    }
    /// Names of what a filter means, in order.
    std::vector<std::string> found(const HoldingFilter& filter) {
        REQUIRE(refreshFindings(catalogue()).ok());
        std::vector<std::string> names;
        const auto looked = eachHit(catalogue(), filter, [&](const SearchHit& hit) {
            names.emplace_back(nameOf(hit.path));
            return true;
        });
        INFO((looked ? std::string() : looked.error().sentence));
        REQUIRE(looked.ok());
        std::ranges::sort(names);
        return names;
    }
    std::vector<std::string> found(const std::string& words) {
        HoldingFilter filter;
        filter.text = words;
        return found(filter);
    }

  private:
    std::uint64_t told_ = 0;
};

using Names = std::vector<std::string>;

} // namespace

TEST_CASE("words are folded as an independent implementation of Unicode folds them") {
    // Python's unicodedata (Unicode's own tables, made apart from utf8proc): compatibility decomposition of
    // the case-folded text without its combining marks.
    const Names texts{"\xC3\x89vening",
                      "STRASSE Stra\xC3\x9F"
                      "e",
                      "\xCE\x91\xCE\x92\xCE\x93\xCE\xAC\xCF\x82",
                      "e\xCC\x81",
                      "\xEF\xBC\xA1\xEF\xBD\x82",
                      "\xEF\xAC\x81n",
                      "\xC5\xBD\xC3\xBCrich",
                      "\xE3\x81\x8C\xE3\x82\xAB",
                      "na\xC3\xAFve caf\xC3\xA9",
                      "plain 12-3_x"};
    const auto python = run({"python3", "-c", R"(
import sys, unicodedata as u
for t in sys.argv[1:]:
    f = u.normalize('NFKD', u.normalize('NFKD', t).casefold())
    print(''.join(c for c in f if not u.combining(c)))
)",
                             texts[0], texts[1], texts[2], texts[3], texts[4], texts[5], texts[6], texts[7],
                             texts[8], texts[9]});
    REQUIRE(python.code == 0);
    std::string ours;
    for (const auto& text : texts) {
        ours += foldedForSearch(text) + "\n";
    }
    CHECK(ours == python.out);
    CHECK(foldedForSearch("S\xC3\xB8rensen \xC3\x86gir \xC5\x81\xC3\xB3"
                          "d\xC5\xBA") == "sorensen aegir lodz");
    CHECK(foldedForSearch("soft\u00adhyphen") == "softhyphen");
    CHECK(foldedForSearch("bad\xFFname") == "bad\x79name"); // ISO 8859-1's y with two dots
}

TEST_CASE("every word has to be somewhere in what a holding is called") {
    SearchedCollection told;
    told.tell("V", "Choir/02.flac",
              {"Nocturne in E\xE2\x99\xAD", "Maud Pell", "Evening Songs", "2", "1974-05-02"});
    const struct {
        std::string words;
        Names names;
    } rows[] = {
        {"hymn", {"01 Evening Hymn.wav"}},
        {"EVENING", {"01 Evening Hymn.wav", "02.flac"}},
        {"evening choir", {"01 Evening Hymn.wav", "02.flac"}},
        {"evening 1974", {"02.flac"}},
        {"ven ymn", {"01 Evening Hymn.wav"}},
        {"serenade", {"S\xC3\xA9r\xC3\xA9nade.wav"}},
        {"S\xC3\x89R", {"S\xC3\xA9r\xC3\xA9nade.wav"}},
        {"se\xCC\x81re", {"S\xC3\xA9r\xC3\xA9nade.wav"}},
        {"slip band", {"Slipway.wav"}},
        {"100%", {"100% brass_band.wav"}},
        {"s_b", {"100% brass_band.wav"}},
        {"s_x", {}},
        {"%", {"100% brass_band.wav"}},
        {"e\xE2\x99\xAD", {"02.flac"}},
        {"hy", {"01 Evening Hymn.wav"}},
        {"hy 01", {"01 Evening Hymn.wav"}},
        {"\"evening hymn\"", {"01 Evening Hymn.wav"}},
        {"\"hymn evening\"", {}},
        {"\"maud pell\" songs", {"02.flac"}},
        {"maudpell", {}},
        {"pell evening", {"02.flac"}},
        // No word reaches from one field into the next.
        {"\"pell evening\"", {}},
        {"badyname", {"bad\xFFname.wav"}},
        {"AND", {"100% brass_band.wav", "Slipway.wav"}},
        {"hymn*", {}},
        {"hymn OR slipway", {}},
        {"nothing", {}},
    };
    for (const auto& row : rows) {
        CAPTURE(row.words);
        CHECK(told.found(row.words) == row.names);
    }
    CHECK(told.found("").size() == 6);
    CHECK(told.found(" \t ").size() == 6);
    CHECK(told.found("\xCC\x81").size() == 6); // an accent without a letter
}

TEST_CASE("a search follows what is moved, named anew, gone and retired") {
    SearchedCollection told;
    CHECK(told.found("slipway") == Names{"Slipway.wav"});
    fs::rename(told / "V/Band/Slipway.wav", told / "V/Band/The Quay.wav");
    fs::remove(told / "V/Choir/01 Evening Hymn.wav");
    told.survey("V");
    CHECK(told.found("slipway").empty());
    CHECK(told.found("quay") == Names{"The Quay.wav"});
    CHECK(told.found("hymn") == Names{"01 Evening Hymn.wav"});
    const auto found =
        foundHoldings(told.catalogue(), std::vector{told.holding("V", "Choir/01 Evening Hymn.wav")->id});
    REQUIRE(found.ok());
    CHECK(reachWords(found->front()).starts_with("missing; it was on V, last seen "));

    // Between the writing and the next refreshing nothing is found twice, and nothing that is gone.
    fs::rename(told / "V/Band/The Quay.wav", told / "V/Band/Slipway.wav");
    told.survey("V");
    CHECK(told.found("quay").empty());
    CHECK(told.found("slipway band") == Names{"Slipway.wav"});
}

TEST_CASE("what a search met comes in order, the present first, with where it lies") {
    SearchedCollection told;
    fs::remove(told / "V/Band/Slipway.wav");
    told.survey("V");
    REQUIRE(refreshFindings(told.catalogue()).ok());
    RunControl control;
    auto result = search(told.catalogue(), {}, control, [](const std::vector<HoldingId>&) {});
    REQUIRE(result.ok());
    std::vector<BytePath> paths;
    const auto holdings = Holdings(told.catalogue()).byIds(result->ids);
    for (const auto& holding : *holdings) {
        paths.push_back(holding.path);
    }
    CHECK(paths == std::vector<BytePath>{"Band/100% brass_band.wav", "Choir/01 Evening Hymn.wav",
                                         "S\xC3\xA9r\xC3\xA9nade.wav", "bad\xFFname.wav",
                                         "Band/Slipway.wav"});
    CHECK(result->present == 4);
    control.cancel();
    CHECK(search(told.catalogue(), {}, control, [](const std::vector<HoldingId>&) {}).error().cause ==
          Cause::interrupted);
    CHECK(result->folders[{told.volume("V").id, "Band"}] == 2);
    CHECK(result->folders[{told.volume("W").id, ""}] == 2);
}

TEST_CASE("a catalogue of before is searched after it was opened") {
    SearchedCollection told;
    told.found("hymn");
    told.whileClosed([&] {
        const auto made = run({"python3", "-c", R"(
import sqlite3, sys
old = sqlite3.connect(sys.argv[1])
old.executescript('''DROP TABLE search_index; DROP TABLE search_texts; DROP TABLE search_pending;
DROP TRIGGER search_new; DROP TRIGGER search_changed; ALTER TABLE volumes DROP COLUMN away_since; ALTER TABLE holdings DROP COLUMN albumartist;
ALTER TABLE holdings DROP COLUMN composer; ALTER TABLE holdings DROP COLUMN genre;
ALTER TABLE holdings DROP COLUMN disc;
DROP INDEX holdings_codec;
DROP TABLE finds; DROP TABLE salvage_starts; DROP TABLE salvage_sources; DROP INDEX ledger_actions_aside;
ALTER TABLE blocks DROP COLUMN parts; DROP TABLE transfers; DROP TABLE transfer_items; DROP TABLE transfer_left; DROP TABLE transfer_lists; DROP TABLE inboxes; DROP TABLE services; DROP TABLE landmark_owners; DROP TABLE landmark_runs; DROP TABLE landmark_buckets; DROP TABLE met_recordings; DROP INDEX holdings_sha256; ALTER TABLE ledger_lists DROP COLUMN base; ALTER TABLE volumes DROP COLUMN forgotten; DROP INDEX holdings_seen; ALTER TABLE volumes DROP COLUMN look_inside; ALTER TABLE volumes DROP COLUMN keep_excerpts; DROP TABLE ledger_folders; ALTER TABLE ledger DROP COLUMN origin;
PRAGMA user_version = 9''')
)",
                               told.cataloguePath()});
        INFO(made.err);
        REQUIRE(made.code == 0);
    });
    CHECK(told.found("hymn") == Names{"01 Evening Hymn.wav"});
}

TEST_CASE(
    "sets are narrowed by a word that thousands have as by one that few have, the first of them alike") {
    Collection collection;
    fs::create_directories(collection / "V");
    collection.survey("V");
    constexpr unsigned recordings = 2'600; // twice that is more than are named beforehand
    {
        HoldingWriter writer(collection.catalogue(), collection.volume("V").id, timeNow());
        for (unsigned i = 0; i < 2 * recordings; ++i) {
            const unsigned recording = i % recordings;
            FileRecord record;
            record.stamp.size = 10'000 + recording;
            record.stamp.links = 1;
            record.tags.title = "Recording " + std::to_string(recording);
            std::memcpy(record.checksums.file.bytes.data(), &recording, sizeof recording);
            writer.add(std::to_string(i) + ".wav", record, false);
        }
        REQUIRE(writer.commit().ok());
    }
    REQUIRE(refreshFindings(collection.catalogue()).ok());
    const Findings findings(collection.catalogue());
    for (const auto& [text, expected] :
         {std::pair("", recordings), {"recording", recordings}, {"recording 1234", 1U}, {"nowhere", 0U}}) {
        CAPTURE(text);
        SetFilter filter;
        filter.text = text;
        const auto all = findings.setOrder(SetOrder::mostBytes, filter);
        CHECK(all->size() == expected);
        auto first = findings.firstSets(SetOrder::mostBytes, filter, 60);
        CHECK(*first == std::vector(all->begin(), all->begin() + std::min(60U, expected)));
        HoldingFilter alone;
        alone.text = text;
        CHECK(*EvidenceStore(collection.catalogue()).count(alone) == 2 * expected);
    }
}

TEST_CASE("a search is narrowed by everything that a filter knows") {
    SearchedCollection told;
    Claims mp3;
    mp3.codec = "mp3";
    mp3.bitrate = 128'000;
    mp3.duration = 200;
    told.tell("V", "low.mp3", {"Low", "", "", "", "1960"}, mp3);
    mp3.bitrate = 320'000;
    mp3.duration = 95.5;
    told.tell("V", "Deep/high.mp3", {"High", "", "", "", "1971-03"}, mp3);
    const auto narrowed = [&](const std::function<void(HoldingFilter&)>& change,
                              const std::string& words = {}) {
        HoldingFilter filter;
        filter.text = words;
        change(filter);
        // What is kept as a standing list means the same.
        REQUIRE(StandingLists(told.catalogue()).keep("kept", filter).ok());
        const auto kept = StandingLists(told.catalogue()).all();
        const auto list = std::ranges::find(*kept, "kept", &StandingList::name);
        CHECK(list->filter == filter);
        const auto names = told.found(filter);
        CHECK(EvidenceStore(told.catalogue()).meant(filter)->size() == names.size());
        return names;
    };
    CHECK(*Holdings(told.catalogue()).codecs() == std::vector<std::string>{"mp3", "pcm"});
    CHECK(narrowed([](auto& filter) { filter.codec = "mp3"; }) == Names{"high.mp3", "low.mp3"});
    CHECK(narrowed([](auto& filter) { filter.codec = "mp3"; }, "high") == Names{"high.mp3"});
    CHECK(narrowed([](auto& filter) { filter.bitrate.to = 128'000; }, ".mp3") == Names{"low.mp3"});
    CHECK(narrowed([](auto& filter) { filter.bitrate = {128'001, 320'000}; }) == Names{"high.mp3"});
    CHECK(narrowed([](auto& filter) {
              filter.seconds.from = 95.5;
              filter.codec = "mp3";
          }).size() == 2);
    CHECK(narrowed([](auto& filter) { filter.seconds = {90.0, 100.0}; }) == Names{"high.mp3"});
    CHECK(narrowed([](auto& filter) { filter.years = {1960, 1970}; }) == Names{"low.mp3"});
    CHECK(narrowed([](auto& filter) { filter.years.from = 1971; }) == Names{"high.mp3"});
    CHECK(narrowed([&](auto& filter) { filter.volume = told.volume("W").id; }).size() == 2);
    CHECK(narrowed([&](auto& filter) {
              filter.volume = told.volume("V").id;
              filter.folder = "Band";
          }).size() == 2);
}

TEST_CASE("lists are searched by their names, and narrow a search") {
    SearchedCollection told;
    const auto hymn = told / "V/Choir/01 Evening Hymn.wav";
    writeFile(told / "lists/Sunday morning.m3u",
              m3u({hymn, told / "V/Band/Slipway.wav", told / "V/none.wav"}));
    writeFile(told / "lists/Other.m3u", m3u({told / "V/Band/Slipway.wav"}));
    told.addPlayer("lantern", "lists");
    told.read();
    CHECK(told.found("sunday") == Names{"01 Evening Hymn.wav", "Slipway.wav"});
    CHECK(told.found("sunday hymn") == Names{"01 Evening Hymn.wav"});
    CHECK(told.found("m3u").empty()); // what every list's name ends in
    CHECK(told.found("sunday other") == Names{"Slipway.wav"});
    CHECK(told.found("\xC5\x9Aunday").size() == 2);
    HoldingFilter filter;
    filter.listed = HoldingFilter::Listed::inNoList;
    CHECK(told.found(filter).size() == 3);
    filter.listed = HoldingFilter::Listed::inAList;
    CHECK(told.found(filter).size() == 2);
    filter.text = "hymn";
    CHECK(told.found(filter) == Names{"01 Evening Hymn.wav"});

    // What is missed is still in the list that led to it.
    fs::remove(hymn);
    told.survey("V");
    told.read();
    CHECK(told.found("sunday hymn") == Names{"01 Evening Hymn.wav"});
    const auto found =
        foundHoldings(told.catalogue(), std::vector{told.holding("V", "Choir/01 Evening Hymn.wav")->id});
    REQUIRE(found->front().lists.size() == 1);
    CHECK(nameOf(found->front().lists.front()) == "Sunday morning.m3u");
}

TEST_CASE("what is found says where it is to be had") {
    SearchedCollection told;
    writeFile(told / "W/again.wav", smallWav(1));
    told.survey("W");
    REQUIRE(refreshFindings(told.catalogue()).ok());
    const auto reach = [&](const std::string& label, const BytePath& path) {
        const auto found = foundHoldings(told.catalogue(), std::vector{told.holding(label, path)->id});
        REQUIRE(found.ok());
        return found->front();
    };
    CHECK(reachWords(reach("V", "Choir/01 Evening Hymn.wav")) == "on V");
    CHECK(reach("V", "Choir/01 Evening Hymn.wav").copies == 1);
    CHECK(reach("V", "Band/Slipway.wav").copies == 0);
    auto volume = told.volume("V");
    volume.atHand = false;
    REQUIRE(Volumes(told.catalogue()).update(volume).ok());
    const auto went = told.volume("V").awaySince;
    CHECK(went > 0);
    CHECK(reachWords(reach("V", "Band/Slipway.wav")) ==
          "on V (No. " + std::to_string(told.volume("V").id) + "), away since " + localDay(went));
    CHECK_FALSE(reach("V", "Band/Slipway.wav").reachable);
    // That it was looked at again does not make it younger.
    REQUIRE(Volumes(told.catalogue()).update(told.volume("V")).ok());
    CHECK(told.volume("V").awaySince == went);
    volume.atHand = true;
    REQUIRE(Volumes(told.catalogue()).update(volume).ok());
    CHECK(told.volume("V").awaySince == 0);
}

TEST_CASE("a volume is browsed by its folders, whatever they are called") {
    SearchedCollection told;
    Claims claims;
    claims.duration = 10;
    told.tell("V", "Band/Deep/Deeper/x.flac", {}, claims);
    told.tell("V", "Band 2/y.flac", {}, claims); // before "Band/" as bytes go
    told.tell("V", "Band.d/z.flac", {}, claims);
    told.tell("V", "top.flac", {}, claims);
    fs::remove(told / "V/Band/Slipway.wav");
    told.survey("V");
    REQUIRE(refreshFindings(told.catalogue()).ok());
    const auto volume = told.volume("V").id;
    const auto top = browse(told.catalogue(), volume, "");
    REQUIRE(top.ok());
    // What was only told of is missing since the survey looked.
    std::map<BytePath, std::pair<std::uint64_t, std::uint64_t>> counts;
    for (const auto& folder : top->folders) {
        counts[folder.figures.path] = {folder.figures.holdings, folder.figures.missing};
    }
    CHECK(counts == std::map<BytePath, std::pair<std::uint64_t, std::uint64_t>>{
                        {"Band", {1, 2}}, {"Band 2", {0, 1}}, {"Band.d", {0, 1}}, {"Choir", {1, 0}}});
    CHECK(top->holdings.size() == 1);
    const auto band = browse(told.catalogue(), volume, "Band");
    REQUIRE(band->folders.size() == 1);
    CHECK(band->folders.front().figures.path == "Band/Deep");
    CHECK(band->holdings.size() == 2);
    CHECK(browse(told.catalogue(), volume, "Band/Deep/Deeper")->holdings.size() == 1);
    CHECK(browse(told.catalogue(), volume, "none")->holdings.empty());
    // Each folder's figures are those of the walk that Condition shows.
    const auto walked = Findings(told.catalogue()).folderFigures(volume, 1);
    for (const auto& figures : *walked) {
        if (!figures.path.empty()) {
            CHECK(counts[figures.path] == std::pair(figures.holdings, figures.missing));
        }
    }
}
