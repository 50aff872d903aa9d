// Random dockets on random trees: copies over several volumes, other ways to one file, damage, volumes that
// are away, lists. No last copy is lost, no reference that resolved is broken, and all is undone byte for
// byte. A sample of sixty; ten thousand by scripts/long-tests.
#include "core/audit/plan_places.h"
#include "core/base/user_folders.h"
#include "core/remedy/journal/taking_back.h"
#include "core/work/carry_out.h"
#include "core/work/open_for_work.h"
#include "support/player_collection.h"
#include "support/small_audio.h"
#include "support/sound.h"

#include <random>
#include <set>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

constexpr int contents = 5;

/// One tree with its volumes and a list, made from a seed.
class RandomTree : public PlayerCollection {
  public:
    explicit RandomTree(unsigned seed) : random_(seed) {
        fs::remove_all(homeTrash());
        for (int at = 0; at < 2 + pick(3); ++at) {
            volumes_.push_back("vol" + std::to_string(at));
            fs::create_directories(*this / volumes_.back());
        }
        for (int at = 0; at < 6 + pick(10); ++at) {
            const auto path = somePath();
            if (!isTaken(*this / path)) {
                writeFile(*this / path, smallWav(static_cast<unsigned>(pick(contents)), 0.02));
                files_.push_back(path);
            }
        }
        for (int at = 0; at < pick(3); ++at) {
            addAlias();
        }
        writeLists();
        SurveyChoices links;
        links.followLinks = pick(2) == 0;
        for (const auto& volume : volumes_) {
            survey(volume, links);
        }
        addPlayer("player", "lists");
        damage();
        if (pick(3) == 0) {
            away_ = volumes_.back();
            fs::rename(*this / *away_, *this / (*away_ + " in a drawer"));
        }
        REQUIRE(lookAgain(catalogue()).ok());
    }

    void decide() {
        std::vector<DocketAction> actions;
        const Holdings holdings(catalogue());
        REQUIRE(holdings
                    .eachPresent([&](PresentHolding&& holding) {
                        if (pick(100) < 45) {
                            actions.push_back({0, ActionKind::retire, holding.id, "", timeNow()});
                        } else if (pick(100) < 15) {
                            const auto root =
                                *this /
                                volumes_[static_cast<std::size_t>(pick(static_cast<int>(volumes_.size())))];
                            DocketAction action{0, ActionKind::move, holding.id, "", timeNow()};
                            action.target = root + "/moved/" + std::to_string(pick(1000)) + ".wav";
                            actions.push_back(std::move(action));
                        } else if (pick(100) < 20) {
                            actions.push_back({0, ActionKind::restore, holding.id, "", timeNow()});
                        }
                    })
                    .ok());
        const auto missing = holdings.missing();
        for (const auto id : *missing) {
            actions.push_back(
                {0, pick(2) == 0 ? ActionKind::writeOff : ActionKind::restore, id, "", timeNow()});
        }
        std::ranges::shuffle(actions, random_);
        REQUIRE(DocketStore(catalogue()).add(actions).ok());
    }

    /// How many of the contents are held whole anywhere but in the trash.
    std::set<std::string> held() const {
        std::set<std::string> whole;
        for (int at = 0; at < contents; ++at) {
            const auto content = smallWav(static_cast<unsigned>(at), 0.02);
            for (const auto& [path, found] : liveFiles()) {
                if (found == content) {
                    whole.insert(content);
                    break;
                }
            }
        }
        return whole;
    }
    std::map<BytePath, std::string> liveFiles() const {
        std::map<BytePath, std::string> files;
        for (const auto& entry : fs::directory_iterator(*this / "")) {
            if (entry.is_directory()) {
                files.merge(contentsBelow(entry.path().native()));
            }
        }
        return files;
    }
    std::vector<BytePath> broken() const {
        std::vector<BytePath> broken;
        std::istringstream lines(readFile(*this / "lists/list.m3u8"));
        for (std::string line; std::getline(lines, line);) {
            if (!line.starts_with('#') && !isTaken(line)) {
                broken.push_back(line);
            }
        }
        return broken;
    }

