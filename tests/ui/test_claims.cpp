#include "app/charts/claims_map.h"
#include "app/charts/time_picture.h"
#include "app/charts/trace_chart.h"
#include "app/listening/listening_source.h"
#include "app/theme/theme.h"
#include "core/catalogue/evidence_store.h"
#include "support/run_program.h"
#include "support/sound.h"
#include "ui/desktop.h"

#include <QCheckBox>
#include <QComboBox>
#include <QLineEdit>
#include <QPushButton>
#include <QSpinBox>
#include <QTableView>
#include <QWheelEvent>

#include <catch2/catch.hpp>

#include <filesystem>
#include <set>

using namespace sober;
using namespace sober::test;

namespace {

const QString claims = "Holdings by their evidence, the worst first";
const QString picture = "Stated bitrate and measured bandwidth of every examined holding";

/// The demo with one volume examined: what came from a swap meet, and the archive.
struct ExaminedDesktop : Desktop {
    ExaminedDesktop() : Desktop({{"PETREL", Effort::full}, {"TERN", Effort::index}}) {
        press(Qt::Key_3, Qt::AltModifier);
    }

    app::ClaimsMap& map() { return *static_cast<app::ClaimsMap*>(find(picture)); }
    int rows() { return list(claims)->model()->rowCount(); }
    void choose(const QString& box, const QString& item) {
        auto* combo = static_cast<QComboBox*>(find(box));
        const int index = combo->findText(item, Qt::MatchStartsWith);
        INFO(box.toStdString() << ": " << item.toStdString());
        REQUIRE(index >= 0);
        combo->setCurrentIndex(index);
        settle();
    }
    HoldingId holdingOf(const QString& title) {
        const auto catalogue = Catalogue::openForReading(demo.cataloguePath());
        HoldingFilter filter;
        filter.text = title.toStdString();
        const auto points = EvidenceStore(*catalogue).points(filter);
        REQUIRE(points.ok());
        REQUIRE(points->size() == 1);
        return points->front().holding;
    }
    void selectRowOf(const QString& title) {
        auto* view = list(claims);
        for (int row = 0; row < rows(); ++row) {
            if (cell(claims, row, "Title") == title) {
                view->setFocus();
                view->selectRow(row);
                settle();
                return;
            }
        }
        FAIL("no row says " << title.toStdString());
    }
    void answer(const QString& window, const QString& text) {
        auto* line = static_cast<QComboBox*>(find(window))->lineEdit();
        line->selectAll();
        QTest::keyClicks(line, text);
        QTest::keyClick(line, Qt::Key_Return);
        settle();
    }
};

} // namespace

TEST_CASE("Claims lists what is not what it says, with its evidence") {
    ExaminedDesktop desktop;
    CHECK(desktop.rows() >= 35);
    for (int row = 0; row < 10; ++row) {
        CHECK(desktop.cell(claims, row, "Verdict") == "transcoded");
    }
    CHECK(desktop.cell(claims, 10, "Verdict") == "doubtful");
    CHECK(desktop.cell(claims, 11, "Verdict").toStdString() == "genuine");

    desktop.selectRowOf("Sea Wall March");
    CHECK(desktop.text("Verdict").startsWith("Transcoded, 98 % sure: was MP3 at about 128"));
    CHECK(desktop.text("Reasons of the verdict").contains("block grid of an MP3 encoder found at"));
    CHECK(desktop.text("Facts").contains("Claims FLAC 16/44.1"));
    CHECK(desktop.text("Facts").contains("From a swap meet/01 Sea Wall March.flac"));
    CHECK(desktop.find("Trace of an earlier encoder's block grid")->isVisible());
    desktop.selectRowOf("Night Watch");
    CHECK(desktop.text("Verdict").contains("was AAC"));
    CHECK_FALSE(desktop.text("Reasons of the verdict").contains("stops dead"));
    desktop.selectRowOf("Signal Mast");
    CHECK(desktop.text("Reasons of the verdict").contains("an earlier block grid of an MP3 encoder"));
    desktop.selectRowOf("Kelp Line");
    CHECK(desktop.text("Verdict").toStdString() == "Genuine, 95 % sure");
}

