// Audio out of images made by tools that are not ours, recognised and put back: mtools, mkfs.fat, mkfs.exfat
// with exfat-fuse, mkntfs with ntfs-3g, mkfs.ext4 by the kernel; out of trash folders as trash-cli writes
// them.
#include "core/salvage/part_memory.h"
#include "core/salvage/recogniser.h"
#include "core/salvage/scan_image.h"
#include "core/salvage/trash_finds.h"
#include "core/salvage/trash_folders.h"
#include "core/work/carry_out.h"
#include "core/work/take_finds.h"
#include "core/work/tidy_salvaged.h"
#include "support/examined_collection.h"
#include "support/memory_source.h"
#include "support/mounts.h"
#include "support/small_audio.h"

#include <fstream>
#include <unistd.h>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

/// A volume V of examined files, and what becomes of them.
struct Lost : Examined {
    explicit Lost(std::size_t files = 4) {
        setenv("XDG_DATA_HOME", (*this / "home/data").c_str(), 1);
        // Made once for all cases.
        static const TempFolder made;
        fs::create_directories(*this / "V");
        for (std::size_t i = 0; i < files; ++i) {
            if (!fs::exists(made / names[i])) {
                writeMusic(made / names[i], static_cast<unsigned>(400 + i), 9 + static_cast<double>(i));
            }
            fs::copy_file(made / names[i], *this / ("V/" + names[i]));
        }
        surveyFully("V");
        for (std::size_t i = 0; i < files; ++i) {
            contents.push_back(readFile(*this / ("V/" + names[i])));
        }
    }
    ~Lost() { setenv("XDG_DATA_HOME", formerData.c_str(), 1); }
    void lose() {
        for (const auto& name : names) {
            fs::remove(*this / ("V/" + name));
        }
        survey("V");
        REQUIRE(refreshFindings(catalogue()).ok());
    }
    std::vector<Find> scan(const BytePath& image, ScanChoices choices = {}) {
        choices.image = *this / image;
        RunControl control;
        const auto source = scanForAudio(catalogue(), choices, control, [](const Progress&) {});
        INFO((source ? std::string() : source.error().sentence));
        REQUIRE(source.ok());
        CHECK(source->state == SalvageState::done);
        return *SalvageStore(catalogue()).finds(source->id);
    }
    TakenFinds take(const TakeRequest& request, std::vector<PlannedTake>* planned = nullptr) {
        RunControl control;
        const auto plan = planTake(catalogue(), request, control);
        INFO((plan ? std::string() : plan.error().sentence));
        REQUIRE(plan.ok());
        if (planned != nullptr) {
            *planned = *plan;
        }
        const auto taken = takeFinds(catalogue(), *plan, control, {});
        REQUIRE(taken.ok());
        return *taken;
    }
    /// A file laid into an image, so many bytes a piece, others between.
    static void lay(std::string& image, const std::string& content, std::size_t piece, std::size_t between) {
        for (std::size_t at = 0; at < content.size(); at += piece) {
            image += content.substr(at, piece);
            image.resize((image.size() + 4095) / 4096 * 4096, '\0');
            image += randomBytes(between, static_cast<unsigned>(image.size()));
        }
    }

    std::vector<std::string> names{"one.wav", "two.flac", "three.ogg", "four.m4a"};
    std::vector<std::string> contents;
    std::string formerData = std::getenv("XDG_DATA_HOME") != nullptr ? std::getenv("XDG_DATA_HOME") : "";
};

std::vector<FindId> idsOf(const std::vector<Find>& finds) {
    std::vector<FindId> ids;
    std::ranges::transform(finds, std::back_inserter(ids), &Find::id);
    return ids;
}

} // namespace

