#include "core/audit/relink_rules.h"

#include <catch2/catch.hpp>

using namespace sober;

namespace {

LostPlace lostAt(const BytePath& path, double seconds = -1, const std::string& title = {},
                 const std::string& artist = {}) {
    LostPlace lost;
    lost.path = path;
    lost.seconds = seconds;
    lost.title = title;
    lost.artist = artist;
    return lost;
}

RelinkCandidate fileAt(const BytePath& path, double seconds = 0, const std::string& title = {},
                       const std::string& artist = {}, const std::string& album = {}) {
    return {0, path, 1000, seconds, title, artist, album, {}};
}

Checksum128 contentOf(std::uint8_t number) {
    Checksum128 content;
    content.bytes[0] = number;
    return content;
}

/// Lost places and the files that stand for them, in the same order.
struct Pairs {
    std::vector<LostPlace> lost;
    RelinkCandidates candidates;
    std::vector<RelinkVote> votes;

    void add(const BytePath& from, const RelinkCandidate& to, Agreement agreement = Agreement::agrees,
             bool distinctive = true) {
        votes.push_back({lost.size(), candidates.add(to), agreement, distinctive});
        lost.push_back(lostAt(from));
    }
    std::vector<RelinkRule> rules() const { return inferRules(lost, candidates, votes, placesBelow(lost)); }
};

} // namespace

TEST_CASE("a rule is what is left when the common end of both paths is taken away") {
    struct Row {
        std::string what;
        std::vector<std::pair<BytePath, RelinkCandidate>> pairs;
        RelinkRuleKind kind;
        BytePath from;
        BytePath to;
        std::string fromEnding;
        std::string toEnding;
    };
    using enum RelinkRuleKind;
    const std::vector<Row> rows{
        {"a renamed folder",
         {{"/m/old/a/1.mp3", fileAt("/m/new/a/1.mp3")}, {"/m/old/b/2.mp3", fileAt("/m/new/b/2.mp3")}},
         folder,
         "/m/old",
         "/m/new",
         "",
         ""},
        {"another machine",
         {{"C:/Music/a/1.mp3", fileAt("/srv/a/1.mp3")}, {"C:/Music/b/2.mp3", fileAt("/srv/b/2.mp3")}},
         folder,
         "C:/Music",
         "/srv",
         "",
         ""},
        {"a renamed folder whose files were replaced by another format",
         {{"/m/old/a/1.mp3", fileAt("/m/new/a/1.flac")}, {"/m/old/b/2.mp3", fileAt("/m/new/b/2.flac")}},
         folder,
         "/m/old",
         "/m/new",
         "mp3",
         "flac"},
        {"only another format",
         {{"/m/x/a/1.mp3", fileAt("/m/x/a/1.flac")}, {"/m/x/b/2.mp3", fileAt("/m/x/b/2.flac")}},
         folder,
         "/m/x",
         "/m/x",
         "mp3",
         "flac"},
        {"folders that became one",
         {{"/m/a/one.mp3", fileAt("/m/all/one.mp3")},
          {"/m/b/two.mp3", fileAt("/m/all/two.mp3")},
          {"/m/c/three.mp3", fileAt("/m/all/three.mp3")}},
         flattened,
         "/m",
         "/m/all",
         "",
         ""},
        {"one folder sorted by performer and album",
         {{"/m/in/1.mp3", fileAt("/m/s/Ann/Sea/1.mp3", 0, "1", "Ann", "Sea")},
          {"/m/in/2.mp3", fileAt("/m/s/Ann/Sky/2.mp3", 0, "2", "Ann", "Sky")},
          {"/m/in/3.mp3", fileAt("/m/s/Bob/Sand/3.mp3", 0, "3", "Bob", "Sand")}},
         sortedByTags,
         "/m/in",
         "/m/s",
         "",
         ""},
    };
    for (const auto& row : rows) {
        CAPTURE(row.what);
        Pairs pairs;
        for (const auto& [from, to] : row.pairs) {
            pairs.add(from, to);
        }
        const auto rules = pairs.rules();
        REQUIRE(rules.size() == 1);
        CHECK(rules[0].kind == row.kind);
        CHECK(rules[0].from == row.from);
        CHECK(rules[0].to == row.to);
        CHECK(rules[0].fromEnding == row.fromEnding);
        CHECK(rules[0].toEnding == row.toEnding);
        // Every pair that it was inferred from, it leads to.
        for (std::size_t i = 0; i < pairs.lost.size(); ++i) {
            CHECK(targetsOf(rules[0], pairs.lost[i], pairs.candidates) ==
                  std::vector{pairs.votes[i].candidate});
        }
        CHECK(targetsOf(rules[0], lostAt("/elsewhere/1.mp3"), pairs.candidates).empty());
    }
}