TEST_CASE("dragging in the picture selects, and the list follows") {
    ExaminedDesktop desktop;
    auto& map = desktop.map();
    const int all = desktop.rows();
    const auto place = map.placeOf(desktop.holdingOf("The Gauge Board"));
    REQUIRE(place);
    const QPoint middle = place->toPoint();
    QTest::mousePress(&map, Qt::LeftButton, Qt::NoModifier, middle - QPoint(6, 6));
    QTest::mouseMove(&map, middle);
    QTest::mouseMove(&map, middle + QPoint(6, 6));
    QTest::mouseRelease(&map, Qt::LeftButton, Qt::NoModifier, middle + QPoint(6, 6));
    desktop.settle();
    CHECK(desktop.rows() == 1);
    CHECK(desktop.cell(claims, 0, "Title") == "The Gauge Board");
    CHECK(desktop.text("How many are shown").startsWith("1 of"));
    desktop.press(Qt::Key_Escape, Qt::NoModifier, &map);
    CHECK(desktop.rows() == all);

    // A click on a point goes to its line.
    const auto other = map.placeOf(desktop.holdingOf("High Water"));
    REQUIRE(other);
    desktop.click(&map, other->toPoint());
    const int row = desktop.list(claims)->currentIndex().row();
    CHECK(desktop.cell(claims, row, "Title") == "High Water");
    CHECK(desktop.text("Reasons of the verdict").contains("a rate of 96000 Hz was not needed"));
}

TEST_CASE("the picture comes nearer, moves and shows all again") {
    ExaminedDesktop desktop;
    auto& map = desktop.map();
    const auto holding = desktop.holdingOf("The Gauge Board");
    const QPointF before = *map.placeOf(holding);
    const auto wheel = [&](const QPointF& at, int by) {
        QWheelEvent event(at, map.mapToGlobal(at), {}, {0, by}, Qt::NoButton, Qt::NoModifier,
                          Qt::NoScrollPhase, false);
        QApplication::sendEvent(&map, &event);
    };
    wheel(before, 480);
    const QPointF near = *map.placeOf(holding);
    CHECK(std::hypot(near.x() - before.x(), near.y() - before.y()) < 3); // what is under the pointer stays
    const QPoint from = near.toPoint();
    QTest::mousePress(&map, Qt::LeftButton, Qt::ShiftModifier, from);
    QTest::mouseMove(&map, from + QPoint(-30, 0));
    QTest::mouseRelease(&map, Qt::LeftButton, Qt::ShiftModifier, from + QPoint(-30, 0));
    const auto moved = map.placeOf(holding);
    REQUIRE(moved);
    CHECK(moved->x() < near.x() - 20);
    desktop.press(Qt::Key_Right, Qt::NoModifier, &map);
    desktop.press(Qt::Key_Minus, Qt::NoModifier, &map);
    QTest::mouseDClick(&map, Qt::LeftButton, Qt::NoModifier, QPoint(300, 100));
    CHECK(*map.placeOf(holding) == before);
}

TEST_CASE("filters by volume, folder, codec, verdict and claim") {
    ExaminedDesktop desktop;
    const int all = desktop.rows();
    desktop.choose("Filter by verdict", "transcoded");
    CHECK(desktop.rows() == 10);
    desktop.choose("Filter by claim", "lossless");
    CHECK(desktop.rows() == 6);
    desktop.choose("Filter by claim", "lossy");
    CHECK(desktop.rows() == 4);
    desktop.choose("Filter by claim", "any claim");
    desktop.choose("Filter by codec", "MP3");
    CHECK(desktop.rows() == 4);
    desktop.choose("Filter by codec", "all codecs");
    desktop.choose("Filter by verdict", "any verdict");
    desktop.choose("Filter by volume", "PETREL");
    CHECK(desktop.rows() == all);
    desktop.choose("Filter by folder", "Inbox/From a swap meet");
    CHECK(desktop.rows() == 12);
    desktop.choose("Filter by volume", "all volumes");
    CHECK(desktop.rows() == all);
    QTest::keyClicks(desktop.find("Filter by text"), "slack tide");
    REQUIRE(desktop.waitFor([&] { return desktop.rows() == 1; }));
}

