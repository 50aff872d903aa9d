#include "app/charts/band_chart.h"
#include "app/charts/ribbon_chart.h"
#include "app/charts/set_chart.h"
#include "app/charts/timeline_chart.h"
#include "app/theme/marks.h"
#include "app/theme/theme.h"
#include "chart_probe.h"

#include <QApplication>
#include <QPainter>
#include <QSignalSpy>
#include <QTest>
#include <QToolTip>

#include <catch2/catch.hpp>

#include <set>

using namespace sober;
using namespace sober::app;

namespace {

/// How many pixels differ from plain paper in a column range.
int inkedColumns(const QImage& image, int top, int bottom) {
    int inked = 0;
    const QRgb paper = image.pixel(image.width() - 1, image.height() - 1);
    for (int x = 0; x < image.width(); ++x) {
        for (int y = top; y < bottom; ++y) {
            if (image.pixel(x, y) != paper) {
                ++inked;
                break;
            }
        }
    }
    return inked;
}

FolderFigures folder(const BytePath& path, std::uint64_t holdings, std::uint64_t missing = 0,
                     std::uint64_t troubled = 0) {
    FolderFigures figures;
    figures.path = path;
    figures.depth = 1;
    figures.holdings = holdings;
    figures.bytes = holdings * 1000;
    figures.missing = missing;
    figures.troubled = troubled;
    return figures;
}

LedgerEntry entry(EntryId id, const std::string& kind, std::uint64_t actions,
                  std::optional<EntryId> undoes = {}) {
    LedgerEntry made;
    made.id = id;
    made.kind = kind;
    made.time = Nanoseconds{id} * 3'600'000'000'000;
    made.summary = "entry " + std::to_string(id);
    made.actions = actions;
    made.carriedOut = actions;
    made.undoes = undoes;
    return made;
}

} // namespace

