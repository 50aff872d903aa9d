// What is proposed for tags. Honest texts are the names of countries in nineteen languages by Debian's
// iso-codes; texts in a wrong encoding are made of those by iconv, as programs do that read one encoding as
// another.
#include "core/intake/mended_text.h"
#include "core/intake/tag_proposals.h"
#include "support/run_program.h"
#include "support/temp_folder.h"

#include <catch2/catch.hpp>

#include <algorithm>
#include <sstream>

using namespace sober;
using namespace sober::test;

namespace {

/// Lines of one language's names.
const std::vector<std::string>& honestTexts() {
    static const std::vector<std::string> texts = [] {
        const std::string script =
            "import gettext\n"
            "for code in 'de fr el ru uk bg ja zh_CN ar he hi th ko vi pl cs tr is da'.split():\n"
            "    c = gettext.translation('iso_3166-1', '/usr/share/locale', [code])._catalog\n"
            "    for value in sorted(v for k, v in c.items() if isinstance(k, str) and k)[:110]:\n"
            "        print(value.replace('\\n', ' '))\n";
        const auto ran = run({"python3", "-c", script});
        REQUIRE(ran.code == 0);
        std::vector<std::string> all;
        std::istringstream lines(ran.out);
        for (std::string line; std::getline(lines, line);) {
            all.push_back(line);
        }
        return all;
    }();
    return texts;
}

TaggedFile tagged(const BytePath& path, std::map<std::string, std::vector<std::string>> fields) {
    return {path, {std::move(fields), {}}};
}

std::vector<TagProposal> proposedFor(const TaggedFile& file, const CollectionNames& names = {}) {
    return proposeTags(std::span(&file, 1), names, {}).front();
}

std::string shallOf(const std::vector<TagProposal>& proposals, const std::string& field) {
    const auto found = std::ranges::find(proposals, field, &TagProposal::field);
    return found == proposals.end() ? "(as it is)" : found->shall;
}

/// Many texts at once by Python's codecs; those that they cannot convert come out empty.
std::vector<std::string> byCodecs(const std::vector<std::string>& texts, const std::string& from,
                                  const std::string& to) {
    const TempFolder folder;
    std::string all;
    for (const auto& text : texts) {
        all += text + '\n';
    }
    writeFile(folder / "texts", all);
    const std::string script = "import sys\n"
                               "for line in open(sys.argv[1], 'rb').read().split(b'\\n')[:-1]:\n"
                               "    try: out = line.decode(sys.argv[2]).encode(sys.argv[3])\n"
                               "    except UnicodeError: out = b''\n"
                               "    sys.stdout.buffer.write(out + b'\\n')\n";
    const auto ran = run({"python3", "-c", script, folder / "texts", from, to});
    REQUIRE(ran.code == 0);
    std::vector<std::string> converted;
    std::istringstream lines(ran.out);
    for (std::string line; std::getline(lines, line);) {
        converted.push_back(line);
    }
    return converted;
}

bool isAscii(const std::string& text) {
    return std::ranges::all_of(text, [](char c) { return static_cast<unsigned char>(c) < 0x80; });
}

} // namespace

