// Images in parts and compressed, by split of coreutils, bgzip of htslib, zstd and pzstd; drives by the
// kernel's loop; ISO 9660 and HFS+ by xorriso.
#include "core/evidence/worker/image_bytes.h"
#include "core/media/file_systems.h"
#include "core/media/packed_image.h"
#include "core/salvage/scan_image.h"
#include "support/examined_collection.h"
#include "support/memory_source.h"
#include "support/mounts.h"
#include "support/sound.h"

#include <fstream>
#include <set>
#include <unistd.h>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

/// An image with three files in it, and a catalogue that knows none of them.
struct FormsOfImage {
    FormsOfImage() {
        writeMusic(folder / "m.wav", 31, 5);
        std::string content = randomBytes(20'480, 1);
        for (const auto* form : {"flac", "ogg", "mp3"}) {
            ffmpeg({"-i", folder / "m.wav", folder / (std::string("m.") + form)});
            content += readFile(folder / (std::string("m.") + form));
            content.resize((content.size() + 511) / 512 * 512, '\0');
            content += std::string(300'000, '\0');
        }
        writeFile(image, content);
    }
    std::string shell(const std::string& line) const {
        const auto ran = run({"sh", "-c", "cd '" + folder.path() + "' && " + line});
        INFO(ran.err);
        REQUIRE(ran.code == 0);
        return ran.out;
    }
    Result<std::vector<Find>> scan(const BytePath& path) {
        RunControl control;
        ScanChoices choices;
        choices.image = path;
        const auto source = scanForAudio(*catalogue, choices, control, [](const Progress&) {});
        return source ? SalvageStore(*catalogue).finds(source->id)
                      : Result<std::vector<Find>>(source.error());
    }
    TempFolder folder;
    BytePath image = folder / "card.img";
    Result<Catalogue> catalogue = Catalogue::openForWriting(folder / "c.sqlite");
};

void sameFinds(const std::vector<Find>& some, const Result<std::vector<Find>>& others) {
    INFO((others ? std::string() : others.error().sentence));
    REQUIRE(others.ok());
    REQUIRE(others->size() == some.size());
    for (std::size_t i = 0; i < some.size(); ++i) {
        CHECK((*others)[i].extents == some[i].extents);
        CHECK((*others)[i].checksum == some[i].checksum);
        CHECK((*others)[i].sound == some[i].sound);
    }
}

} // namespace

TEST_CASE("An image in parts or compressed shows what the image itself shows") {
    FormsOfImage forms;
    const auto finds = forms.scan(forms.image);
    REQUIRE(finds.ok());
    REQUIRE(finds->size() == 3);
    const auto content = readFile(forms.image);
    const auto holdsAll = [&](const BytePath& path) {
        RunControl control;
        const auto opened = openMeasured(path, control);
        REQUIRE(opened.ok());
        CHECK(opened->size == content.size());
        const auto bytes = bytesOf(*opened, path);
        std::string read(content.size(), '\0');
        CHECK(bytes->readAt(0, {reinterpret_cast<std::uint8_t*>(read.data()), read.size()}) ==
              static_cast<std::int64_t>(read.size()));
        CHECK((read == content));
        std::uint8_t some[9]{};
        CHECK(bytes->readAt(content.size() - 4, some) == 4);
        CHECK(bytes->readAt(content.size() + 10, some) <= 0);
    };
    const std::pair<const char*, const char*> ways[]{
        {"split -b 200000 card.img card.img.", "card.img.aa"},
        {"split -b 300000 -d -a 3 --numeric-suffixes=1 card.img part.", "part.001"},
        {"bgzip -c card.img > card.img.gz", "card.img.gz"},
        {"pzstd -q -k -f card.img -o card.p.zst", "card.p.zst"},
        {"zstd -q -f card.img -o card.zst", "card.zst"},
        {"split -b 150000 card.img z. && for i in z.??; do zstd -q $i; done && cat z.??.zst > many.zst",
         "many.zst"},
        {"bgzip -c card.img | split -b 100000 - both.gz.", "both.gz.aa"}};
    for (const auto& [line, name] : ways) {
        INFO(line);
        forms.shell(line);
        holdsAll(forms.folder / name);
        sameFinds(*finds, forms.scan(forms.folder / name));
    }
}

TEST_CASE("What was compressed as one stream or is not whole says so") {
    FormsOfImage forms;
    forms.shell("gzip -k -c card.img > one.gz");
    const auto whole = forms.scan(forms.folder / "one.gz");
    REQUIRE_FALSE(whole.ok());
    CHECK(whole.error().cause == Cause::invalid);
    CHECK(whole.error().sentence.find("Unpack it first") != std::string::npos);

    forms.shell("bgzip -c card.img > b.gz && head -c 100000 b.gz > cut.gz");
    const auto cut = forms.scan(forms.folder / "cut.gz");
    REQUIRE_FALSE(cut.ok());
    CHECK(cut.error().cause == Cause::damaged);

    forms.shell("pzstd -q -k -f card.img -o p.zst && head -c 200000 p.zst > cut.zst");
    CHECK_FALSE(forms.scan(forms.folder / "cut.zst").ok());
}

TEST_CASE("A stretch that does not unpack costs what lies in it, not the scan") {
    FormsOfImage forms;
    forms.shell("bgzip -c card.img > b.gz");
    auto packed = readFile(forms.folder / "b.gz");
    packed.replace(packed.size() / 2, 64, std::string(64, '\x55'));
    writeFile(forms.folder / "b.gz", packed);
    const auto finds = forms.scan(forms.folder / "b.gz");
    INFO((finds ? std::string() : finds.error().sentence));
    REQUIRE(finds.ok());
    CHECK(finds->size() >= 2);
    CHECK(std::ranges::count_if(*finds, [](const Find& find) { return find.isWhole(); }) == 2);
}

TEST_CASE("Headers of compressed images that were changed lead nowhere") {
    FormsOfImage forms;
    forms.shell("bgzip -c card.img > b.gz && zstd -q -f card.img -o z.zst");
    for (const auto& [name, packing] :
         {std::pair("b.gz", ImagePacking::gzip), {"z.zst", ImagePacking::zstd}}) {
        const auto content = readFile(forms.folder / name);
        for (std::size_t at = 0; at < 40; ++at) {
            auto changed = content;
            changed[at] = static_cast<char>(changed[at] ^ 0x5A);
            MemorySource source{std::string_view(changed)};
            const auto units = packedUnits(source, packing, "changed");
            if (units) {
                PackedImage image(source, packing, *units);
                std::vector<std::uint8_t> bytes(4'096);
                CHECK(image.readAt(0, bytes) <= static_cast<std::int64_t>(bytes.size()));
            }
        }
    }
}

TEST_CASE("A drive is looked through like its image") {
    FormsOfImage forms;
    if (geteuid() != 0) {
        WARN("Not tried: loop devices need root.");
        return;
    }
    const auto finds = forms.scan(forms.image);
    REQUIRE(finds.ok());
    TestMounts mounts;
    sameFinds(*finds, forms.scan(mounts.loop(forms.image)));
}

TEST_CASE("Files of ISO 9660 and HFS+ are known by their names and places") {
    FormsOfImage forms;
    fs::create_directories(forms.folder / "tree/Discs");
    fs::copy_file(forms.folder / "m.flac", forms.folder / "tree/Discs/Slack Water.flac");
    fs::copy_file(forms.folder / "m.mp3", forms.folder / "tree/m.mp3");
    forms.shell(
        "xorriso -as mkisofs -quiet -J -R -hfsplus -hfsplus-serial-no 0123456789abcdef -o both.iso tree");
    const auto content = readFile(forms.folder / "both.iso");
    MemorySource source{std::string_view(content)};
    const auto systems = readFileSystems(source);
    REQUIRE(systems.ok());
    std::set<std::string> types;
    for (const auto& system : *systems) {
        types.insert(system.type);
        const auto entry = std::ranges::find_if(
            system.entries, [](const ImageEntry& each) { return each.path.ends_with("Slack Water.flac"); });
        INFO(system.type);
        REQUIRE(entry != system.entries.end());
        CHECK_FALSE(entry->deleted);
        REQUIRE(entry->extents.size() == 1);
        const auto [first, past] = entry->extents.front();
        CHECK((content.substr(first, past - first) == readFile(forms.folder / "m.flac")));
    }
    CHECK(types.contains("iso9660"));
    CHECK(types.contains("hfs+"));
}