  private:
    int pick(int count) { return static_cast<int>(random_() % static_cast<unsigned>(count)); }
    BytePath somePath() {
        const auto volume = volumes_[static_cast<std::size_t>(pick(static_cast<int>(volumes_.size())))];
        return volume + "/f" + std::to_string(pick(3)) + "/" + std::to_string(pick(40)) + ".wav";
    }
    const BytePath& someFile() {
        return files_[static_cast<std::size_t>(pick(static_cast<int>(files_.size())))];
    }
    /// Another way to a file or folder, or another name of a file.
    void addAlias() {
        const auto from = someFile();
        const auto volume = volumes_[static_cast<std::size_t>(pick(static_cast<int>(volumes_.size())))];
        const auto at = volume + "/alias" + std::to_string(pick(1000));
        if (isTaken(*this / at)) {
            return;
        }
        switch (pick(3)) {
        case 0:
            fs::create_symlink(BytePath(parentOf(*this / from)), *this / at);
            break;
        case 1:
            fs::create_symlink(*this / from, *this / (at + ".wav"));
            break;
        default:
            fs::create_hard_link(*this / from, *this / (at + ".wav"));
        }
    }
    void writeLists() {
        std::vector<std::string> lines;
        for (int at = 0; at < 3 + pick(6); ++at) {
            lines.push_back(*this / (pick(8) == 0 ? somePath() : someFile()));
        }
        writeFile(*this / "lists/list.m3u8", m3u(lines));
    }
    /// What happens to files between the survey and the decision.
    void damage() {
        for (int at = 0; at < pick(4); ++at) {
            const auto path = *this / someFile();
            if (!isTaken(path)) {
                continue;
            }
            switch (pick(4)) {
            case 0:
                fs::remove(path);
                break;
            case 1:
                fs::resize_file(path, 100);
                break;
            case 2:
                writeFile(path, std::string(2000, 'x'));
                break;
            default:
                writeFile(path, smallWav(99, 0.02));
            }
        }
        if (pick(2) == 0) {
            for (const auto& volume : volumes_) {
                survey(volume);
            }
        }
    }

    std::mt19937 random_;
    std::vector<BytePath> volumes_;
    std::vector<BytePath> files_;
    std::optional<BytePath> away_;
};

} // namespace

TEST_CASE("random dockets lose no last copy, break no reference, and are undone byte for byte") {
    const unsigned runs = longForm() ? 10'000 : 60;
    std::uint64_t done = 0;
    std::uint64_t refused = 0;
    for (unsigned seed = 1; seed <= runs; ++seed) {
        CAPTURE(seed);
        RandomTree tree(seed);
        const auto filesBefore = tree.liveFiles();
        const auto heldBefore = tree.held();
        const auto brokenBefore = tree.broken();
        tree.decide();
        RunControl control;
        const auto carried = carryOut(tree.catalogue(), control, {});
        INFO((carried ? std::string() : carried.error().sentence));
        REQUIRE(carried.ok());
        done += carried->done;
        refused += carried->refused.size();
        const auto heldAfter = tree.held();
        CHECK(std::ranges::includes(heldAfter, heldBefore));
        for (const auto& path : tree.broken()) {
            CAPTURE(path);
            CHECK(std::ranges::find(brokenBefore, path) != brokenBefore.end());
        }
        while (*lastUndoable(tree.catalogue())) {
            const auto undone = undoEntry(tree.catalogue(), **lastUndoable(tree.catalogue()), control, {});
            REQUIRE(undone.ok());
            INFO((undone->refused.empty() ? std::string() : undone->refused.front().sentence));
            REQUIRE(undone->refused.empty());
        }
        CHECK((tree.liveFiles() == filesBefore));
    }
    CHECK(done > runs);
    CHECK(refused > runs / 4);
}