TEST_CASE("how names were made is inferred from files of the same content") {
    struct Row {
        std::string what;
        std::vector<std::pair<LostPlace, RelinkCandidate>>
            pairs; ///< the last is not shown, and has to be found
        RelinkRuleKind kind;
        BytePath from;
        BytePath to;
        std::string naming;
    };
    using enum RelinkRuleKind;
    const std::vector<Row> rows{
        {"flattened with the folder in the name",
         {{lostAt("/m/Vol 03/07 Piece.mp3"), fileAt("/f/Vol 03 - 07 Piece.mp3")},
          {lostAt("/m/Vol 11/2 Other.mp3"), fileAt("/f/Vol 11 - 02 Other.mp3")},
          {lostAt("/m/Side A/9 Last.mp3"), fileAt("/f/Side A - 09 Last.mp3")}},
         folder,
         "/m",
         "/f",
         "named by folder and old name"},
        {"folders of different places flattened with both folders in the name",
         {{lostAt("/m/x/Ann/Sea/Tide.mp3"), fileAt("/f/Ann_Sea_Tide.mp3")},
          {lostAt("/m/y/Bob/Sky/Rain.mp3"), fileAt("/f/Bob_Sky_Rain.mp3")},
          {lostAt("/m/y/Cid/Sand/Dune.mp3"), fileAt("/f/Cid_Sand_Dune.mp3")}},
         flattened,
         "/m",
         "/f",
         "named by the folder above, folder and old name"},
        {"the number dropped, where it lies",
         {{lostAt("/m/a/01 - Sea.flac"), fileAt("/m/a/Sea.flac")},
          {lostAt("/m/b/02 - Sky.flac"), fileAt("/m/b/Sky.flac")},
          {lostAt("/m/b/03 - Sand.flac"), fileAt("/m/b/Sand.flac")}},
         folder,
         "/m",
         "/m",
         "the number left out"},
        {"other separators, small letters and another format, also of folders",
         {{lostAt("/m/Big Sea/01 High Tide.wav"), fileAt("/n/big_sea/01_high_tide.flac")},
          {lostAt("/m/Big Sky/02 Low Cloud.wav"), fileAt("/n/big_sky/02_low_cloud.flac")},
          {lostAt("/m/Big Sky/03 Don't.wav"), fileAt("/n/big_sky/03_dont.flac")}},
         folder,
         "/m",
         "/n",
         "the names written otherwise"},
        {"accents written plainly, two letters for one",
         {{lostAt("/m/Übungen/Grüße.mp3"), fileAt("/n/Uebungen/Gruesse.mp3")},
          {lostAt("/m/Übungen/Glück.mp3"), fileAt("/n/Uebungen/Glueck.mp3")},
          {lostAt("/m/Bände/Märchen.mp3"), fileAt("/n/Baende/Maerchen.mp3")}},
         folder,
         "/m",
         "/n",
         "the names written otherwise, \"ü\" as \"ue\" and the like"},
        {"the same of names that a file system has decomposed",
         {{lostAt("/m/U\u0308bungen/Gru\u0308\u00DFe.mp3"), fileAt("/n/Uebungen/Gruesse.mp3")},
          {lostAt("/m/U\u0308bungen/Glu\u0308ck.mp3"), fileAt("/n/Uebungen/Glueck.mp3")},
          {lostAt("/m/Ba\u0308nde/Ma\u0308rchen.mp3"), fileAt("/n/Baende/Maerchen.mp3")}},
         folder,
         "/m",
         "/n",
         "the names written otherwise, \"ü\" as \"ue\" and the like"},
        {"Cyrillic in Latin letters",
         {{lostAt("/m/Песни/Волна.mp3"), fileAt("/n/pesni/volna.mp3")},
          {lostAt("/m/Песни/Берег.mp3"), fileAt("/n/pesni/bereg.mp3")},
          {lostAt("/m/Чайки/Шхуна.mp3"), fileAt("/n/chaiki/shkhuna.mp3")}},
         folder,
         "/m",
         "/n",
         "the names written otherwise, in Latin letters"},
        {"renamed by tags, with a number that nothing tells of",
         {{lostAt("/m/x/a.mp3", 60, "Sea", "Ann"), fileAt("/n/04 Ann - Sea.mp3")},
          {lostAt("/m/x/b.mp3", 61, "Sky", "Bob"), fileAt("/n/11 Bob - Sky.mp3")},
          {lostAt("/m/x/c.mp3", 62, "Sand", "Cid"), fileAt("/n/02 Cid - Sand.mp3")}},
         folder,
         "/m/x",
         "/n",
         "named by another number, performer and title"},
        {"renamed by tags into folders named after them",
         {{lostAt("/m/x/a.mp3", 60, "Sea", "Ann"), fileAt("/n/Ann/One/Sea.mp3", 60, "Sea", "Ann", "One")},
          {lostAt("/m/x/b.mp3", 61, "Sky", "Bob"), fileAt("/n/Bob/Two/Sky.mp3", 61, "Sky", "Bob", "Two")},
          {lostAt("/m/x/c.mp3", 62, "Sand", "Cid"),
           fileAt("/n/Cid/Three/Sand.mp3", 62, "Sand", "Cid", "Three")}},
         sortedByTags,
         "/m/x",
         "/n",
         "named by title"},
    };
    for (const auto& row : rows) {
        CAPTURE(row.what);
        Pairs pairs;
        for (const auto& [lost, file] : row.pairs) {
            pairs.votes.push_back(
                {pairs.lost.size(), pairs.candidates.add(file), Agreement::sameContent, true});
            pairs.lost.push_back(lost);
        }
        pairs.votes.pop_back();
        pairs.candidates.add(fileAt("/f/Side B - 09 Last.mp3"));
        const auto rules = pairs.rules();
        REQUIRE(rules.size() == 1);
        CHECK(rules[0].kind == row.kind);
        CHECK(rules[0].from == row.from);
        CHECK(rules[0].to == row.to);
        CHECK(wordsOf(rules[0].naming) == row.naming);
        for (std::size_t i = 0; i < pairs.lost.size(); ++i) {
            CAPTURE(pairs.lost[i].path);
            CHECK(targetsOf(rules[0], pairs.lost[i], pairs.candidates) == std::vector{i});
        }
        // What only looks as if it had been renamed is no ground for a rule.
        for (auto& vote : pairs.votes) {
            vote.agreement = Agreement::agrees;
        }
        CHECK(pairs.rules().empty());
    }
}

