// What is kept of recordings, asked for by the command.
#include "support/run_program.h"
#include "support/small_audio.h"
#include "support/temp_folder.h"

#include <catch2/catch.hpp>

#include <filesystem>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

TEST_CASE("an excerpt is kept, counted and written out while its drive is away") {
    const TempFolder all;
    writeFile(all / "V/a.wav", smallWav(1, 3));
    writeFile(all / "V/b.wav", smallWav(2, 3));
    const auto ask = [&](std::vector<std::string> words) {
        words.insert(words.end(), {"--json", "--quiet"});
        const auto result = sober::test::sober(all / "c.sqlite", words);
        INFO(result.out << result.err);
        CHECK(result.code == 0);
        return nlohmann::json::parse(result.out);
    };
    ask({"survey", all / "V", "--effort", "full"});
    auto figures = ask({"excerpts"});
    CHECK(figures["kept"] == 0);
    CHECK(figures["examined_without"] == 2);
    CHECK(figures["bytes_for_those"] > 100'000);
    ask({"survey", all / "V", "--keep-excerpts"});
    figures = ask({"excerpts"});
    CHECK(figures["kept"] == 2);
    CHECK(figures["examined_without"] == 0);
    CHECK(figures["bytes"] == fs::file_size(all / "c.sqlite.excerpts"));

    fs::rename(all / "V", all / "away");
    const auto taken = ask({"excerpts", "take", all / "V/a.wav", "--to", all / "a.opus"});
    CHECK(taken["begins"] == 0);
    CHECK(taken["of"].get<double>() == Approx(3).margin(0.01));
    // FFmpeg's own tool reads it: 3 seconds of Opus at 48 kHz (RFC 7845, section 5.1).
    const auto probed =
        run({"ffprobe", "-v", "error", "-show_entries", "stream=codec_name,sample_rate:format=duration",
             "-of", "csv=p=0", all / "a.opus"});
    CHECK(probed.out.substr(0, 11) == "opus,48000\n");
    CHECK(std::stod(probed.out.substr(11)) == Approx(3).margin(0.05));

    struct Row {
        std::vector<std::string> words;
        int code;
        const char* says;
    };
    for (const auto& [words, code, says] : std::initializer_list<Row>{
             {{"excerpts", "take", all / "V/a.wav", "--to", all / "a.opus"}, 1, "exists"},
             {{"excerpts", "take", all / "V/none.wav", "--to", all / "n.opus"}, 1, "is not catalogued"},
             {{"excerpts", "take", "/nowhere/a.wav", "--to", all / "n.opus"}, 1, "volume"}}) {
        const auto result = sober::test::sober(all / "c.sqlite", words);
        INFO(result.err);
        CHECK(result.code == code);
        CHECK(result.err.find(says) != std::string::npos);
    }
    CHECK_FALSE(fs::exists(all / "n.opus"));
}