TEST_CASE("Of honest texts in many scripts next to none is touched") {
    const auto& texts = honestTexts();
    CHECK(texts.size() >= 2'000);
    std::size_t touched = 0;
    for (const auto& text : texts) {
        const auto proposals =
            proposedFor(tagged("/in/07 " + text.substr(0, 0) + "x.flac", {{"TITLE", {text}},
                                                                          {"ARTIST", {text}},
                                                                          {"ALBUM", {text}},
                                                                          {"TRACKNUMBER", {"7"}},
                                                                          {"GENRE", {text}}}));
        if (!proposals.empty()) {
            ++touched;
            UNSCOPED_INFO(text << " -> " << proposals.front().shall << " (" << word(proposals.front().reason)
                               << ")");
        }
    }
    CHECK(touched * 200 <= texts.size());
}

TEST_CASE("Texts that were read in the wrong encoding are told as they were meant") {
    std::vector<std::string> texts;
    std::ranges::copy_if(honestTexts(), std::back_inserter(texts),
                         [](const auto& text) { return !isAscii(text); });
    for (const auto* wrongly : {"ISO-8859-1", "CP1251"}) {
        // UTF-8 that somebody took for this.
        const auto garbled = byCodecs(texts, wrongly, "UTF-8");
        std::size_t tried = 0;
        std::size_t right = 0;
        for (std::size_t i = 0; i < texts.size() && i < garbled.size(); ++i) {
            if (!garbled[i].empty() && garbled[i] != texts[i]) {
                ++tried;
                right += meantText(garbled[i]) == texts[i] ? 1 : 0;
            }
        }
        INFO(wrongly << ": " << right << " of " << tried);
        CHECK(tried > 300);
        CHECK(right * 100 >= tried * 95);
    }
    // Windows-1251 that somebody took for Latin-1.
    const auto latin = byCodecs(texts, "UTF-8", "CP1251");
    std::size_t tried = 0;
    std::size_t right = 0;
    for (std::size_t i = 0; i < texts.size() && i < latin.size(); ++i) {
        const auto letters =
            std::ranges::count_if(latin[i], [](char c) { return static_cast<unsigned char>(c) >= 0xC0; });
        if (letters >= 5) {
            std::string garbled;
            for (const char c : latin[i]) {
                const auto byte = static_cast<unsigned char>(c);
                if (byte < 0x80) {
                    garbled.push_back(c);
                } else {
                    garbled += {static_cast<char>(0xC0 | byte >> 6), static_cast<char>(0x80 | (byte & 63))};
                }
            }
            ++tried;
            right += meantText(garbled) == texts[i] ? 1 : 0;
        }
    }
    INFO("Cyrillic: " << right << " of " << tried);
    CHECK(tried > 200);
    CHECK(right * 100 >= tried * 95);
}

TEST_CASE("A text that was read wrongly twice is read rightly twice") {
    const auto once = byCodecs({"Schöne Grüße", "Café à la crème"}, "ISO-8859-1", "UTF-8");
    const auto twice = byCodecs(once, "ISO-8859-1", "UTF-8");
    CHECK(meantText(twice[0]) == "Schöne Grüße");
    CHECK(meantText(twice[1]) == "Café à la crème");
}

TEST_CASE("Spaces and what cannot be seen go, joiners stay") {
    const std::pair<const char*, const char*> cases[]{
        {"  Slack  Water ", "Slack Water"},
        {"Slack\xC2\xA0Water", "Slack Water"},
        {"\xEF\xBB\xBFSlack\xE2\x80\x8B Water", "Slack Water"},
        {"Slack\tWater\n", "Slack Water"},
        {"Sl\xC2\xAD"
         "ack",
         "Slack"},
        {"\xD9\x85\xDB\x8C\xE2\x80\x8C\xD8\xAE", "\xD9\x85\xDB\x8C\xE2\x80\x8C\xD8\xAE"},
        {"\xE6\x97\xA5\xE3\x80\x80\xE6\x9C\xAC", "\xE6\x97\xA5\xE3\x80\x80\xE6\x9C\xAC"},
        {"Slack Water", "Slack Water"}};
    for (const auto& [text, tidy] : cases) {
        CHECK(tidiedText(text) == tidy);
    }
    CHECK(tidiedText("\xFF\xFE") == "\xFF\xFE");
}

TEST_CASE("Advertising goes, and what only names a site stays") {
    const std::pair<const char*, const char*> cases[]{
        {"Slack Water [www.free-songs.example.com]", "Slack Water"},
        {"Slack Water - www.example.com", "Slack Water"},
        {"Downloaded from http://www.example.com", ""},
        {"www.example.org", ""},
        {"Visit www.example.com for more music", ""},
        {"Recorded at the pier; notes at http://example.org/pier, by the harbour master",
         "Recorded at the pier; notes at http://example.org/pier, by the harbour master"},
        {"Mr. Organ", "Mr. Organ"},
        {"Slack Water (live)", "Slack Water (live)"}};
    for (const auto& [text, rid] : cases) {
        INFO(text);
        CHECK(withoutAdvertising(text) == rid);
    }
}

TEST_CASE("Numbers are plain numbers") {
    const std::pair<const char*, const char*> tracks[]{{"Track 7", "7"},     {"#7", "7"},
                                                       {"7.", "7"},          {"7/12", "(as it is)"},
                                                       {"07", "(as it is)"}, {"A7", "(as it is)"}};
    for (const auto& [now, shall] : tracks) {
        INFO(now);
        CHECK(shallOf(proposedFor(tagged("/in/x.flac", {{"TITLE", {"x y"}}, {"TRACKNUMBER", {now}}})),
                      "TRACKNUMBER") == shall);
    }
    const std::pair<const char*, const char*> dates[]{{"(1987)", "1987"},
                                                      {"June 1987", "1987"},
                                                      {"1987-06-01", "(as it is)"},
                                                      {"1987", "(as it is)"},
                                                      {"1987 or 1988", "(as it is)"}};
    for (const auto& [now, shall] : dates) {
        INFO(now);
        CHECK(shallOf(proposedFor(tagged("/in/x.flac", {{"TITLE", {"x y"}}, {"DATE", {now}}})), "DATE") ==
              shall);
    }
}

TEST_CASE("What is missing is taken from the file's name, where that says something") {
    struct NameCase {
        const char* name;
        const char* number;
        const char* artist;
        const char* title;
    };
    const NameCase cases[]{
        {"03 - Station Road Ringers - Harvest Home.flac", "3", "Station Road Ringers", "Harvest Home"},
        {"03 Harvest Home.flac", "3", "(as it is)", "Harvest Home"},
        {"1-03 Harvest Home.flac", "3", "(as it is)", "Harvest Home"},
        {"Pell_Silver_Band - Opening_March.mp3", "(as it is)", "Pell Silver Band", "Opening March"},
        {"Harvest Home.mp3", "(as it is)", "(as it is)", "Harvest Home"},
        {"track 03.mp3", "(as it is)", "(as it is)", "(as it is)"},
        {"0042.mp3", "(as it is)", "(as it is)", "(as it is)"},
        {"\xFF\xFE.mp3", "(as it is)", "(as it is)", "(as it is)"}};
    for (const auto& each : cases) {
        INFO(each.name);
        const auto proposals = proposedFor(tagged(std::string("/in/") + each.name, {}));
        CHECK(shallOf(proposals, "TRACKNUMBER") == each.number);
        CHECK(shallOf(proposals, "ARTIST") == each.artist);
        CHECK(shallOf(proposals, "TITLE") == each.title);
    }
    // What has its tags is not told otherwise by its name.
    CHECK(proposedFor(tagged("/in/03 Other.flac",
                             {{"TITLE", {"Harvest Home"}}, {"ARTIST", {"X"}}, {"TRACKNUMBER", {"5"}}}))
              .empty());
}

TEST_CASE("An artist is spelled and filed as the collection does") {
    CollectionNames names;
    for (int i = 0; i < 5; ++i) {
        names.add("The Pell Silver Band", "Brass");
    }
    names.add("Pell silver band", "Brass");
    names.add("Björn Rask", "");
    const auto artist = [&](const std::string& now) {
        return proposedFor(tagged("/in/x y.flac", {{"TITLE", {"x"}}, {"ARTIST", {now}}}), names);
    };
    CHECK(shallOf(artist("pell silver band"), "ARTIST") == "The Pell Silver Band");
    CHECK(shallOf(artist("Pell Silver Band, The"), "ARTIST") == "The Pell Silver Band");
    CHECK(shallOf(artist("The Pell Silver Band"), "ARTIST") == "(as it is)");
    CHECK(shallOf(artist("The Pell Silver Band"), "GENRE") == "Brass");
    CHECK(shallOf(artist("Bjorn Rask"), "ARTIST") == "(as it is)"); // one is no usage
    CHECK(artist("Somebody Else").empty());
}

TEST_CASE("A text of megabytes is left as it is, and nothing of its file is taken from its name") {
    const std::string long1(3'000'000, 'x');
    const std::string spaced = std::string(400'000, ' ') + "[www.example.com]" + std::string(400'000, ' ');
    for (const auto& text : {long1, spaced}) {
        for (const auto* field : {"TITLE", "ARTIST", "ALBUM", "TRACKNUMBER", "DATE"}) {
            CHECK(proposedFor(tagged("/in/03 - Wren - Slack Water.flac", {{field, {text}}})).empty());
        }
        CHECK(
            shallOf(proposedFor(tagged("/in/Slack Water.flac", {{"COMMENT", {text}}, {"TITLE", {" Ebb "}}})),
                    "TITLE") == "Ebb");
        const std::vector<TaggedFile> album{
            tagged("/in/a/1.flac", {{"TITLE", {"x"}}, {"ARTIST", {text}}, {"ALBUM", {"Tides"}}}),
            tagged("/in/a/2.flac", {{"TITLE", {"y"}}, {"ARTIST", {"Wren"}}, {"ALBUM", {"Tides"}}})};
        CHECK(proposeTags(album, {}, {}).front().empty());
    }
}

TEST_CASE("An album of several artists gets one of its own") {
    const auto of = [](const std::string& title, const std::string& artist, const std::string& own = "") {
        auto file = tagged("/in/Album/" + title + ".flac",
                           {{"TITLE", {title}}, {"ARTIST", {artist}}, {"ALBUM", {"Evenings"}}});
        if (!own.empty()) {
            file.tags.fields["ALBUMARTIST"] = {own};
        }
        return file;
    };
    const auto shall = [&](const std::vector<TaggedFile>& files) {
        return shallOf(proposeTags(files, {}, {}).front(), "ALBUMARTIST");
    };
    CHECK(shall({of("One", "A"), of("Two", "B")}) == "Various Artists");
    CHECK(shall({of("One", "A"), of("Two", "A feat. B")}) == "A");
    CHECK(shall({of("One", "A"), of("Two", "A")}) == "(as it is)");
    CHECK(shall({of("One", "A", "C"), of("Two", "B")}) == "(as it is)");
}

TEST_CASE("A picture beside a file that carries none is proposed, and all of it makes one change") {
    const std::vector<TaggedFile> files{
        tagged("/in/Album/03 Harvest  Home.flac", {{"COMMENT", {"www.example.com"}}})};
    const std::map<BytePath, Picture> pictures{{"/in/Album", {"image/png", 3, "bytes"}}};
    const auto proposals = proposeTags(files, {}, pictures).front();
    const auto change = changeOf(proposals);
    REQUIRE(change.picture.has_value());
    CHECK(change.picture->bytes == "bytes");
    CHECK(change.fields.at("TITLE") == std::vector<std::string>{"Harvest Home"});
    CHECK(change.fields.at("TRACKNUMBER") == std::vector<std::string>{"3"});
    CHECK(change.fields.at("COMMENT").empty());
}

namespace {

/// Titles to plant faults in: honest ones that say something and part no names themselves.
std::vector<std::string> plantedIn(std::size_t most) {
    std::vector<std::string> chosen;
    for (const auto& text : honestTexts()) {
        const bool isPlain = text.size() > 4 && text.size() < 60 && tidiedText(text) == text &&
                             text.find_first_of("/,;:()[]&.-0123456789'") == std::string::npos &&
                             text.find(' ') != std::string::npos;
        if (isPlain && chosen.size() < most) {
            chosen.push_back(text);
        }
    }
    REQUIRE(chosen.size() == most);
    return chosen;
}

} // namespace

TEST_CASE("Of planted faults of each kind at least 95 in a hundred are proposed rightly") {
    const auto texts = plantedIn(200);
    std::map<std::string, int> right;
    CollectionNames names;
    for (std::size_t i = 0; i < texts.size(); ++i) {
        for (int times = 0; times < 6; ++times) {
            names.add("The " + texts[i], texts[i] + " music");
        }
    }
    for (std::size_t i = 0; i < texts.size(); ++i) {
        const auto& text = texts[i];
        const auto number = std::to_string(i % 30 + 1);
        const auto space = text.find(' ');
        const auto title = [&](const std::string& now) {
            return proposedFor(tagged("/in/x.flac", {{"TITLE", {now}}}));
        };
        const auto tell = [&](const std::string& kind, bool isRight) { right[kind] += isRight ? 1 : 0; };
        tell("spaces", shallOf(title(" " + text.substr(0, space) + "  " + text.substr(space + 1) + "\t"),
                               "TITLE") == text);
        tell("unseen",
             shallOf(title(text.substr(0, space) + "\xE2\x80\x8B" + text.substr(space)), "TITLE") == text);
        tell("advertising", shallOf(title(text + " [www.songs.example.com]"), "TITLE") == text);
        tell("number", shallOf(proposedFor(tagged("/in/x.flac",
                                                  {{"TITLE", {text}}, {"TRACKNUMBER", {"Track " + number}}})),
                               "TRACKNUMBER") == number);
        const auto byName = proposedFor(
            tagged("/in/" + number + " - " + texts[(i + 1) % texts.size()] + " - " + text + ".flac", {}));
        tell("from the name", shallOf(byName, "TITLE") == text && shallOf(byName, "TRACKNUMBER") == number &&
                                  shallOf(byName, "ARTIST") == texts[(i + 1) % texts.size()]);
        const auto spelt =
            proposedFor(tagged("/in/x.flac", {{"TITLE", {"x"}}, {"ARTIST", {text + ", The"}}}), names);
        tell("spelling", shallOf(spelt, "ARTIST") == "The " + text);
        tell(
            "genre",
            shallOf(proposedFor(tagged("/in/x.flac", {{"TITLE", {"x"}}, {"ARTIST", {"The " + text}}}), names),
                    "GENRE") == text + " music");
        const std::vector<TaggedFile> album{
            tagged("/in/a/1.flac", {{"TITLE", {"x"}}, {"ARTIST", {text}}, {"ALBUM", {text}}}),
            tagged("/in/a/2.flac",
                   {{"TITLE", {"y"}}, {"ARTIST", {texts[(i + 7) % texts.size()]}}, {"ALBUM", {text}}})};
        tell("album artist", shallOf(proposeTags(album, {}, {}).front(), "ALBUMARTIST") == "Various Artists");
    }
    for (const auto& [kind, count] : right) {
        CAPTURE(kind, count);
        CHECK(count >= 190);
    }
}