TEST_CASE("a name that follows from nothing that is known is no ground for a rule") {
    for (const auto* name : {"/n/Vol.mp3", "/n/Something else.mp3", "/n/07.mp3", "/n/Piece Ann.mp3"}) {
        CHECK(namingsOf(lostAt("/m/Vol 03/07 Piece.mp3"), fileAt(name)).empty());
    }
}

TEST_CASE("how much it takes for a rule") {
    const auto count = [](std::initializer_list<std::pair<Agreement, bool>> votes, int others = 0) {
        Pairs pairs;
        int number = 0;
        for (const auto& [agreement, distinctive] : votes) {
            const auto name = "n" + std::to_string(number++) + ".mp3";
            pairs.add("/old/x/" + name, fileAt("/new/x/" + name), agreement, distinctive);
        }
        for (int i = 0; i < others; ++i) {
            pairs.lost.push_back(lostAt("/old/x/other " + std::to_string(i) + ".mp3"));
        }
        return pairs.rules().size();
    };
    using enum Agreement;
    CHECK(count({{sameContent, false}}) == 1);
    CHECK(count({{sameContent, false}}, 50) == 1); // content needs no company
    CHECK(count({{agrees, false}}) == 0);
    CHECK(count({{agrees, false}, {partly, false}}) == 1);
    CHECK(count({{agrees, false}, {partly, false}}, 5) == 0); // a few namesakes elsewhere are no rule
    CHECK(count({{silent, true}, {silent, true}}) == 0);
    CHECK(count({{silent, true}, {silent, true}, {silent, true}}) == 1);
    CHECK(count({{silent, false}, {silent, false}, {silent, false}}) == 0);
}

TEST_CASE("one name in many folders counts once") {
    Pairs pairs;
    for (const auto* folder : {"a", "b", "c", "d"}) {
        const auto below = std::string(folder) + "/track 01.mp3";
        pairs.add("/old/" + below, fileAt("/new/" + below), Agreement::partly, false);
    }
    CHECK(pairs.rules().empty());
}

