#include "app/charts/claims_map.h"
#include "app/charts/spectrum_chart.h"
#include "app/charts/time_picture.h"
#include "app/charts/trace_chart.h"
#include "app/theme/theme.h"

#include "chart_probe.h"

#include <QApplication>
#include <QSignalSpy>
#include <QTest>
#include <QToolTip>

#include <catch2/catch.hpp>

#include <cmath>

using namespace sober;
using namespace sober::app;

namespace {

/// Columns in which a colour stands, by how near it is.
std::vector<int> columnsOf(const QImage& image, const QColor& ink, int top, int bottom) {
    std::vector<int> columns;
    for (int x = 0; x < image.width(); ++x) {
        for (int y = top; y < bottom; ++y) {
            const QColor pixel = image.pixelColor(x, y);
            if (std::abs(pixel.red() - ink.red()) + std::abs(pixel.green() - ink.green()) +
                    std::abs(pixel.blue() - ink.blue()) <
                40) {
                columns.push_back(x);
                break;
            }
        }
    }
    return columns;
}

/// Full band up to an edge, nothing above.
Spectrum spectrumTo(double edge) {
    Spectrum spectrum;
    spectrum.binWidth = 44'100.0 / 1024;
    for (int bin = 0; bin <= 512; ++bin) {
        const bool below = bin * spectrum.binWidth < edge;
        spectrum.high.push_back(below ? 60.0F : -5.0F);
        spectrum.mean.push_back(below ? 50.0F : -8.0F);
    }
    spectrum.frames = 100;
    return spectrum;
}

TracePeak needleAt(std::size_t offset, double strength) {
    TracePeak peak;
    peak.codec = "mp3";
    peak.period = 576;
    peak.offset = offset;
    peak.strength = strength;
    peak.excess.assign(576, 0.5F);
    peak.excess[offset] = static_cast<float>(strength) * 10;
    return peak;
}

ClaimPoint lossy(HoldingId id, std::int64_t bitrate, float cutoff,
                 VerdictClass verdict = VerdictClass::genuine) {
    ClaimPoint point;
    point.holding = id;
    point.bitrate = bitrate;
    point.cutoff = cutoff;
    point.sampleRate = 44'100;
    point.verdict = verdict;
    return point;
}

ClaimPoint lossless(HoldingId id, int depth, int rate, float cutoff) {
    ClaimPoint point;
    point.holding = id;
    point.lossless = true;
    point.bitDepth = depth;
    point.sampleRate = rate;
    point.cutoff = cutoff;
    return point;
}

} // namespace

