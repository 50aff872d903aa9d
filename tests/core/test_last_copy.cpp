// What stays carries what goes, or that very loss is consented to.
#include "core/base/user_folders.h"
#include "core/remedy/docket/review.h"
#include "core/remedy/journal/taking_back.h"
#include "core/work/carry_out.h"
#include "support/examined_collection.h"

#include <set>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

/// One recording in several forms: two masters, a copy without loss, lossy ones, a false lossless and a part.
struct Forms : Examined {
    Forms() {
        fs::remove_all(joinPath(dataHome(), "Trash"));
        music("V/master.wav", 91, 20);
        derive("V/master.wav", {}, "V/copy.flac");
        derive("V/master.wav", {"-af", "volume=-6dB", "-sample_fmt", "s16"}, "V/other master.flac");
        derive("V/master.wav", {"-b:a", "256k"}, "V/high.mp3");
        derive("V/master.wav", {"-b:a", "96k"}, "V/low.mp3");
        derive("V/low.mp3", {"-sample_fmt", "s16"}, "V/false.flac");
        derive("V/master.wav", {"-t", "14", "-sample_fmt", "s16"}, "V/part.flac");
        surveyFully("V");
        keep();
    }
    /// Retires all but these, and what becomes of it.
    DocketReview retireAllBut(const std::set<BytePath>& stay) {
        for (const auto& entry : fs::directory_iterator(*this / "V")) {
            const auto name = entry.path().filename().native();
            if (!stay.contains(name)) {
                putOnDocket(ActionKind::retire, "V", name);
            }
        }
        const auto review = reviewDocket(catalogue());
        REQUIRE(review.ok());
        return *review;
    }
    CarriedOut carryOutAll() {
        RunControl control;
        const auto carried = carryOut(catalogue(), control, {});
        REQUIRE(carried.ok());
        return *carried;
    }
};

const PlannedAction& lineOf(const DocketReview& review, const BytePath& name) {
    const auto found = std::ranges::find_if(
        review.actions, [&](const PlannedAction& planned) { return nameOf(planned.path) == name; });
    REQUIRE(found != review.actions.end());
    return *found;
}

} // namespace

TEST_CASE("what would be lost is told for each file by what stays, and only consent lets it go") {
    Forms collection;
    struct Row {
        std::set<BytePath> stay;
        BytePath goes;
        Loss loss;
    };
    const std::vector<Row> rows{
        {{"copy.flac"}, "master.wav", Loss::none},
        {{"copy.flac"}, "high.mp3", Loss::none},
        {{"copy.flac"}, "low.mp3", Loss::none},
        {{"copy.flac"}, "part.flac", Loss::none},
        {{"copy.flac"}, "other master.flac", Loss::master},
        {{"low.mp3"}, "master.wav", Loss::lossless},
        {{"low.mp3"}, "copy.flac", Loss::lossless},
        {{"low.mp3"}, "high.mp3", Loss::quality},
        {{"high.mp3"}, "low.mp3", Loss::none},
        {{"high.mp3"}, "copy.flac", Loss::lossless},
        {{"high.mp3"}, "false.flac", Loss::none},
        {{"false.flac"}, "master.wav", Loss::lossless},
        {{"part.flac"}, "master.wav", Loss::whole},
        {{"other master.flac"}, "master.wav", Loss::master},
        // The two masters and a low lossy copy: whichever is told to go, the best of what stays counts.
        {{"low.mp3", "other master.flac"}, "master.wav", Loss::lossless},
        {{"low.mp3", "high.mp3"}, "other master.flac", Loss::master},
    };
    for (const auto& row : rows) {
        CAPTURE(row.goes, *row.stay.begin());
        REQUIRE(DocketStore(collection.catalogue()).clear().ok());
        const auto review = collection.retireAllBut(row.stay);
        const auto& line = lineOf(review, row.goes);
        CHECK(lossWord(line.loss) == lossWord(row.loss));
        CHECK(line.awaitsConsent == (row.loss != Loss::none));
        CHECK(line.refused.has_value() == (row.loss != Loss::none));
        CHECK(lossFromWord(lossWord(row.loss)) == row.loss);
    }
}