TEST_CASE("names that collided in a heap carry a number") {
    RelinkRule rule;
    rule.kind = RelinkRuleKind::flattened;
    rule.from = "/m/weeks";
    rule.to = "/m/all";
    const auto lost = lostAt("/m/weeks/2/warm-up.ogg");
    const std::pair<BytePath, bool> rows[] = {
        {"/m/all/warm-up (2).ogg", true}, {"/m/all/warm-up_1.ogg", true},     {"/m/all/warm-up 13.ogg", true},
        {"/m/all/warm-up-3.ogg", true},   {"/m/all/warm-up II.ogg", false},   {"/m/all/warm-up2.ogg", false},
        {"/m/all/warm.ogg", false},       {"/m/other/warm-up (2).ogg", false}};
    for (const auto& [path, leads] : rows) {
        CAPTURE(path);
        CHECK(leadsInto(rule, lost, fileAt(path)) == leads);
    }
}

TEST_CASE("an example stands for its tree, unless the file has another name") {
    const auto rule = ruleOfExample(lostAt("C:/Music/Sea/a.mp3"), fileAt("/srv/audio/Sea/a.mp3"));
    REQUIRE(rule.has_value());
    CHECK(rule->from == "C:/Music");
    CHECK(rule->to == "/srv/audio");
    CHECK_FALSE(ruleOfExample(lostAt("/m/a.mp3"), fileAt("/m/b.mp3")).has_value());
    CHECK_FALSE(ruleOfExample(lostAt("/m/a.mp3"), fileAt("/n/a (2).mp3")).has_value());
    const auto ending = ruleOfExample(lostAt("/m/x/a.mp3"), fileAt("/m/x/a.flac"));
    REQUIRE(ending.has_value());
    CHECK(ending->from == "/m/x");
    CHECK(ending->toEnding == "flac");
}

TEST_CASE("what is known of a lost place and of a file agrees, is silent, or contradicts") {
    using enum Agreement;
    struct Row {
        std::string what;
        LostPlace lost;
        RelinkCandidate file;
        Agreement agreement;
    };
    auto seen = lostAt("/m/a.mp3");
    seen.former.push_back({1, contentOf(1), 1000, 60, "Hymn", "Choir", ""});
    auto same = fileAt("/n/a.mp3", 60);
    same.content = contentOf(1);
    auto other = fileAt("/n/a.mp3", 60);
    other.content = contentOf(2);
    auto retagged = fileAt("/n/a.mp3", 60, "Hymn", "Choir");
    retagged.content = contentOf(3);
    auto otherFormat = fileAt("/n/a.ogg", 60.4, "Hymn", "Choir");
    otherFormat.content = contentOf(4);
    const std::vector<Row> rows{
        {"the same bytes", seen, same, sameContent},
        {"other bytes, nothing else known", seen, other, contradicts},
        {"other bytes, length and tags as they were", seen, retagged, doubtful},
        {"another format of it", seen, otherFormat, agrees},
        {"nothing known", lostAt("/m/a.mp3"), fileAt("/n/a.mp3"), silent},
        {"the length a list rounded", lostAt("/m/a.mp3", 61), fileAt("/n/a.mp3", 60.2), partly},
        {"another length", lostAt("/m/a.mp3", 61), fileAt("/n/a.mp3", 65), contradicts},
        {"the same title after the performer's name", lostAt("/m/a.mp3", 60, "Choir - Hymn"),
         fileAt("/n/a.mp3", 60, "Hymn", "Choir"), agrees},
        {"another title", lostAt("/m/a.mp3", 60, "Hymn"), fileAt("/n/a.mp3", 60, "Psalm", "Choir"), doubtful},
        {"a title that was made of the name", lostAt("/m/take 7.mp3", 60, "take 7"),
         fileAt("/n/take 7.mp3", 60, "Psalm"), partly},
        {"another performer", lostAt("/m/a.mp3", 60, "Hymn", "Choir"), fileAt("/n/a.mp3", 60, "Hymn", "Band"),
         doubtful},
    };
    for (const auto& row : rows) {
        CAPTURE(row.what);
        CHECK(judge(row.lost, row.file).agreement == row.agreement);
    }
}

TEST_CASE("a rule says what happened in words") {
    RelinkRule rule;
    rule.from = "/a";
    rule.to = "/b";
    CHECK(wordsOf(rule) == "/a to /b");
    rule.kind = RelinkRuleKind::flattened;
    CHECK(wordsOf(rule) == "/a to /b, all in one folder");
    rule.kind = RelinkRuleKind::folder;
    rule.fromEnding = "mp3";
    rule.toEnding = "flac";
    CHECK(wordsOf(rule) == "/a to /b, .mp3 to .flac");
    CHECK(commonFolder("/a/b/c.mp3", "/a/d/e.mp3") == "/a");
    CHECK(commonFolder("/a/b.mp3", "/x/y.mp3") == "/");
}
