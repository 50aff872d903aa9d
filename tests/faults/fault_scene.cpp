#include "faults/fault_scene.h"

#include "core/audit/plan_places.h"
#include "core/audit/tag_takeover.h"
#include "core/base/presence.h"
#include "core/base/text.h"
#include "core/catalogue/ledger_store.h"
#include "core/disc/ripped_file.h"
#include "core/evidence/file_content.h"
#include "core/evidence/worker/evidence_worker.h"
#include "core/intake/replacement.h"
#include "core/salvage/scan_image.h"
#include "core/salvage/trash_finds.h"
#include "core/survey/verify.h"
#include "core/transfer/plan.h"
#include "core/work/take_finds.h"
#include "core/work/tidy_salvaged.h"
#include "support/run_program.h"
#include "support/small_audio.h"
#include "support/sound.h"

#include <algorithm>
#include <cstdlib>
#include <fstream>
#include <set>
#include <sstream>
#include <unistd.h>

namespace sober::test {

namespace fs = std::filesystem;

namespace {

std::vector<std::string> linesOf(const std::string& text) {
    std::vector<std::string> lines;
    std::istringstream in(text);
    for (std::string line; std::getline(in, line);) {
        if (!line.empty() && line.back() == '\r') {
            line.pop_back();
        }
        if (!line.empty() && line.front() != '#') {
            lines.push_back(line);
        }
    }
    return lines;
}

/// A change that leaves size and times as they are, as a failing drive makes it.
void changeSilently(const BytePath& path, std::size_t at) {
    const auto before = fs::last_write_time(path);
    {
        std::fstream file(path, std::ios::binary | std::ios::in | std::ios::out);
        file.seekp(static_cast<std::streamoff>(at));
        file << "damage";
    }
    fs::last_write_time(path, before);
}

} // namespace

FaultScene::FaultScene(ActionKind kind, bool listed) : kind_(kind), listed_(listed) {
    setenv("XDG_DATA_HOME", (*this / "home/data").c_str(), 1);
    prepare();
    preparedBy_ = *lastUndoable(catalogue());
    original_ = contents();
    originalLeads_ = leads();
    keep();
}

void FaultScene::prepare() {
    const bool isLong = kind_ == ActionKind::repair; // more than one block
    const auto recording = isLong ? smallWav(1, 13) : smallWav(1);
    writeFile(*this / "V/keep.wav", recording);
    writeFile(*this / "V/f/spare.wav", recording);
    writeFile(*this / "V/f/g/third.wav", smallWav(1, isLong ? 0.3 : 0.2));
    writeFile(*this / "V/only.wav", smallWav(2));
    writeFile(*this / "V/other.wav", smallWav(3));
    if (kind_ == ActionKind::retag || kind_ == ActionKind::rewrite) {
        ffmpeg({"-i", *this / "V/only.wav", "-metadata", "title=Fog", "-write_id3v1", "1", "-b:a", "192k",
                *this / "V/f/made.mp3"});
    }
    if (kind_ == ActionKind::rewrite) {
        auto bytes = readFile(*this / "V/f/made.mp3");
        bytes.insert(bytes.size() - 128, std::string(900, 'x'));
        writeFile(*this / "V/f/made.mp3", bytes);
    }
    RunControl control;
    REQUIRE(
        surveyVolume(catalogue(), {*this / "V", {}, {}, Effort::full}, control, [](const Progress&) {}).ok());
    const auto lists = [&](const std::vector<std::string>& names) {
        std::string absolute = "#EXTM3U\n";
        std::string relative = "#EXTM3U\r\n";
        for (const auto& name : names) {
            absolute += (*this / ("V/" + name)) + "\n";
            auto backslashed = name;
            std::ranges::replace(backslashed, '/', '\\');
            relative += backslashed + "\r\n";
        }
        writeFile(*this / "L/library.m3u8", absolute);
        writeFile(*this / "V/card.m3u", relative);
        addPlayer("library", "L");
        addPlayer("card", "V/card.m3u");
    };
    if (listed_) {
        const bool isMade = kind_ == ActionKind::retag || kind_ == ActionKind::rewrite;
        lists(
            {"f/spare.wav", "only.wav", isMade ? "f/made.mp3" : "f/g/third.wav", "f/spare.wav", "keep.wav"});
    }
    switch (kind_) {
    case ActionKind::retire:
        putKindOnDocket(kind_, {"f/spare.wav", "f/g/third.wav"});
        break;
    case ActionKind::move:
        REQUIRE(planMove(catalogue(), *this / "V/f/spare.wav", *this / "V/new/deep/spare.wav", "").ok());
        REQUIRE(planMove(catalogue(), *this / "V/only.wav", *this / "V/new/only.wav", "").ok());
        break;
    case ActionKind::retag:
        REQUIRE(
            planRetag(catalogue(), holding("V", "f/made.mp3")->id, {{{"GENRE", {"Polka"}}}, {}}, "").ok());
        break;
    case ActionKind::rewrite:
        putKindOnDocket(kind_, {"f/made.mp3"});
        break;
    case ActionKind::restore:
    case ActionKind::acceptChange:
        changeSilently(*this / "V/f/spare.wav", 9'000);
        REQUIRE(verifyHoldings(catalogue(), {}, control, [](const Progress&) {}).ok());
        putKindOnDocket(kind_, {"f/spare.wav"});
        break;
    case ActionKind::repair:
        changeSilently(*this / "V/f/spare.wav", 9'000);
        changeSilently(*this / "V/keep.wav", 1'100'000);
        REQUIRE(verifyHoldings(catalogue(), {}, control, [](const Progress&) {}).ok());
        putKindOnDocket(kind_, {"f/spare.wav"});
        break;
    case ActionKind::bringBack:
        fs::remove_all(*this / "V/f");
        survey("V");
        putKindOnDocket(ActionKind::restore, {"f/spare.wav", "f/g/third.wav"});
        break;
    case ActionKind::repoint:
        fs::remove(*this / "V/f/spare.wav");
        survey("V");
        read();
        plan(kind_, *this / "V/f/spare.wav", *this / "V/other.wav");
        break;
    case ActionKind::writeOff:
        fs::remove(*this / "V/other.wav");
        survey("V");
        putKindOnDocket(kind_, {"other.wav"});
        break;
    case ActionKind::accept:
        putKindOnDocket(kind_, {"only.wav"});
        break;
    case ActionKind::copy:
        for (const auto* name : {"f/spare.wav", "only.wav"}) {
            REQUIRE(planMove(catalogue(), *this / (std::string("V/") + name),
                             *this / (std::string("V/new/") + name), "", kind_)
                        .ok());
        }
        break;
    case ActionKind::replaceList:
        planTransfer();
        REQUIRE(doTheRest().refused.empty());
        writeFile(*this / "L/library.m3u8", readFile(*this / "L/library.m3u8") + "# more\n");
        planTransfer();
        break;
    case ActionKind::encode:
    case ActionKind::writeList:
    case ActionKind::clearFolder:
        planTransfer();
        break;
    case ActionKind::salvage:
        planSalvage();
        break;
    case ActionKind::discard:
        planDiscard();
        break;
    case ActionKind::rip:
        planRip();
        break;
    case ActionKind::replace:
        planReplace();
        break;
    }
    read();
}

void FaultScene::undoAll() {
    while (*lastUndoable(catalogue()) != preparedBy_) {
        const auto undone = undoLast();
        INFO((undone.refused.empty() ? std::string() : undone.refused.front().sentence));
        REQUIRE(undone.refused.empty());
    }
}

/// Of a list, to a folder of the same volume; or of a folder into another order.
void FaultScene::planTransfer() {
    read();
    TransferRequest request;
    request.choice.lists = {*this / "L/library.m3u8"};
    request.to = *this / "V/to";
    if (kind_ == ActionKind::clearFolder) { // what is deeper goes up, and its folder is left without a file
        request.choice = {};
        request.choice.folders = {{volume("V").id, "f"}};
        request.to = *this / "V/f";
        request.layout = "flat";
        request.mode = TransferMode::reorder;
    }
    if (kind_ == ActionKind::encode) {
        request.forms = {*formRuleFrom("lossless=mp3:V5")};
    }
    RunControl control;
    const auto plan = sober::planTransfer(catalogue(), request, control);
    REQUIRE(plan.ok());
    const auto kept = keepPlan(catalogue(), *plan);
    REQUIRE(kept.ok());
    transfer_ = *kept;
}

/// Out of an image: one is missing and goes home, one is new.
void FaultScene::planSalvage() {
    auto image = readFile(*this / "V/only.wav");
    image.resize((image.size() + 511) / 512 * 512, '\0');
    writeFile(*this / "I/card.img", image + smallWav(9));
    fs::remove(*this / "V/only.wav");
    survey("V");
    read();
    RunControl control;
    const auto source = scanForAudio(catalogue(), {*this / "I/card.img"}, control, [](const Progress&) {});
    REQUIRE(source.ok());
    const auto finds = SalvageStore(catalogue()).finds(source->id);
    REQUIRE(finds->size() == 2);
    for (const auto& [find, home] :
         {std::pair(finds->front().id, true), std::pair(finds->back().id, false)}) {
        TakeRequest request{{find}, home, home ? BytePath() : *this / "V/new"};
        const auto planned = planTake(catalogue(), request, control);
        REQUIRE(planned.ok());
        REQUIRE(planned->front().why.empty());
    }
}

/// Of a file that lies in the trash of the volume and is held there, too.
void FaultScene::planDiscard() {
    const auto trash = *this / ("V/.Trash-" + std::to_string(getuid()));
    fs::create_directories(trash + "/files");
    fs::create_directories(trash + "/info");
    fs::copy_file(*this / "V/f/spare.wav", trash + "/files/spare.wav");
    writeFile(trash + "/info/spare.wav.trashinfo",
              "[Trash Info]\nPath=old/spare.wav\nDeletionDate=2026-10-01T10:00:00\n");
    RunControl control;
    REQUIRE(listTrash(catalogue(), 0, control, [](const Progress&) {}).ok());
    const auto left = planTidying(catalogue());
    REQUIRE(left.ok());
    REQUIRE(left->size() == 1);
}

/// A track in two forms, as a reading has left them beside the catalogue.
void FaultScene::planRip() {
    const auto wave = *this / "D/01.wav";
    fs::create_directories(*this / "D");
    ffmpeg({"-i", *this / "V/only.wav", "-map_metadata", "-1", "-fflags", "+bitexact", wave});
    ffmpeg({"-i", wave, *this / "D/01.flac"});
    ffmpeg({"-i", wave, "-b:a", "192k", *this / "D/01.mp3"});
    std::vector<DocketAction> actions;
    for (const auto* name : {"01.flac", "01.mp3"}) {
        const auto file = *this / (std::string("D/") + name);
        RunControl control;
        const auto record = EvidenceWorker().examine(file, control, [](std::uint64_t) {});
        REQUIRE(record.ok());
        RippedFile ripped{file, fs::file_size(file), record->checksums.file, wave, {}, {}};
        ripped.encoded.seconds = record->evidence->seconds;
        ripped.md5 = record->evidence->samplesMd5 ? toHex(*record->evidence->samplesMd5) : std::string();
        DocketAction action;
        action.kind = kind_;
        action.place = *this / (std::string("V/disc/") + name);
        action.target = action.place;
        action.change = packRippedFile(ripped);
        action.added = timeNow();
        actions.push_back(std::move(action));
    }
    REQUIRE(DocketStore(catalogue()).add(actions).ok());
}

/// One at its own place, with other tags, and one beside it under another ending.
void FaultScene::planReplace() {
    fs::create_directories(*this / "O");
    ffmpeg({"-i", *this / "V/only.wav", *this / "O/only.flac"});
    ffmpeg({"-i", *this / "V/f/spare.wav", "-metadata", "title=Fog", *this / "O/spare.wav"});
    std::vector<DocketAction> actions;
    for (const auto& [name, target, change] :
         {std::tuple("f/spare.wav", "V/f/spare.wav", TagChange{{{"ARTIST", {"Kit Rowe"}}}, {}}),
          std::tuple("only.wav", "V/only.flac", TagChange{})}) {
        const auto source = *this / ("O/" + std::string(nameOf(target)));
        RunControl control;
        const auto record = EvidenceWorker().examine(source, control, [](std::uint64_t) {});
        REQUIRE(record.ok());
        DocketAction action;
        action.kind = kind_;
        action.holding = holding("V", name)->id;
        action.target = *this / target;
        action.change = packReplacement(
            {source, record->checksums.file, record->evidence->payload, fs::file_size(source), change, {}});
        action.added = timeNow();
        actions.push_back(std::move(action));
    }
    REQUIRE(DocketStore(catalogue()).add(actions).ok());
}

std::vector<std::string> FaultScene::words() const {
    return transfer_ == 0 ? std::vector<std::string>{"docket", "carry-out"}
                          : std::vector<std::string>{"transfer", "run", std::to_string(transfer_)};
}

CarriedOut FaultScene::doTheRest() {
    if (transfer_ == 0) {
        return carryOutAll();
    }
    RunControl control;
    const auto run = runTransfer(catalogue(), transfer_, control, {});
    INFO((run ? std::string() : run.error().sentence));
    REQUIRE(run.ok());
    return run->carried;
}

void FaultScene::putKindOnDocket(ActionKind kind, const std::vector<BytePath>& names) {
    for (const auto& name : names) {
        putOnDocket(kind, "V", name);
    }
}

FaultScene::Said FaultScene::say(const std::vector<std::string>& words, const Plan& plan) {
    std::vector<std::string> line{"timeout",
                                  "-s",
                                  "KILL",
                                  "60",
                                  "env",
                                  std::string("LD_PRELOAD=") + FAILING_CALLS,
                                  "FAILING_BELOW=" + (*this / ""),
                                  "FAILING_CALL=" + plan.call,
                                  "FAILING_NTH=" + std::to_string(plan.nth),
                                  "FAILING_HOW=" + plan.how};
    if (plan.call.empty()) {
        line.push_back("FAILING_COUNTS=" + (*this / "counts"));
    }
    line.insert(line.end(), {SOBER_PROGRAM, "--quiet", "--catalogue", cataloguePath()});
    line.insert(line.end(), words.begin(), words.end());
    Said said;
    whileClosed([&] {
        const auto told = run(line);
        said = {told.code, told.err};
    });
    return said;
}

std::map<std::string, std::uint64_t> FaultScene::countCalls(const std::vector<std::string>& words) {
    const auto said = say(words, {});
    INFO(said.err);
    REQUIRE(said.code == 0);
    std::map<std::string, std::uint64_t> counts;
    std::istringstream in(readFile(*this / "counts"));
    std::string name;
    for (std::uint64_t count = 0; in >> name >> count;) {
        counts[name] = count;
    }
    fs::remove(*this / "counts");
    return counts;
}

std::map<BytePath, std::string> FaultScene::contents() const {
    auto all = contentsBelow(*this / "V");
    all.merge(contentsBelow(*this / "L"));
    if (isForGood()) {
        // A note about nothing does no harm, and salvage shows it as such.
        std::erase_if(all, [](const auto& each) { return each.first.ends_with(".trashinfo"); });
    }
    return all;
}

std::string FaultScene::whyContentLost() const {
    std::map<std::string, int> wanted;
    for (const auto& [path, content] : original_) {
        const bool mayGo = isForGood() && path.find("/.Trash-") != BytePath::npos;
        if (!mayGo && (path.ends_with(".wav") || path.ends_with(".mp3"))) {
            ++wanted[content];
        }
    }
    const auto found = contentCounts({*this / "V", joinPath(trash(), "files")});
    for (const auto& [content, times] : wanted) {
        const auto there = found.find(content);
        if (there == found.end() || there->second < times) {
            return "a content is held " + std::to_string(there == found.end() ? 0 : there->second) +
                   " times of " + std::to_string(times);
        }
    }
    return {};
}

std::vector<std::string> FaultScene::leads() const {
    std::vector<std::string> leads;
    for (auto line : linesOf(readFile(*this / "L/library.m3u8"))) {
        leads.push_back(isTaken(line) ? readFile(line) : std::string());
    }
    for (auto line : linesOf(readFile(*this / "V/card.m3u"))) {
        std::ranges::replace(line, '\\', '/');
        const auto path = *this / ("V/" + line);
        leads.push_back(isTaken(path) ? readFile(path) : std::string());
    }
    return leads;
}

std::string FaultScene::whyReferenceLost() const {
    const auto now = leads();
    if (now.size() != originalLeads_.size()) {
        return "the lists have " + std::to_string(now.size()) + " entries";
    }
    for (std::size_t i = 0; i < now.size(); ++i) {
        const bool isFinal = i < finalLeads_.size() && now[i] == finalLeads_[i];
        if (now[i] != originalLeads_[i] && !isFinal) {
            return "entry " + std::to_string(i) + (now[i].empty() ? " leads nowhere" : " leads elsewhere");
        }
    }
    return {};
}

std::string FaultScene::whyNotWhole() {
    if (auto why = whyContentLost(); !why.empty()) {
        return why;
    }
    if (auto why = whyReferenceLost(); !why.empty()) {
        return why;
    }
    const LedgerStore ledger(catalogue());
    if (!ledger.unfinished()->empty() || !ledger.unclosed()->empty() || !ledger.unflushed()->empty()) {
        return "the ledger has something open";
    }
    std::set<BytePath> present;
    std::string why;
    RunControl control;
    REQUIRE(Holdings(catalogue())
                .eachPresent([&](PresentHolding&& each) {
                    const auto path = *this / ("V/" + each.path);
                    present.insert(path);
                    const auto content = readContent(path, control);
                    const auto recorded = holding("V", each.path)->checksum;
                    const bool drifts = kind_ == ActionKind::restore || kind_ == ActionKind::repair ||
                                        kind_ == ActionKind::acceptChange;
                    if (!content) {
                        why = each.path + " is present in the catalogue and not on the disk";
                    } else if (content->checksums.file != recorded && !drifts) {
                        why = each.path + " is not what the catalogue says";
                    }
                })
                .ok());
    for (const auto& [path, content] : contents()) {
        if (path.find("/.sober-") != BytePath::npos) {
            return path + " was left";
        }
        const bool isThrownAway = path.find("/.Trash-") != BytePath::npos;
        if (!isThrownAway && (path.ends_with(".wav") || path.ends_with(".mp3")) && !present.contains(path)) {
            return path + " is on the disk and not present in the catalogue";
        }
    }
    std::set<BytePath> files;
    std::error_code none;
    for (const auto& entry : fs::directory_iterator(joinPath(trash(), "files"), none)) {
        files.insert(entry.path().filename().string() + ".trashinfo");
    }
    for (const auto& [path, content] : contentsBelow(joinPath(trash(), "info"))) {
        if (files.erase(BytePath(nameOf(path))) == 0) {
            return path + " is a note without a file";
        }
    }
    return files.empty() ? why : *files.begin() + " is missing in the trash";
}

} // namespace sober::test