TEST_CASE("both masters on the docket beside a low copy: nothing goes until each loss is consented to") {
    Forms collection;
    const auto before = contentsBelow(collection / "V");
    auto review = collection.retireAllBut({"low.mp3"});
    const auto first = collection.carryOutAll();
    for (const auto& refused : first.refused) {
        CAPTURE(refused.path, refused.sentence);
        CHECK(nameOf(refused.path) != "false.flac");
    }
    CHECK(first.done == 1); // the false lossless: what it was made from stays
    CHECK(isTaken(collection / "V/master.wav"));
    CHECK(isTaken(collection / "V/other master.flac"));

    // What was told of them by way of the one that went is compared by the next survey.
    collection.surveyFully("V");
    const auto master = collection.holding("V", "master.wav")->id;
    REQUIRE(consentToLoss(collection.catalogue(), master).ok());
    CHECK_FALSE(consentToLoss(collection.catalogue(), collection.holding("V", "low.mp3")->id).ok());
    review = *reviewDocket(collection.catalogue());
    CHECK_FALSE(lineOf(review, "master.wav").refused);
    CHECK(lineOf(review, "copy.flac").awaitsConsent);
    const auto carried = collection.carryOutAll();
    CHECK(carried.done == 1);
    CHECK_FALSE(isTaken(collection / "V/master.wav"));
    CHECK(isTaken(collection / "V/copy.flac"));
    const auto actions = LedgerStore(collection.catalogue()).actionsOf(carried.entry);
    const auto done = std::ranges::find(*actions, ActionStep::carriedOut, &LedgerAction::step);
    REQUIRE(done != actions->end());
    CHECK(done->sentence == "Consented: no lossless copy of it would be left.");

    RunControl control;
    while (*lastUndoable(collection.catalogue())) {
        REQUIRE(undoEntry(collection.catalogue(), **lastUndoable(collection.catalogue()), control, {})
                    ->refused.empty());
    }
    CHECK((contentsBelow(collection / "V") == before));
}

TEST_CASE("consent is to one loss: another one is asked for anew") {
    Forms collection;
    collection.retireAllBut({"high.mp3", "other master.flac"});
    const auto master = collection.holding("V", "master.wav")->id;
    REQUIRE(consentToLoss(collection.catalogue(), master).ok());
    CHECK_FALSE(lineOf(*reviewDocket(collection.catalogue()), "master.wav").refused);
    // The lossy copy that was agreed to goes too: what is left is another master.
    collection.putOnDocket(ActionKind::retire, "V", "high.mp3");
    const auto line = lineOf(*reviewDocket(collection.catalogue()), "master.wav");
    CHECK(line.awaitsConsent);
    CHECK(lossWord(line.loss) == "master");
    collection.carryOutAll();
    CHECK(isTaken(collection / "V/master.wav"));
}

TEST_CASE("what is advised loses nothing") {
    Forms collection;
    RunControl control;
    const auto ids = Findings(collection.catalogue()).setOrder(SetOrder::mostBytes, {});
    const auto preview = previewPolicy(collection.catalogue(), *ids, {}, control);
    REQUIRE((preview.ok() && applyPreview(collection.catalogue(), *preview).ok()));
    const auto review = reviewDocket(collection.catalogue());
    CHECK(review->actions.size() >= 3);
    for (const auto& planned : review->actions) {
        CAPTURE(planned.path);
        CHECK(planned.loss == Loss::none);
        CHECK_FALSE(planned.refused);
    }
    CHECK(collection.carryOutAll().refused.empty());
}

TEST_CASE("a pair that is one recording only by way of others is compared before one goes") {
    Examined collection;
    fs::remove_all(joinPath(dataHome(), "Trash"));
    collection.music("V/a.wav", 92, 18);
    collection.derive("V/a.wav", {"-b:a", "256k"}, "V/one.mp3");
    collection.derive("V/a.wav", {"-b:a", "192k"}, "V/two.mp3");
    collection.surveyFully("V");
    // The comparisons of these two are only known by way of the first.
    const auto set = Findings(collection.catalogue()).setOf(collection.holding("V", "one.mp3")->id);
    REQUIRE((set.ok() && *set));
    fs::remove(collection / "V/a.wav");
    collection.surveyFully("V");
    collection.putOnDocket(ActionKind::retire, "V", "two.mp3");
    RunControl control;
    const auto carried = carryOut(collection.catalogue(), control, {});
    REQUIRE(carried.ok());
    INFO((carried->refused.empty() ? std::string() : carried->refused.front().sentence));
    CHECK(carried->done == 1);
    CHECK(isTaken(collection / "V/one.mp3"));
}
