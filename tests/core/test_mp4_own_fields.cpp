// Fields that MP4 has no box of its own for, read back by the ffprobe tool.
#include "core/evidence/worker/evidence_worker.h"
#include "core/media/tag_fields.h"
#include "core/remedy/changes/file_changes.h"
#include "support/run_program.h"
#include "support/sound.h"

#include <catch2/catch.hpp>

using namespace sober;
using namespace sober::test;

namespace {

using Said = std::vector<std::string>;

void writeOwnFields(const BytePath& path, std::map<std::string, Said> fields) {
    const auto file = openForChanging(path);
    REQUIRE(file.ok());
    const auto written = EvidenceWorker().writeTags(*file, path, {std::move(fields), {}, false});
    INFO((written ? std::string() : written.error().sentence));
    REQUIRE(written.ok());
}

std::string tagsToldOf(const BytePath& path) {
    return run({"ffprobe", "-v", "error", "-show_entries", "format_tags", path}).out;
}

} // namespace

TEST_CASE("fields of one's own stand in MP4, are changed there, and go") {
    const TempFolder folder;
    const BytePath path = folder / "a.m4a";
    writeMusic(folder / "in.wav", 5, 2);
    ffmpeg({"-i", folder / "in.wav", "-metadata", "title=Fog", path});
    writeOwnFields(
        path, {{"REPLAYGAIN_TRACK_GAIN", {"-3.20 dB"}}, {"HARBOUR", {"Ström", "Süd"}}, {"LABEL", {"Tern"}}});
    auto fields = readTagFields(path)->fields;
    CHECK(fields.at("TITLE") == Said{"Fog"});
    CHECK(fields.at("REPLAYGAIN_TRACK_GAIN") == Said{"-3.20 dB"});
    CHECK(fields.at("HARBOUR") == Said{"Ström", "Süd"});
    CHECK(fields.at("LABEL") == Said{"Tern"});
    CHECK(tagsToldOf(path).find("TAG:replaygain_track_gain=-3.20 dB") != std::string::npos);
    CHECK(tagsToldOf(path).find("TAG:HARBOUR=Ström") != std::string::npos);

    writeOwnFields(path, {{"HARBOUR", {"Nord"}}, {"REPLAYGAIN_TRACK_GAIN", {"1.00 dB"}}});
    fields = readTagFields(path)->fields;
    CHECK(fields.at("HARBOUR") == Said{"Nord"});
    CHECK(fields.at("REPLAYGAIN_TRACK_GAIN") == Said{"1.00 dB"});
    CHECK(tagsToldOf(path).find("Str") == std::string::npos);
    CHECK(tagsToldOf(path).find("-3.20") == std::string::npos);

    writeOwnFields(path, {{"HARBOUR", {}}, {"LABEL", {}}, {"NEVER_THERE", {}}});
    fields = readTagFields(path)->fields;
    CHECK_FALSE(fields.contains("HARBOUR"));
    CHECK_FALSE(fields.contains("LABEL"));
    CHECK(fields.at("REPLAYGAIN_TRACK_GAIN") == Said{"1.00 dB"});
    CHECK(fields.at("TITLE") == Said{"Fog"});
    CHECK(tagsToldOf(path).find("HARBOUR") == std::string::npos);
}

TEST_CASE("what a field says of one encode does not belong to another") {
    for (const auto* field : {"ENCODER", "ENCODED-BY", "ENCODING", "LENGTH", "ITUNSMPB"}) {
        CAPTURE(field);
        CHECK(isOfTheEncode(field));
    }
    for (const auto* field : {"TITLE", "REPLAYGAIN_TRACK_GAIN", "HARBOUR"}) {
        CAPTURE(field);
        CHECK_FALSE(isOfTheEncode(field));
    }
}
