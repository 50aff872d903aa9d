// Lets every call that carrying out and taking back make fail once, in every way that systems fail, or be the
// last of the process: for every kind of action, with references and without. A part of it in each run of the
// tests, chosen by $SOBER_FAULT_SEED; all of it by scripts/faults.
#include "core/remedy/actions/action_type.h"
#include "core/work/open_for_work.h"
#include "faults/fault_scene.h"
#include "support/sound.h"

#include <csignal>
#include <cstdlib>
#include <iostream>
#include <random>
#include <sstream>

using namespace sober;
using namespace sober::test;

namespace {

using Words = std::vector<std::string>;

const std::map<std::string, Words>& waysToFail() {
    static const std::map<std::string, Words> ways{
        {"open", {"EIO", "EACCES", "EMFILE", "ENOTCONN", "ENOSPC", "kill"}},
        {"read", {"EIO", "ESTALE", "short"}},
        {"write", {"EIO", "ENOSPC", "short", "kill", "kill-after"}},
        {"fsync", {"EIO", "ENOSPC", "kill", "kill-after"}},
        {"fdatasync", {"EIO", "ENOSPC", "kill", "kill-after"}},
        {"rename", {"EIO", "EACCES", "EROFS", "ENOSPC", "late-EIO", "kill", "kill-after"}},
        {"link", {"EIO", "EACCES"}},
        {"unlink", {"EIO", "EACCES", "EROFS", "late-EIO", "kill", "kill-after"}},
        {"mkdir", {"EIO", "ENOSPC", "EROFS", "late-EIO", "kill", "kill-after"}},
        {"ftruncate", {"EIO", "ENOSPC", "kill", "kill-after"}},
        {"chmod", {"EIO", "EACCES", "EROFS", "kill"}},
        {"utimens", {"EIO", "EROFS", "kill"}},
        {"setxattr", {"EIO", "ENOSPC", "kill"}},
        {"fallocate", {"EIO", "ENOSPC", "kill"}},
        {"stat", {"EIO", "EACCES", "ENOTCONN", "ESTALE", "ETIMEDOUT", "ENOMEM"}}};
    return ways;
}

/// $SOBER_FAULT_ONLY, "CALL NTH HOW", is one fault to be looked at again.
std::vector<FaultScene::Plan> onlyOne() {
    const char* only = std::getenv("SOBER_FAULT_ONLY");
    std::istringstream in(only != nullptr ? only : "");
    FaultScene::Plan plan;
    return in >> plan.call >> plan.nth >> plan.how ? std::vector{plan} : std::vector<FaultScene::Plan>{};
}

std::uint64_t seedOfRun() {
    const char* seed = std::getenv("SOBER_FAULT_SEED");
    return seed != nullptr ? std::strtoull(seed, nullptr, 10) : 15;
}

/// So many different faults of those that there can be, taking turns between the calls.
std::vector<FaultScene::Plan> chosen(const std::map<std::string, std::uint64_t>& counts, std::size_t most) {
    if (auto only = onlyOne(); !only.empty()) {
        return only;
    }
    std::mt19937_64 random(seedOfRun());
    std::vector<std::vector<FaultScene::Plan>> byCall;
    for (const auto& [call, count] : counts) {
        auto& plans = byCall.emplace_back();
        for (std::uint64_t nth = 1; nth <= count; ++nth) {
            for (const auto& how : waysToFail().at(call)) {
                plans.push_back({call, nth, how});
            }
        }
        std::ranges::shuffle(plans, random);
    }
    std::ranges::shuffle(byCall, random);
    std::vector<FaultScene::Plan> plans;
    for (bool any = true; any && plans.size() < most;) {
        any = false;
        for (auto& left : byCall) {
            if (!left.empty() && plans.size() < most) {
                plans.push_back(std::move(left.back()));
                left.pop_back();
                any = true;
            }
        }
    }
    return plans;
}

/// The next start of the program, with the fault gone.
void startAgain(FaultScene& scene) {
    scene.whileClosed([&] {
        const auto opened = openForWork(scene.cataloguePath());
        INFO((opened ? std::string() : opened.error().sentence));
        REQUIRE(opened.ok());
        INFO((opened->waiting.empty() ? std::string() : opened->waiting.front()));
        CHECK(opened->waiting.empty());
    });
}

/// One fault and all that comes after it; true where all holds.
void sweepOne(FaultScene& scene, const Words& words, const FaultScene::Plan& plan) {
    const auto said = scene.say(words, plan);
    INFO(said.err);
    if (plan.isKill()) {
        CHECK((said.code == -SIGKILL || said.code == 128 + SIGKILL || said.code >= 0));
    } else {
        CHECK((said.code >= 0 && said.code <= 4));
        CHECK((said.code == 0 || said.err.size() > 10));
        CHECK(scene.whyReferenceLost() == "");
    }
    CHECK(scene.whyContentLost() == "");
    startAgain(scene);
    CHECK(scene.whyNotWhole() == "");
    if (words == scene.words()) {
        const auto rest = scene.doTheRest();
        INFO((rest.refused.empty() ? std::string() : rest.refused.front().sentence));
        CHECK(rest.refused.empty());
        CHECK(DocketStore(scene.catalogue()).all()->empty());
        CHECK((scene.contents() == scene.final()));
        CHECK(scene.whyNotWhole() == "");
    }
    if (!scene.isForGood()) {
        scene.undoAll();
        CHECK((scene.contents() == scene.original()));
        CHECK(scene.whyNotWhole() == "");
    }
}

void sweep(ActionKind kind, bool listed) {
    const std::size_t most = longForm() ? 300 : typeOf(kind).isMade() ? 6 : 18;
    FaultScene scene(kind, listed);
    const auto counts = scene.countCalls(scene.words());
    scene.noteFinal();
    scene.putBack();
    std::size_t faults = 0;
    for (const auto& plan : chosen(counts, most)) {
        CAPTURE(word(kind), listed, plan.call, plan.nth, plan.how);
        sweepOne(scene, scene.words(), plan);
        scene.putBack();
        ++faults;
    }
    scene.doTheRest();
    if (scene.isForGood()) {
        CHECK(scene.say({"undo", "last"}, {}).code == 1);
        CHECK((scene.contents() == scene.final()));
        return;
    }
    scene.keep();
    const auto countsBack = scene.countCalls({"undo", "last"});
    scene.putBack();
    for (const auto& plan : chosen(countsBack, most)) {
        CAPTURE(word(kind), listed, plan.call, plan.nth, plan.how);
        sweepOne(scene, {"undo", "last"}, plan);
        scene.putBack();
        ++faults;
    }
    std::cout << word(kind) << (listed ? " with references" : "") << ": " << faults << " faults, seed "
              << seedOfRun() << "\n";
}

} // namespace