TEST_CASE("the spectrum ends where the bandwidth does, and the line says so") {
    SpectrumChart chart;
    for (const double edge : {11'000.0, 16'000.0, 19'000.0}) {
        chart.setSpectrum(spectrumTo(edge), Bandwidth{edge, 65, -5, true});
        const auto image = pixelsOf(chart, 400);
        const auto line = columnsOf(image, Theme::inks().damaged, image.height() - 40, image.height() - 30);
        CAPTURE(edge);
        REQUIRE_FALSE(line.empty());
        const double expected = 40 + edge / 22'050 * (400 - 46);
        CHECK(std::abs(line.front() - expected) < 3);
    }
    CHECK(tipAt(chart, {100, 80}).contains("in 5 % of the time above -30 dB"));
    CHECK(tipAt(chart, {100, 80}).contains("mean -40 dB"));
    CHECK(tipAt(chart, {5, 5}).isEmpty());
    chart.setSpectrum(std::nullopt, std::nullopt);
    CHECK(tipAt(chart, {100, 80}).isEmpty());
    pixelsOf(chart, 400);
}

TEST_CASE("the trace's needle stands at its position") {
    TraceChart chart;
    for (const std::size_t offset : {10U, 300U, 570U}) {
        CodecTrace trace;
        trace.last = needleAt(offset, 80);
        chart.setTrace(trace);
        const auto image = pixelsOf(chart, 500);
        const auto needle = columnsOf(image, Theme::inks().damaged, 40, 60);
        CAPTURE(offset);
        REQUIRE_FALSE(needle.empty());
        const double expected = 40 + (static_cast<double>(offset) + 0.5) / 576 * (500 - 46);
        CHECK(std::abs(needle.front() - expected) < 3);
    }
    // Of two the earlier is shown; the highest chance is no needle in the ink of what is wrong.
    CodecTrace two;
    two.last = needleAt(48, 150);
    two.first = needleAt(413, 40);
    chart.setTrace(two);
    const auto earlier = columnsOf(pixelsOf(chart, 500), Theme::inks().damaged, 40, 60);
    REQUIRE_FALSE(earlier.empty());
    CHECK(earlier.front() > 300);
    CodecTrace chance;
    chance.highest = needleAt(100, 4);
    chart.setTrace(chance);
    CHECK(columnsOf(pixelsOf(chart, 500), Theme::inks().damaged, 20, 90).empty());
    CHECK(tipAt(chart, {200, 60}).startsWith("position "));
    chart.setTrace({});
    CHECK(tipAt(chart, {200, 60}).isEmpty());
    pixelsOf(chart, 500);
}

TEST_CASE("codecs are named as people write them") {
    CHECK(codecName("mp3") == "MP3");
    CHECK(codecName("ac3") == "AC-3");
    CHECK(codecName("vorbis") == "Vorbis");
    CHECK(codecName("alac") == "ALAC");
    Claims claims;
    claims.codec = "flac";
    claims.lossless = true;
    claims.bitDepth = 24;
    claims.sampleRate = 96'000;
    CHECK(claimWords(claims) == "FLAC 24/96");
    claims.sampleRate = 44'100;
    claims.bitDepth = 16;
    CHECK(claimWords(claims) == "FLAC 16/44.1");
    claims = {};
    claims.codec = "mp3";
    claims.bitrate = 191'600;
    CHECK(claimWords(claims) == "MP3 192");
}

TEST_CASE("points stand by what they state and what is in them") {
    ClaimsMap map;
    map.resize(700, 320);
    map.setPoints({lossy(1, 128'000, 16'000), lossy(2, 320'000, 16'000), lossy(3, 128'000, 20'000),
                   lossless(4, 16, 44'100, 22'050), lossless(5, 24, 96'000, 40'000),
                   lossless(6, 16, 44'100, 15'000), lossy(7, 0, 0)});
    map.show();
    const auto place = [&](HoldingId id) { return map.placeOf(id).value(); };
    CHECK(place(1).x() < place(2).x());
    CHECK(std::abs(place(1).y() - place(2).y()) < 1);
    CHECK(place(3).y() < place(1).y());
    CHECK(place(2).x() < place(4).x());
    CHECK(place(4).x() < place(5).x());
    CHECK(place(5).y() < place(4).y());
    CHECK(place(6).y() > place(4).y());
    CHECK_FALSE(map.placeOf(99).has_value());
    CHECK(tipAt(map, place(2).toPoint()) == "320 kbit/s stated; reaches 16.0 kHz: genuine");
    CHECK(tipAt(map, place(5).toPoint()).startsWith("lossless, 24 bit, 96 kHz"));
    CHECK(tipAt(map, QPoint(100, 20)).isEmpty());
}

TEST_CASE("a hundred thousand points can be drawn, selected and forgotten") {
    ClaimsMap map;
    map.resize(700, 320);
    std::vector<ClaimPoint> points;
    for (HoldingId id = 1; id <= 100'000; ++id) {
        points.push_back(lossy(id, 64'000 + id % 256 * 1000, static_cast<float>(8000 + id % 1400 * 10),
                               static_cast<VerdictClass>(id % 4)));
    }
    map.setPoints(points);
    map.show();
    QApplication::processEvents();
    const auto all = map.grab().toImage();
    CHECK(columnsOf(all, Theme::inks().damaged, 20, 280).size() > 100);
    QSignalSpy selected(&map, &ClaimsMap::selectionChanged);
    QTest::mousePress(&map, Qt::LeftButton, Qt::NoModifier, {200, 60});
    QTest::mouseMove(&map, {300, 150});
    QTest::mouseRelease(&map, Qt::LeftButton, Qt::NoModifier, {300, 150});
    CHECK(selected.count() == 1);
    const auto chosen = map.selection();
    CHECK(chosen.size() > 1000);
    CHECK(chosen.size() < 99'000);
    for (const auto& point : points) {
        const auto place = map.placeOf(point.holding);
        const bool inside = place && QRectF(200, 60, 100, 90).contains(*place);
        if (inside != chosen.contains(point.holding)) {
            FAIL("point " << point.holding);
        }
        if (point.holding > 300) {
            break; // placeOf looks through all of them
        }
    }
    // Fewer points later: what is no longer there is no longer selected.
    points.resize(10);
    map.setPoints(points);
    CHECK(map.selection().size() <= 10);
    QTest::keyClick(&map, Qt::Key_Escape);
    CHECK(map.selection().empty());
    map.setPoints({});
    map.grab();
}

TEST_CASE("a click in the frequencies over time goes there; without a picture it asks for one") {
    TimePicture picture;
    QSignalSpy wanted(&picture, &TimePicture::pictureWanted);
    QSignalSpy place(&picture, &TimePicture::placeChosen);
    picture.setEmptyText("Click here");
    pixelsOf(picture, 446);
    QTest::mouseClick(&picture, Qt::LeftButton, Qt::NoModifier, {240, 50});
    CHECK(wanted.count() == 1);
    CHECK(place.count() == 0);

    TimeSpectrum made;
    made.columns = 100;
    made.seconds = 200;
    made.highest = 22'050;
    made.levels.assign(100 * TimeSpectrum::rows, 0);
    for (std::size_t column = 50; column < 100; ++column) {
        for (std::size_t row = 0; row < TimeSpectrum::rows / 2; ++row) {
            made.levels[column * TimeSpectrum::rows + row] = 100;
        }
    }
    picture.setPicture(made);
    const auto image = pixelsOf(picture, 446);
    // Loud in the second half below 11 kHz, and nowhere else.
    CHECK(image.pixelColor(340, 90).lightness() < 110);
    CHECK(image.pixelColor(340, 20).lightness() > 200);
    CHECK(image.pixelColor(140, 90).lightness() > 200);
    QTest::mouseClick(&picture, Qt::LeftButton, Qt::NoModifier, {240, 50});
    REQUIRE(place.count() == 1);
    CHECK(place.front().front().toDouble() == Approx(100).margin(1));
    CHECK(tipAt(picture, {240, 50}).contains("kHz"));
    picture.setPlace(50);
    const auto line = columnsOf(pixelsOf(picture, 446), Theme::inks().damaged, 10, 90);
    REQUIRE_FALSE(line.empty());
    CHECK(std::abs(line.front() - 140) < 3);
}