TEST_CASE("a holding is accepted with a reason through the docket, and that is taken back") {
    ExaminedDesktop desktop;
    const auto before = readFile(desktop.demo / "PETREL/Inbox/From a swap meet/08 High Water, 96 kHz.flac");
    desktop.selectRowOf("High Water");
    desktop.press(Qt::Key_A);
    desktop.answer("Accept as it is", "the only transfer there is");
    CHECK(desktop.text("What waits on the docket").startsWith("1 action waits"));
    desktop.selectRowOf("High Water");
    CHECK(desktop.cell(claims, 10, "Verdict") == "to accept");
    desktop.press(Qt::Key_D, Qt::ControlModifier);
    CHECK(desktop.cell("Actions on the docket", 0, "Action") == "accept");
    CHECK(desktop.cell("Actions on the docket", 0, "Why") == "the only transfer there is");
    desktop.press(Qt::Key_Return, Qt::ControlModifier, desktop.find("Actions on the docket"));
    REQUIRE(desktop.waitFor([&] { return desktop.text("Outcome").startsWith("Carried out: 1 action"); }));
    desktop.press(Qt::Key_Escape, Qt::NoModifier, desktop.find("Actions on the docket"));
    desktop.choose("Filter by verdict", "doubtful");
    const int without = desktop.rows();
    CHECK(without == 10);
    desktop.press(Qt::Key_Space, Qt::NoModifier, desktop.button("accepted too"));
    CHECK(desktop.rows() == without + 1);
    desktop.selectRowOf("High Water");
    CHECK(desktop.text("Why it was accepted").startsWith("Accepted as it is: the only transfer there is"));
    CHECK(readFile(desktop.demo / "PETREL/Inbox/From a swap meet/08 High Water, 96 kHz.flac") == before);

    desktop.press(Qt::Key_6, Qt::AltModifier);
    desktop.press(Qt::Key_T);
    CHECK(desktop.text("Message").toStdString() == "Taken back: 1 action.");
    desktop.press(Qt::Key_3, Qt::AltModifier);
    desktop.selectRowOf("High Water");
    CHECK(desktop.cell(claims, desktop.list(claims)->currentIndex().row(), "Verdict") == "doubtful");
}

TEST_CASE("a standing list is kept by name and can be used on every desk") {
    ExaminedDesktop desktop;
    const QString lists = "Narrow to a standing list";
    desktop.choose("Filter by verdict", "doubtful or transcoded");
    desktop.choose("Filter by claim", "lossless");
    REQUIRE(desktop.rows() == 7);
    desktop.click(desktop.button("Keep as list…"));
    desktop.answer("Keep as a standing list", "to replace");
    CHECK(static_cast<QComboBox*>(desktop.find(lists))->currentText() == "to replace");
    CHECK(desktop.rows() == 7);
    desktop.choose(lists, "no standing list");
    CHECK(desktop.rows() > 30);

    // Condition counts it and leads to it.
    desktop.press(Qt::Key_1, Qt::AltModifier);
    desktop.click(desktop.button("to replace: 7 holdings"));
    CHECK(desktop.rows() == 7);

    // A copy of one of them, and one of them gone: the list narrows Copies and Whereabouts.
    namespace fs = std::filesystem;
    const auto folder = desktop.demo / "PETREL/Inbox/From a swap meet/";
    fs::copy_file(folder + "01 Sea Wall March.flac", desktop.demo / "PETREL/march.flac");
    fs::remove(folder + "02 The Gauge Board.flac");
    fs::remove(desktop.demo / "TERN/MUSIC/0101 Chandlers Reel.mp3");
    desktop.press(Qt::Key_F5);
    desktop.press(Qt::Key_2, Qt::AltModifier);
    const int sets = desktop.list("Copy sets")->model()->rowCount();
    desktop.choose(lists, "to replace");
    CHECK(sets > 1);
    // With the polka's set, which holds a false lossless file.
    CHECK(desktop.list("Copy sets")->model()->rowCount() == 2);
    CHECK((desktop.cell("Copy sets", 0, "Recording") == "Sea Wall March" ||
           desktop.cell("Copy sets", 1, "Recording") == "Sea Wall March"));
    desktop.press(Qt::Key_5, Qt::AltModifier);
    CHECK(desktop.list("Missing holdings")->model()->rowCount() == 2);
    desktop.choose(lists, "to replace");
    CHECK(desktop.list("Missing holdings")->model()->rowCount() == 1);
    CHECK(desktop.cell("Missing holdings", 0, "Title") == "The Gauge Board");

    desktop.press(Qt::Key_3, Qt::AltModifier);
    desktop.choose(lists, "to replace");
    desktop.click(desktop.button("Forget list"));
    CHECK(static_cast<QComboBox*>(desktop.find(lists))->findText("to replace") < 0);
}

