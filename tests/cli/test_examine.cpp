#include "support/demo_copy.h"
#include "support/run_program.h"
#include "support/sound.h"

#include <catch2/catch.hpp>

using namespace sober;
using namespace sober::test;
using nlohmann::json;

namespace {

struct Examined {
    int code;
    json document;
    std::string err;
};

Examined examine(const std::vector<std::string>& files) {
    std::vector<std::string> words{"examine", "--json"};
    words.insert(words.end(), files.begin(), files.end());
    const auto result = sober::test::sober("/nowhere/unused.sqlite", words);
    INFO(result.out << result.err);
    return {result.code, json::parse(result.out), result.err};
}

} // namespace

TEST_CASE("examine answers in the contract's shape") {
    const TempFolder folder;
    writeMusic(folder / "a.wav", 12, 4);
    ffmpeg({"-i", folder / "a.wav", "-metadata", "title=Slipway", folder / "a.flac"});
    const auto answer = examine({folder / "a.flac"});
    CHECK(answer.code == 0);
    CHECK(answer.document["schema"] == "sober.examine/1");
    CHECK(answer.document["errors"].empty());
    const auto& holding = answer.document["holdings"].at(0);
    CHECK(holding["path"] == folder / "a.flac");
    CHECK(holding["claimed"]["codec"] == "flac");
    CHECK(holding["claimed"]["bit_depth"] == 16);
    CHECK(holding["claimed"]["duration"].get<double>() == Approx(4.0));
    for (const auto* field :
         {"container", "codec", "lossless", "bitrate", "sample_rate", "channels", "bit_depth", "duration"}) {
        CHECK(holding["claimed"].contains(field));
    }
    for (const auto* field : {"cutoff_hz", "peak_dbtp", "loudness_lufs", "effective_bit_depth", "trace"}) {
        CHECK(holding["measured"].contains(field));
    }
    CHECK(holding["measured"]["loudness_lufs"].is_null());
    CHECK(holding["measured"]["trace"].is_null());
    for (const auto* field : {"class", "confidence", "source_codec", "source_bitrate", "reasons"}) {
        CHECK(holding["verdict"].contains(field));
    }
    CHECK(holding["verdict"]["class"] == "genuine");
    CHECK(holding["verdict"]["source_codec"].is_null());
    CHECK(holding["soundness"]["sound"] == true);
    CHECK(holding["checksums"]["samples_md5"] ==
          run({"metaflac", "--show-md5sum", folder / "a.flac"}).out.substr(0, 32));
    CHECK(holding["checksums"]["payload_xxh3"].get<std::string>().size() == 32);
    CHECK(holding["tags"]["title"] == "Slipway");
}

TEST_CASE("one bad file costs one error line, and the exit code tells") {
    const TempFolder folder;
    writeMusic(folder / "good.wav", 13, 3);
    writeFile(folder / "text.mp3", "no sound");
    const auto some = examine({folder / "none.wav", folder / "good.wav", folder / "text.mp3"});
    CHECK(some.code == 3);
    CHECK(some.document["holdings"].size() == 1);
    CHECK(some.document["errors"].size() == 2);
    CHECK(some.document["errors"][0]["path"] == folder / "none.wav");
    CHECK(some.document["errors"][0]["error"].get<std::string>().ends_with("."));
    CHECK(examine({folder / "none.wav"}).code == 1);
    CHECK(sober::test::sober("/nowhere", {"examine"}).code == 2);
}

TEST_CASE("names that are no UTF-8 go through an examination") {
    const TempFolder folder;
    writeMusic(folder / "a.wav", 14, 3);
    const BytePath odd = folder / "caf\xE9\nsecond line.wav";
    writeFile(odd, readFile(folder / "a.wav"));
    const auto answer = examine({odd});
    CHECK(answer.code == 0);
    const auto& holding = answer.document["holdings"].at(0);
    CHECK(holding["path"] == folder / "caf%E9\nsecond line.wav");
    CHECK(holding["path_encoding"] == "percent");
}

TEST_CASE("an examination speaks to a person too") {
    const TempFolder folder;
    writeMusic(folder / "a.wav", 15, 6);
    ffmpeg({"-i", folder / "a.wav", "-c:a", "libmp3lame", "-b:a", "128k", folder / "a.mp3"});
    ffmpeg({"-i", folder / "a.mp3", folder / "false.flac"});
    const auto said = sober::test::sober("/nowhere", {"examine", folder / "false.flac"});
    CHECK(said.code == 0);
    CHECK(said.out.find("transcoded") != std::string::npos);
    CHECK(said.out.find("block grid of an MP3 encoder") != std::string::npos);
}