TEST_CASE("a fault while a holding is retired", "[faults][retire]") {
    sweep(ActionKind::retire, GENERATE(true, false));
}
TEST_CASE("a fault while a holding is moved", "[faults][move]") {
    sweep(ActionKind::move, GENERATE(true, false));
}
TEST_CASE("a fault while tags are written", "[faults][retag]") {
    sweep(ActionKind::retag, GENERATE(true, false));
}
TEST_CASE("a fault while a file is written anew", "[faults][rewrite]") {
    sweep(ActionKind::rewrite, GENERATE(true, false));
}
TEST_CASE("a fault while a holding is restored", "[faults][restore]") {
    sweep(ActionKind::restore, GENERATE(true, false));
}
TEST_CASE("a fault while a holding is repaired", "[faults][repair]") {
    sweep(ActionKind::repair, false);
}
TEST_CASE("a fault while a holding is brought back", "[faults][bring-back]") {
    sweep(ActionKind::bringBack, false);
}
TEST_CASE("a fault while a holding is copied", "[faults][copy]") {
    sweep(ActionKind::copy, GENERATE(true, false));
}
TEST_CASE("a fault while a holding is encoded", "[faults][encode]") {
    sweep(ActionKind::encode, true);
}
TEST_CASE("a fault while a transfer is run", "[faults][write-list]") {
    sweep(ActionKind::writeList, true);
}
TEST_CASE("a fault while a transfer's lists are written anew", "[faults][replace-list]") {
    sweep(ActionKind::replaceList, true);
}
TEST_CASE("a fault while a folder that was emptied is cleared away", "[faults][clear-folder]") {
    sweep(ActionKind::clearFolder, GENERATE(true, false));
}
TEST_CASE("a fault while finds are taken", "[faults][salvage]") {
    sweep(ActionKind::salvage, true);
}
TEST_CASE("a fault while the trash is tidied", "[faults][discard]") {
    sweep(ActionKind::discard, false);
}
TEST_CASE("a fault while what was read of a disc is put at its place", "[faults][rip]") {
    sweep(ActionKind::rip, false);
}
TEST_CASE("a fault while a holding is replaced", "[faults][replace]") {
    sweep(ActionKind::replace, GENERATE(true, false));
}
TEST_CASE("a fault while references are repointed", "[faults][repoint]") {
    sweep(ActionKind::repoint, true);
}
TEST_CASE("a fault while something is written off", "[faults][write-off]") {
    sweep(ActionKind::writeOff, false);
}
TEST_CASE("a fault while a recording is accepted", "[faults][accept]") {
    sweep(ActionKind::accept, false);
}
TEST_CASE("a fault while a change is accepted", "[faults][accept-change]") {
    sweep(ActionKind::acceptChange, false);
}