TEST_CASE("What was deleted from a card goes back to its place, and every list leads there again") {
    Lost lost;
    const auto image = lost / "card.img";
    REQUIRE(run({"truncate", "-s", "40M", image}).code == 0);
    REQUIRE(run({"mkfs.fat", "-F", "32", "-s", "1", image}).code == 0);
    for (const auto& name : lost.names) {
        REQUIRE(run({"mcopy", "-i", image, lost / ("V/" + name), "::"}).code == 0);
    }
    for (const auto& name : lost.names) {
        REQUIRE(run({"mdel", "-i", image, "::" + name}).code == 0);
    }
    lost.lose();
    const auto finds = lost.scan("card.img");
    REQUIRE(finds.size() == 4);
    const auto known = *standingsOf(lost.catalogue(), finds);
    for (std::size_t i = 0; i < finds.size(); ++i) {
        CHECK(finds[i].how == FoundHow::entry);
        CHECK(finds[i].recognised == RecognisedBy::bytes);
        CHECK(known[i].standing == FindStanding::missing);
        // FAT writes over the first letter of a name that was deleted.
        CHECK(nameOf(known[i].place).substr(1) == finds[i].name.substr(1));
    }
    const auto taken = lost.take({idsOf(finds), true});
    CHECK(taken.carried.refused.empty());
    CHECK(taken.taken.size() == 4);
    for (std::size_t i = 0; i < lost.names.size(); ++i) {
        CHECK((readFile(lost / ("V/" + lost.names[i])) == lost.contents[i]));
        CHECK(lost.holding("V", lost.names[i])->state == HoldingState::present);
    }
    CHECK(DocketStore(lost.catalogue()).all()->empty());

    SECTION("and is missing again once that is taken back") {
        RunControl control;
        const auto undone = undoEntry(lost.catalogue(), taken.carried.entry, control, {});
        REQUIRE(undone.ok());
        CHECK(undone->done == 4);
        for (const auto& name : lost.names) {
            CHECK_FALSE(fs::exists(lost / ("V/" + name)));
            CHECK(lost.holding("V", name)->state == HoldingState::missing);
        }
    }
}