TEST_CASE("bands are as wide as their folders hold, tell their figures and can be clicked") {
    BandChart chart;
    chart.setBands({{"GANNET", true, 100, 100'000, {folder("Music", 75), folder("Odd", 25, 3)}},
                    {"TERN", false, 50, 50'000, {folder("MUSIC", 50)}}});
    const auto image = pixelsOf(chart, 932); // 132 for the label, 800 for 103 holdings and missing
    CHECK(inkedColumns(image, 60, 64) > 780);
    const QString first = tipAt(chart, {200, 45});
    CHECK(first.startsWith("GANNET: Music\n75 holdings"));
    const QString second = tipAt(chart, {900, 45});
    CHECK(second.startsWith("GANNET: Odd"));
    CHECK(second.endsWith("3 missing"));
    CHECK(tipAt(chart, {900, 100}).isEmpty()); // TERN's band is half as long
    CHECK(tipAt(chart, {300, 100}).startsWith("TERN: MUSIC"));
    QSignalSpy chosen(&chart, &BandChart::folderChosen);
    QTest::mouseClick(&chart, Qt::LeftButton, Qt::NoModifier, {200, 45});
    REQUIRE(chosen.size() == 1);
    CHECK(chosen[0][1].toString() == "Music");
    QTest::mouseClick(&chart, Qt::LeftButton, Qt::NoModifier, {50, 45});
    CHECK(chosen.size() == 1);
}

TEST_CASE("a folder's worst state decides its shade") {
    BandChart chart;
    std::set<QRgb> shades;
    for (const auto& one : {folder("sound", 10), folder("missing", 10, 1), folder("unreadable", 10, 1, 1)}) {
        chart.setBands({{"V", true, 10, 1, {one}}});
        shades.insert(pixelsOf(chart, 932).pixel(700, 60));
    }
    CHECK(shades.size() == 3);
}

TEST_CASE("ribbons are thick by count and say where the same bytes are") {
    RibbonChart chart({"Ribbons", "last seen in", "the same bytes are now in", "no volume that is catalogued",
                       "Nothing is missing.", "%1 missing from %2"});
    CHECK(inkedColumns(pixelsOf(chart, 1000), 0, 80) > 50); // says that nothing is missing
    chart.setRibbons({{"GANNET/a", "TERN/b", 90}, {"GANNET/c", "", 10}});
    const auto image = pixelsOf(chart, 1000);
    const auto thickness = [&](int x) {
        int count = 0;
        for (int y = 22; y < 78; ++y) {
            count += image.pixel(x, y) != image.pixel(x, 21) ? 1 : 0;
        }
        return count;
    };
    CHECK(thickness(510) > 15);
    CHECK(tipAt(chart, {100, 37}) == "90 missing from GANNET/a\nthe same bytes are now in TERN/b");
    CHECK(tipAt(chart, {100, 63}).endsWith("no volume that is catalogued"));
    // A ribbon can be chosen, and one that is not used is an outline.
    int clicked = -2;
    QObject::connect(&chart, &RibbonChart::ribbonClicked, [&](int ribbon) { clicked = ribbon; });
    QTest::mouseClick(&chart, Qt::LeftButton, {}, {510, 63});
    CHECK(clicked == 1);
    // A choice stays with its ribbon, and goes where that goes.
    chart.setChosen(1);
    chart.setRibbons({{"GANNET/a", "TERN/b", 80}, {"GANNET/c", "", 9}});
    CHECK(chart.chosen() == 1);
    chart.setRibbons({{"GANNET/a", "TERN/b", 80}, {"GANNET/d", "", 9}});
    CHECK(chart.chosen() == -1);
    chart.setRibbons({{"GANNET/a", "TERN/b", 90, true}});
    CHECK(pixelsOf(chart, 1000).pixel(510, 37) != image.pixel(510, 37));
    std::vector<Ribbon> many;
    for (int i = 0; i < 30; ++i) {
        many.push_back({"folder " + QString::number(i), "", 1});
    }
    chart.setRibbons(many);
    CHECK(chart.height() < 300);
}

TEST_CASE("a set's members stand in their volume's lane, in order of time, and can be chosen") {
    SetDetail detail;
    std::vector<Volume> volumes(2);
    volumes[0].id = 1;
    volumes[0].label = "GANNET";
    volumes[1].id = 2;
    volumes[1].label = "TERN";
    for (HoldingId id = 1; id <= 3; ++id) {
        Holding holding;
        holding.id = id;
        holding.volume = id == 3 ? 2 : 1;
        holding.path = "member " + std::to_string(id) + ".flac";
        holding.mtime = Nanoseconds{id} * 86'400'000'000'000;
        detail.members.push_back(holding);
        detail.advice.push_back({id, id == 1 ? Advice::keep : Advice::retire, {"why"}});
    }
    SetChart chart;
    QSignalSpy chosen(&chart, &SetChart::memberChosen);
    chart.setDetail(detail, volumes);
    pixelsOf(chart, 1000);
    std::map<QString, QPoint> places;
    for (int y = 2; y < chart.height(); y += 3) {
        for (int x = 100; x < 990; x += 3) {
            const QString tip = tipAt(chart, {x, y});
            if (!tip.isEmpty()) {
                places.emplace(tip.section('\n', 0, 0), QPoint(x, y));
            }
        }
    }
    REQUIRE(places.size() == 3);
    CHECK(places["member 1.flac"].x() < places["member 2.flac"].x());
    CHECK(places["member 2.flac"].x() < places["member 3.flac"].x());
    CHECK(places["member 3.flac"].y() > places["member 2.flac"].y());
    QTest::mouseClick(&chart, Qt::LeftButton, Qt::NoModifier, places["member 3.flac"] + QPoint(3, 3));
    REQUIRE(chosen.size() == 1);
    CHECK(chosen[0][0].toLongLong() == 3);
}

TEST_CASE("the timeline shows what was done above and what was observed below") {
    TimelineChart chart;
    QSignalSpy chosen(&chart, &TimelineChart::entryChosen);
    chart.setEntries({entry(3, "undo", 0, 2), entry(2, "carry-out", 40), entry(1, "survey", 0)});
    pixelsOf(chart, 1000);
    std::map<QString, QPoint> places;
    for (int y = 4; y < chart.height(); y += 4) {
        for (int x = 10; x < 990; x += 4) {
            const QString tip = tipAt(chart, {x, y});
            if (!tip.isEmpty()) {
                places.emplace(tip.section('\n', 1, 1), QPoint(x, y));
            }
        }
    }
    REQUIRE(places.size() == 3);
    CHECK(places["entry 1"].x() < places["entry 2"].x());
    CHECK(places["entry 2"].x() < places["entry 3"].x());
    CHECK(places["entry 2"].y() < places["entry 1"].y());
    QTest::mouseClick(&chart, Qt::LeftButton, Qt::NoModifier, places["entry 2"] + QPoint(6, 6));
    REQUIRE(chosen.size() == 1);
    CHECK(chosen[0][0].toLongLong() == 2);
}

TEST_CASE("every state has a mark of its own and a word") {
    Theme::apply(*qApp, Paper::light);
    std::set<QByteArray> drawings;
    std::set<QString> words;
    const std::vector<Mark> marks{Mark::sound,   Mark::keep,   Mark::retire, Mark::writeOff, Mark::damaged,
                                  Mark::missing, Mark::copies, Mark::moved,  Mark::away};
    for (const auto mark : marks) {
        // In one ink, so that shape alone tells them apart.
        QImage image(28, 28, QImage::Format_ARGB32);
        image.fill(Qt::transparent);
        QPainter painter(&image);
        paintMark(painter, QRectF(0, 0, 28, 28), mark);
        painter.end();
        const QImage shape = image.createAlphaMask(Qt::ThresholdDither);
        drawings.insert(QByteArray(reinterpret_cast<const char*>(shape.constBits()),
                                   static_cast<int>(shape.sizeInBytes())));
        words.insert(wordFor(mark));
    }
    CHECK(drawings.size() == marks.size());
    CHECK(words.size() == marks.size());
}