TEST_CASE("low bitrates are found by a limit for each codec, with the better copy") {
    ExaminedDesktop desktop;
    desktop.workbench().survey({{desktop.demo / "TERN", {}, {}, Effort::full}});
    desktop.settle();
    desktop.choose("Narrow to a standing list", "under the limit, better copy elsewhere");
    REQUIRE(desktop.rows() == 2);
    CHECK(desktop.cell(claims, 0, "Better") == "elsewhere");
    desktop.selectRowOf("Bollard Jig");
    CHECK(desktop.text("Facts").contains(
        "A better copy: PETREL/Archive/2010 Kelp and Rosin, the Concert/02.flac"));
    desktop.click(desktop.button("Limits…"));
    static_cast<QSpinBox*>(desktop.find("Limit for MP3"))->setValue(112);
    desktop.click(desktop.button("Use these limits"));
    REQUIRE(desktop.waitFor([&] { return desktop.rows() == 1; }));
    CHECK(desktop.cell(claims, 0, "Title") == "Bollard Jig");
}

TEST_CASE("frequencies over time are decoded when asked for; away volumes say that they are away") {
    ExaminedDesktop desktop;
    desktop.selectRowOf("Sea Wall March");
    auto* over = static_cast<app::TimePicture*>(desktop.find("Frequencies over time"));
    CHECK_FALSE(over->hasPicture());
    desktop.click(over, over->rect().center());
    REQUIRE(desktop.waitFor([&] { return over->hasPicture(); }));
    // Ends at 16 kHz: above it the picture stays paper, below it does not.
    const auto image = over->grab().toImage();
    CHECK(image.pixelColor(200, 10).lightness() > image.pixelColor(200, 80).lightness() + 40);
    desktop.selectRowOf("Night Watch");
    CHECK_FALSE(over->hasPicture());

    std::filesystem::rename(desktop.demo / "PETREL", desktop.demo / "PETREL, put away");
    desktop.workbench().lookForVolumes();
    desktop.settle();
    REQUIRE(desktop.waitFor([&] { return desktop.cell(claims, 0, "Volume").endsWith("(away)"); }));
    desktop.selectRowOf("Sea Wall March");
    CHECK(desktop.text("Verdict").startsWith("Transcoded"));
    desktop.click(over, over->rect().center());
    CHECK_FALSE(over->hasPicture());
}

TEST_CASE("without an audio device listening says so") {
    ExaminedDesktop desktop;
    desktop.selectRowOf("Sea Wall March");
    const QString said = desktop.text("Listening");
    auto* play = static_cast<QPushButton*>(desktop.find("Play"));
    CHECK(play->isEnabled() == said.isEmpty());
    if (!play->isEnabled()) {
        CHECK(said.startsWith("No audio device"));
    }
}

TEST_CASE("what an audio output pulls is the file's sound, from any place") {
    const TempFolder folder;
    writeMusic(folder / "in.flac", 3, 4);
    ffmpeg({"-i", folder / "in.flac", "-f", "s16le", folder / "all.raw"});
    const auto whole = readFile(folder / "all.raw");
    auto reader = CagedListening::open(folder / "in.flac");
    REQUIRE(reader.ok());
    app::ListeningSource source(std::move(*reader), nullptr);
    CHECK(source.seconds() == Approx(4));
    CHECK(source.read(static_cast<qint64>(whole.size()) + 4000).toStdString() == whole);
    CHECK(source.atEnd());
    source.goTo(2);
    CHECK_FALSE(source.atEnd());
    CHECK(source.place() == Approx(2));
    const auto rest = source.read(40'000).toStdString();
    CHECK(rest == whole.substr(2 * 44100 * 4, 40'000));
    CHECK(source.place() == Approx(2 + 10'000.0 / 44'100));
}

TEST_CASE("the palette of loudness is readable in grey, on every paper") {
    for (const auto paper : app::everyPaper) {
        app::Theme::apply(*qApp, paper);
        const bool isLight = paper != app::Paper::dark;
        double before = isLight ? 256 : -1;
        for (double loudness = 0; loudness <= 1; loudness += 0.05) {
            const QColor color = app::loudnessColor(loudness);
            const double grey = 0.2126 * color.red() + 0.7152 * color.green() + 0.0722 * color.blue();
            CHECK((isLight ? grey < before : grey > before));
            before = grey;
        }
    }
    app::Theme::apply(*qApp, app::Paper::light);
}