TEST_CASE("What lies in pieces on a wiped card is laid together by what the catalogue remembers") {
    Lost lost;
    std::string image = randomBytes(65'536, 1);
    Lost::lay(image, lost.contents[0], 100 * 4096, 24'576);
    Lost::lay(image, lost.contents[1], 71 * 4096, 4'096);
    Lost::lay(image, lost.contents[2], 19 * 4096, 16'384);
    image += std::string(3 * 512, '\1'); // another file system's units
    Lost::lay(image, lost.contents[3], 23 * 4096, 8'192);
    writeFile(lost / "card.img", image);
    lost.lose();
    const auto finds = lost.scan("card.img");
    std::size_t whole = 0;
    for (const auto& find : finds) {
        INFO(word(find.how) << " " << find.format << " " << find.complete.value_or(-1));
        whole += find.recognised != RecognisedBy::fingerprint && find.complete == 1.0 ? 1 : 0;
    }
    CHECK(whole == 4);
    const auto taken = lost.take({idsOf(finds), true});
    CHECK(taken.taken.size() == 4);
    for (std::size_t i = 0; i < lost.names.size(); ++i) {
        CHECK((readFile(lost / ("V/" + lost.names[i])) == lost.contents[i]));
    }
}

TEST_CASE("What was written over in part is recognised, kept apart, and never taken for the whole") {
    Lost lost(1);
    std::string image(65'536, '\0');
    auto damaged = lost.contents[0];
    damaged.replace(damaged.size() / 2, damaged.size() / 5, randomBytes(damaged.size() / 5, 3));
    Lost::lay(image, damaged, damaged.size(), 4096);
    writeFile(lost / "card.img", image);
    lost.lose();
    const auto finds = lost.scan("card.img");
    REQUIRE(finds.size() == 1);
    const auto known = *standingsOf(lost.catalogue(), finds);
    CHECK(known[0].standing == FindStanding::missing);
    CHECK(nameOf(known[0].place) == lost.names[0]);
    CHECK(finds[0].sound == false);
    CHECK(finds[0].complete.value_or(1) < 0.85);
    CHECK(finds[0].complete.value_or(0) > 0.6);

    std::vector<PlannedTake> planned;
    CHECK(lost.take({idsOf(finds), true}, &planned).taken.empty());
    CHECK_FALSE(planned[0].why.empty());
    CHECK_FALSE(fs::exists(lost / ("V/" + lost.names[0])));
    const auto taken = lost.take({idsOf(finds), false, lost / "rescued"}, &planned);
    REQUIRE(taken.taken.size() == 1);
    CHECK(taken.taken[0].second.find("/Incomplete/") != BytePath::npos);
    CHECK(taken.taken[0].second.find(" (incomplete)") != BytePath::npos);
    CHECK((readFile(taken.taken[0].second) == damaged));
}

TEST_CASE("Real file systems give back what was deleted from them") {
    if (!canMount()) {
        WARN("not run: this needs the right to mount");
        return;
    }
    struct System {
        const char* name;
        std::vector<std::string> make;
        std::vector<std::string> mount;
    };
    const System systems[]{
        {"exfat", {"mkfs.exfat"}, {"mount.exfat-fuse"}},
        {"ntfs", {"mkntfs", "-F", "-q"}, {"lowntfs-3g", "-o", "ignore_case,windows_names"}},
        {"ext4", {"mkfs.ext4", "-q"}, {"mount"}}};
    for (const auto& system : systems) {
        INFO(system.name);
        Lost lost;
        const auto image = lost / "drive.img";
        REQUIRE(run({"truncate", "-s", "40M", image}).code == 0);
        auto words = system.make;
        words.push_back(image);
        REQUIRE(run(words).code == 0);
        const auto place = lost / "mounted";
        fs::create_directories(place);
        TestMounts mounts;
        const auto device = mounts.loop(image);
        const auto mounted = [&](const std::function<void()>& work) {
            auto line = system.mount;
            line.insert(line.end(), {device, place});
            REQUIRE(run(line).code == 0);
            work();
            run({"sync"});
            unmount(place);
        };
        mounted([&] {
            for (const auto& name : lost.names) {
                fs::copy_file(lost / ("V/" + name), joinPath(place, name));
            }
        });
        mounted([&] {
            for (const auto& name : lost.names) {
                fs::remove(joinPath(place, name));
            }
        });
        lost.lose();
        const auto finds = lost.scan("drive.img");
        std::set<BytePath> found;
        for (std::size_t i = 0; i < finds.size(); ++i) {
            const auto known = *standingsOf(lost.catalogue(), std::span(&finds[i], 1));
            if (finds[i].complete.value_or(finds[i].recognised == RecognisedBy::bytes ? 1 : 0) == 1.0) {
                found.insert(BytePath(nameOf(known[0].place)));
            }
        }
        CHECK(found.size() == 4);
        CHECK(lost.take({idsOf(finds), true}).taken.size() == 4);
        for (std::size_t i = 0; i < lost.names.size(); ++i) {
            CHECK((readFile(lost / ("V/" + lost.names[i])) == lost.contents[i]));
        }
    }
}

TEST_CASE("A scan that was stopped goes on where it was, and finds what one in a single go finds") {
    Lost lost;
    std::string image;
    for (int times = 0; times < 12; ++times) {
        image += randomBytes(9U << 20, static_cast<unsigned>(times + 5));
        Lost::lay(image, lost.contents[static_cast<std::size_t>(times % 4)], 10U << 20, 0);
    }
    writeFile(lost / "card.img", image);
    const ScanChoices choices{lost / "card.img"};
    for (std::uint64_t before = 0, round = 0; round < 40; ++round) {
        RunControl control;
        const auto source = scanForAudio(lost.catalogue(), choices, control, [&](const Progress& progress) {
            if (progress.bytes > (2U << 20) && progress.at.find("looking") != std::string::npos) {
                control.cancel();
            }
        });
        REQUIRE(source.ok());
        if (source->state == SalvageState::done) {
            break;
        }
        CHECK(source->reached >= before);
        before = source->reached;
        if (round == 2) {
            RunControl toTheEnd;
            REQUIRE(scanForAudio(lost.catalogue(), choices, toTheEnd, [](const Progress&) {}).ok());
        }
    }
    const auto stopped = lost.scan("card.img");
    const auto single = lost.scan("card.img", {{}, PieceKinds::all(), false, true});
    REQUIRE(stopped.size() == single.size());
    for (std::size_t i = 0; i < single.size(); ++i) {
        CHECK(stopped[i].extents == single[i].extents);
        CHECK(stopped[i].checksum == single[i].checksum);
    }
    CHECK(single.size() == 12);
}

TEST_CASE(
    "A scan that was stopped while it examined goes on with what is left, and lays nothing together twice") {
    Lost lost;
    std::string image = randomBytes(65'536, 3);
    for (const auto& content : lost.contents) {
        Lost::lay(image, content, 65'536, 8'192);
    }
    writeFile(lost / "card.img", image);
    lost.lose();
    const ScanChoices choices{lost / "card.img"};
    std::size_t rounds = 0;
    for (; rounds < 30; ++rounds) {
        RunControl control;
        const auto source = scanForAudio(lost.catalogue(), choices, control, [&](const Progress& progress) {
            if (progress.at.find("examining") != std::string::npos) {
                control.cancel();
            }
        });
        REQUIRE(source.ok());
        if (source->state == SalvageState::done) {
            break;
        }
        CHECK(source->state == SalvageState::examining);
    }
    CHECK(rounds > 1);
    const auto finds = lost.scan("card.img");
    std::multiset<HoldingId> whole;
    for (const auto& find : finds) {
        if (find.isWhole() && find.holding != 0) {
            whole.insert(find.holding);
        }
    }
    CHECK(whole.size() == 4);
    CHECK(std::set<HoldingId>(whole.begin(), whole.end()).size() == 4);
}

TEST_CASE("What an image has lost is taken from damaged copies that still have it") {
    Lost lost(1);
    const auto& content = lost.contents[0];
    // One copy is damaged at its end, another in its first third; on the card the middle is written over.
    const auto third = content.size() / 3;
    auto late = content;
    late.replace(content.size() - 5'000, 5'000, randomBytes(5'000, 8));
    auto early = content;
    early.replace(third / 2, 5'000, randomBytes(5'000, 9));
    fs::create_directories(lost / "W");
    writeFile(lost / "W/late.wav", late);
    writeFile(lost / "W/early.wav", early);
    lost.survey("W");
    std::string image = randomBytes(16'384, 3);
    const auto begins = image.size();
    image += content;
    image.replace(begins + third, third, randomBytes(third, 4));
    writeFile(lost / "card.img", image);
    lost.lose();
    const auto finds = lost.scan("card.img");
    const auto laid = std::ranges::find(finds, FoundHow::blocks, &Find::how);
    REQUIRE(laid != finds.end());
    CHECK(laid->recognised == RecognisedBy::blocks);
    CHECK(laid->isWhole());
    CHECK(laid->others == std::vector<BytePath>{lost / "W/early.wav"});

    const auto taken = lost.take({{laid->id}, true});
    CHECK(taken.carried.refused.empty());
    CHECK((readFile(lost / "V/one.wav") == content));

    SECTION("and nothing of them is believed that was changed since") {
        RunControl control;
        REQUIRE(undoEntry(lost.catalogue(), taken.carried.entry, control, {}).ok());
        REQUIRE_FALSE(fs::exists(lost / "V/one.wav"));
        writeFile(lost / "W/early.wav", randomBytes(content.size(), 5));
        const auto again = lost.take({{laid->id}, true});
        CHECK(again.taken.empty());
        CHECK(again.carried.refused.size() == 1);
        CHECK_FALSE(fs::exists(lost / "V/one.wav"));
    }
}

TEST_CASE("What is new and sounds or is called the same is one group") {
    Lost lost(1);
    writeMusic(lost / "x.wav", 77, 12);
    writeMusic(lost / "y.wav", 78, 12);
    const auto named = [&](const BytePath& from, const std::string& title, const BytePath& to) {
        ffmpeg({"-i", lost / from, "-metadata", "title=" + title, "-metadata", "artist=Ensemble", lost / to});
    };
    named("x.wav", "", "x.flac");
    named("x.wav", "", "x.ogg");
    named("y.wav", "Low Water", "y.flac");
    std::string image = randomBytes(16'384, 3);
    for (const auto* name : {"x.flac", "x.ogg", "y.flac"}) {
        Lost::lay(image, readFile(lost / name), 10U << 20, 8'192);
    }
    // The beginning alone, too short to be heard, but with its name.
    Lost::lay(image, readFile(lost / "y.flac").substr(0, 65'536), 10U << 20, 8'192);
    writeFile(lost / "card.img", image);
    const auto finds = lost.scan("card.img");
    REQUIRE(finds.size() == 4);
    CHECK(finds[0].kin == finds[1].kin);
    CHECK(finds[2].kin == finds[3].kin);
    CHECK(finds[0].kin != finds[2].kin);
}

TEST_CASE(
    "Where a find lies goes into the docket and comes out of it as it was, with the files that lend to it") {
    for (const auto& others : {std::vector<BytePath>{}, {"/a b"}, {"/a\nb", "/c\xFF"}}) {
        const FindBytes bytes{{"/images/card one.img",
                               others,
                               {{512, 1'024}, {ExtentSource::nowhere, ExtentSource::nowhere + 9}}},
                              checksumOf(std::array<std::uint8_t, 1>{120}),
                              17};
        const auto back = unpackFindBytes(packFindBytes(bytes));
        REQUIRE(back.has_value());
        CHECK(back->file == bytes.file);
        CHECK(back->others == others);
        CHECK(back->extents == bytes.extents);
        CHECK(back->checksum == bytes.checksum);
        CHECK(back->find == 17);
        CHECK(back->size() == 521);
    }
    CHECK_FALSE(unpackFindBytes("").has_value());
    CHECK_FALSE(unpackFindBytes(std::string(40, '\xFF')).has_value());
}

TEST_CASE("What a card that was filled and emptied many times has broken into pieces comes back whole") {
    Lost lost;
    const auto image = lost / "card.img";
    REQUIRE(run({"truncate", "-s", "36M", image}).code == 0);
    REQUIRE(run({"mkfs.fat", "-F", "32", "-s", "1", image}).code == 0);
    const auto mtool = [&](std::vector<std::string> words) {
        words.insert(words.begin() + 1, {"-i", image});
        return run(words).code == 0;
    };
    writeFile(lost / "filler", randomBytes(40'000, 5));
    // Filled to the end with small files, every third of which goes again; what comes then fills the holes.
    int count = 0;
    while (mtool({"mcopy", lost / "filler", "::f" + std::to_string(count)})) {
        ++count;
    }
    REQUIRE(count > 500);
    mtool({"mdel", "::f" + std::to_string(count)});
    for (int i = 0; i < count; i += 3) {
        REQUIRE(mtool({"mdel", "::f" + std::to_string(i)}));
    }
    for (const auto& name : lost.names) {
        REQUIRE(mtool({"mcopy", lost / ("V/" + name), "::"}));
    }
    for (const auto& name : lost.names) {
        REQUIRE(mtool({"mdel", "::" + name}));
    }
    lost.lose();
    const auto finds = lost.scan("card.img");
    const auto isLaid = [](const Find& find) {
        return find.isWhole() && find.holding != 0 && find.extents.size() > 2;
    };
    CHECK(std::ranges::count_if(finds, isLaid) >= 3);
    CHECK(lost.take({idsOf(finds), true}).taken.size() == 4);
    for (std::size_t i = 0; i < lost.names.size(); ++i) {
        CHECK((readFile(lost / ("V/" + lost.names[i])) == lost.contents[i]));
    }
}

TEST_CASE("An image that grows while it is looked through is looked through as it was") {
    Lost lost(2);
    std::string image = randomBytes(16'384, 3);
    Lost::lay(image, lost.contents[1], 10U << 20, 8'192);
    writeFile(lost / "card.img", image);
    RunControl control;
    bool grew = false;
    const auto source =
        scanForAudio(lost.catalogue(), {lost / "card.img"}, control, [&](const Progress& /*progress*/) {
            if (!std::exchange(grew, true)) {
                std::ofstream(lost / "card.img", std::ios::binary | std::ios::app) << randomBytes(100'000, 4);
            }
        });
    REQUIRE(source.ok());
    CHECK(grew);
    CHECK(source->size == image.size());
    CHECK(SalvageStore(lost.catalogue()).finds(source->id)->size() == 1);
    // Looked at again it is another one.
    CHECK(lost.scan("card.img").size() == 1);
}

TEST_CASE("What has no room where it is to go stays where it is, and is said") {
    if (geteuid() != 0) {
        WARN("Not tried: mounting needs root.");
        return;
    }
    Lost lost(2);
    std::string image = randomBytes(16'384, 3);
    Lost::lay(image, lost.contents[0], 10U << 20, 8'192);
    writeFile(lost / "card.img", image);
    lost.lose();
    TestMounts mounts;
    mounts.mount({"-t", "tmpfs", "-o", "size=256k", "tmpfs", lost / "small"});
    const auto finds = lost.scan("card.img");
    REQUIRE(finds.size() == 1);
    const auto taken = lost.take({idsOf(finds), false, lost / "small"});
    CHECK(taken.taken.empty());
    REQUIRE(taken.carried.refused.size() == 1);
    CHECK(taken.carried.refused.front().sentence.find("are free") != std::string::npos);
    CHECK((readFile(lost / "card.img") == image));
}

TEST_CASE("An image that is no good costs a sentence") {
    Lost lost(1);
    writeFile(lost / "empty.img", "");
    writeFile(lost / "zeros.img", std::string(1U << 20, '\0'));
    writeFile(lost / "short.img", "RIFF");
    RunControl control;
    CHECK_FALSE(scanForAudio(lost.catalogue(), {lost / "empty.img"}, control, [](const Progress&) {}).ok());
    CHECK_FALSE(scanForAudio(lost.catalogue(), {lost / "none.img"}, control, [](const Progress&) {}).ok());
    CHECK_FALSE(scanForAudio(lost.catalogue(), {lost / "V"}, control, [](const Progress&) {}).ok());
    CHECK(lost.scan("zeros.img").empty());
    CHECK(lost.scan("short.img").empty());
}

TEST_CASE("What cannot be looked through now is no find that is lost, and what breaks its reader is said") {
    Lost lost;
    std::string image;
    for (const auto& content : lost.contents) {
        image += content;
        image.resize((image.size() + 4095) / 4096 * 4096, '\0');
    }
    writeFile(lost / "card.img", image);
    lost.lose();
    const auto usual =
        std::string(std::getenv("SOBER_EVIDENCE") != nullptr ? std::getenv("SOBER_EVIDENCE") : "");
    const auto scanBy = [&](const std::string& worker) {
        writeFile(lost / "worker", "#!/bin/sh\n" + worker + "\n");
        fs::permissions(lost / "worker", fs::perms::owner_all);
        setenv("SOBER_EVIDENCE", worker.empty() ? "/nowhere" : (lost / "worker").c_str(), 1);
        RunControl control;
        const auto source =
            scanForAudio(lost.catalogue(), {lost / "card.img"}, control, [](const Progress&) {});
        setenv("SOBER_EVIDENCE", usual.c_str(), 1);
        return source;
    };
    const auto store = SalvageStore(lost.catalogue());
    for (const auto* worker : {"", "kill -KILL $$"}) { // none can be had; somebody ends it
        INFO(worker);
        const auto source = scanBy(worker);
        REQUIRE_FALSE(source.ok());
        CHECK(source.error().sentence.find("card.img") != std::string::npos);
        CHECK((*store.sourceOf(lost / "card.img"))->state == SalvageState::scanning);
        CHECK((*store.sourceOf(lost / "card.img"))->passedOver.empty());
    }
    const auto broken = scanBy("head -c 1 >/dev/null; kill -SEGV $$"); // once it was asked
    REQUIRE(broken.ok());
    const std::vector<ByteRange> all{{0, image.size()}};
    CHECK(broken->passedOver == all);
    CHECK((*store.sourceOf(lost / "card.img"))->passedOver == all);
    lost.whileClosed([&] {
        const auto listed = sober::test::sober(lost.cataloguePath(), {"salvage", "list", lost / "card.img"});
        CHECK(listed.code == 3);
        CHECK(listed.err.find("passed over") != std::string::npos);
    });
    ScanChoices anew;
    anew.anew = true;
    const auto finds = lost.scan("card.img", anew);
    CHECK(finds.size() == 4);
    CHECK(
        std::ranges::all_of(finds, [](const Find& find) { return find.recognised == RecognisedBy::bytes; }));
    CHECK((*store.sourceOf(lost / "card.img"))->passedOver.empty());
}

TEST_CASE("A broken FAT whose folders lead round is read to its end") {
    Lost lost(1);
    const auto image = lost / "loop.img";
    REQUIRE(run({"truncate", "-s", "40M", image}).code == 0);
    REQUIRE(run({"mkfs.fat", "-F", "32", "-s", "1", image}).code == 0);
    REQUIRE(run({"mmd", "-i", image, "::D"}).code == 0);
    REQUIRE(run({"mcopy", "-i", image, lost / "V/one.wav", "::D/"}).code == 0);
    auto bytes = readFile(image);
    // The entry of the file in D becomes a folder that is D itself.
    const auto folder = bytes.find("D          \x10");
    REQUIRE(folder != std::string::npos);
    const auto entry = bytes.find("ONE     WAV");
    REQUIRE(entry != std::string::npos);
    bytes[entry + 11] = '\x10';
    bytes.replace(entry + 20, 2, bytes, folder + 20, 2);
    bytes.replace(entry + 26, 2, bytes, folder + 26, 2);
    writeFile(image, bytes);
    const auto finds = lost.scan("loop.img", {{}, PieceKinds::all(), true});
    REQUIRE(finds.size() == 1);
    CHECK(finds[0].recognised == RecognisedBy::bytes);
}

TEST_CASE("What changed since it was scanned is not taken") {
    Lost lost(2);
    std::string image(65'536, '\0');
    Lost::lay(image, lost.contents[1], 10U << 20, 0);
    writeFile(lost / "card.img", image);
    lost.lose();
    const auto finds = lost.scan("card.img");
    REQUIRE(finds.size() == 1);
    image[70'000] = static_cast<char>(~image[70'000]);
    writeFile(lost / "card.img", image);
    const auto taken = lost.take({idsOf(finds), true});
    CHECK(taken.taken.empty());
    REQUIRE(taken.carried.refused.size() == 1);
    CHECK(taken.carried.refused[0].sentence.find("scan it again") != std::string::npos);
    CHECK_FALSE(fs::exists(lost / "V/two.flac"));
    // Its bytes are another image's now.
    CHECK(lost.scan("card.img").front().sound == false);
}

// The Trash specification 1.0 of freedesktop.org, as trash-cli implements it.
TEST_CASE("What a file manager threw away goes back in one step") {
    Lost lost;
    setenv("HOME", (lost / "home").c_str(), 1);
    for (const auto& name : lost.names) {
        REQUIRE(run({"trash-put", lost / ("V/" + name)}).code == 0);
    }
    lost.survey("V");
    const auto files = joinPath(dataHome(), "Trash/files");
    writeFile(joinPath(files, "orphan.wav"), smallWav(77, 4));
    writeFile(joinPath(dataHome(), "Trash/info/gone.mp3.trashinfo"), "[Trash Info]\nPath=/x/gone.mp3\n");
    fs::create_directories(joinPath(files, "album"));
    writeFile(joinPath(files, "album/track.wav"), smallWav(78, 4));
    writeFile(joinPath(dataHome(), "Trash/info/album.trashinfo"),
              "[Trash Info]\nPath=/elsewhere/album\nDeletionDate=2020-02-03T04:05:06\n");
    RunControl control;
    const auto listing = listTrash(lost.catalogue(), 0, control, [](const Progress&) {});
    REQUIRE(listing.ok());
    std::vector<FindId> home;
    for (const auto& find : listing->finds) {
        if (find.recognised == RecognisedBy::bytes) {
            home.push_back(find.id);
            CHECK(find.deleted > 0);
        } else if (find.name == "track.wav") {
            CHECK(find.from == "/elsewhere/album/track.wav");
        } else if (find.name == "orphan.wav") {
            CHECK(find.from.empty());
        }
    }
    CHECK(listing->finds.size() >= 6);
    REQUIRE(home.size() == 4);
    CHECK(std::ranges::find(listing->loneNotes, joinPath(dataHome(), "Trash/info/gone.mp3.trashinfo")) !=
          listing->loneNotes.end());
    const auto again = listTrash(lost.catalogue(), 0, control, [](const Progress&) {});
    CHECK(idsOf(again->finds) == idsOf(listing->finds));

    const auto taken = lost.take({home, true});
    CHECK(taken.taken.size() == 4);
    for (std::size_t i = 0; i < lost.names.size(); ++i) {
        CHECK((readFile(lost / ("V/" + lost.names[i])) == lost.contents[i]));
        // Never copied and left as well.
        CHECK_FALSE(fs::exists(joinPath(files, lost.names[i])));
        CHECK_FALSE(fs::exists(joinPath(dataHome(), "Trash/info/" + lost.names[i] + ".trashinfo")));
    }
}

TEST_CASE("What a docket has retired is known as such and leads to its entry") {
    Lost lost(2);
    fs::copy_file(lost / "V/one.wav", lost / "V/one again.wav");
    lost.surveyFully("V");
    lost.putOnDocket(ActionKind::retire, "V", "one again.wav");
    RunControl control;
    const auto carried = carryOut(lost.catalogue(), control, {});
    REQUIRE(carried->done == 1);
    const auto listing = listTrash(lost.catalogue(), 0, control, [](const Progress&) {});
    REQUIRE(listing.ok());
    const auto find = std::ranges::find(listing->finds, "one again.wav", &Find::name);
    REQUIRE(find != listing->finds.end());
    CHECK(*SalvageStore(lost.catalogue()).entryThatSetAside(find->file) == carried->entry);

    // Though it is held elsewhere, tidying leaves it: taking the docket back rests on it.
    const auto left = planTidying(lost.catalogue());
    REQUIRE(left.ok());
    CHECK(std::ranges::find(*left, find->file, &LeftAbout::path) == left->end());
    DocketAction action;
    action.kind = ActionKind::discard;
    action.place = find->file;
    action.change = packFindBytes({{find->file, {}, find->extents}, *find->checksum, find->id});
    REQUIRE(DocketStore(lost.catalogue()).add(std::array{action}).ok());
    const auto refused = carryOut(lost.catalogue(), control, {});
    REQUIRE(refused->refused.size() == 1);
    CHECK(refused->refused.front().sentence.find("of the ledger has set it aside") != std::string::npos);
    CHECK(fs::exists(find->file));
    CHECK(undoEntry(lost.catalogue(), carried->entry, control, {})->done == 1);
    CHECK(fs::exists(lost / "V/one again.wav"));
}

TEST_CASE("Records of other systems are read, and what makes no sense is nothing") {
    const auto utf16 = [](const std::u16string& text) {
        return std::string(reinterpret_cast<const char*>(text.data()), text.size() * 2);
    };
    const std::string time("\x00\x80\x3E\xD5\xDE\xB1\x9D\x01", 8); // 1970-01-01 in steps of 100 ns since 1601
    const std::string head2 = std::string("\x02\0\0\0\0\0\0\0", 8) + std::string(8, '\x01') + time;
    const auto second = parseRecycleRecord(head2 + std::string("\x0B\0\0\0", 4) +
                                           utf16(u"E:\\a\\b\u00e9.mp3") + std::string(2, '\0'));
    REQUIRE(second.has_value());
    CHECK(second->path == "E:\\a\\b\xC3\xA9.mp3");
    CHECK(second->deleted == 0);
    const std::string head1 = std::string("\x01\0\0\0\0\0\0\0", 8) + std::string(8, '\x01') + time;
    CHECK(parseRecycleRecord(head1 + utf16(u"C:\\x.wav") + std::string(200, '\0'))->path == "C:\\x.wav");
    CHECK_FALSE(parseRecycleRecord(std::string(28, '\x07')).has_value());
    CHECK_FALSE(parseRecycleRecord("").has_value());
    CHECK(parseTrashNote("[Trash Info]\nPath=a%20b\nDeletionDate=2020-01-01T00:00:00\n")->path == "a b");
    CHECK_FALSE(parseTrashNote("Path=a").has_value());
    CHECK_FALSE(parseTrashNote("[Trash Info]\n").has_value());
}

TEST_CASE("A name that is taken gets another, or is skipped") {
    Lost lost(1);
    std::string image(65'536, '\0');
    Lost::lay(image, lost.contents[0], 10U << 20, 0);
    writeFile(lost / "card.img", image);
    const auto finds = lost.scan("card.img");
    TakeRequest request{idsOf(finds), false, lost / "rescued", "name"};
    const auto first = lost.take(request);
    REQUIRE(first.taken.size() == 1);
    const auto second = lost.take(request);
    REQUIRE(second.taken.size() == 1);
    CHECK(second.taken[0].second != first.taken[0].second);
    request.onConflict = OnConflict::skip;
    std::vector<PlannedTake> planned;
    CHECK(lost.take(request, &planned).taken.empty());
    CHECK_FALSE(planned[0].why.empty());
    CHECK((readFile(first.taken[0].second) == lost.contents[0]));
}
