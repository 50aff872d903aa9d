#include "core/base/paths.h"
#include "core/base/run_control.h"
#include "core/base/text.h"
#include "core/base/times.h"

#include <catch2/catch.hpp>

#include <array>
#include <clocale>
#include <ctime>
#include <thread>

using namespace sober;

TEST_CASE("paths are joined, cut and compared as bytes") {
    struct Row {
        BytePath path, parent, name, ending, stem;
    };
    const Row row = GENERATE(Row{"/a/b.FLAC", "/a", "b.FLAC", "flac", "b"}, Row{"b", "", "b", "", "b"},
                             Row{"/x", "/", "x", "", "x"}, Row{"a/.hidden", "a", ".hidden", "", ".hidden"},
                             Row{"a/x.tar.gz", "a", "x.tar.gz", "gz", "x.tar"},
                             Row{"a/caf\xE9.mp3", "a", "caf\xE9.mp3", "mp3", "caf\xE9"});
    CAPTURE(row.path);
    CHECK(parentOf(row.path) == row.parent);
    CHECK(nameOf(row.path) == row.name);
    CHECK(endingOf(row.path) == row.ending);
    CHECK(stemOf(row.path) == row.stem);
    CHECK(joinPath(parentOf(row.path), nameOf(row.path)) == row.path);
}

TEST_CASE("a path lies within a folder only at a slash") {
    CHECK(isWithin("/a/b", "/a"));
    CHECK(isWithin("/a", "/a"));
    CHECK_FALSE(isWithin("/ab", "/a"));
    CHECK(isWithin("/a", "/"));
    CHECK(relativeTo("/a/b/c", "/a") == BytePath("b/c"));
    CHECK_FALSE(relativeTo("/b", "/a").has_value());
}

// RFC 3629: shortest form only, no surrogates, nothing above U+10FFFF.
TEST_CASE("well-formed UTF-8 is told from other bytes") {
    const auto [bytes, good, encoded] = GENERATE(table<std::string, bool, std::string>({
        {"plain", true, "plain"},
        {"caf\xC3\xA9", true, "caf\xC3\xA9"},
        {"caf\xE9", false, "caf%E9"},
        {"\xC0\xAF", false, "%C0%AF"},
        {"\xED\xA0\x80", false, "%ED%A0%80"},
        {"\xF4\x90\x80\x80", false, "%F4%90%80%80"},
        {"100%", true, "100%"},
        {"two\nlines", true, "two\nlines"},
    }));
    CHECK(isUtf8(bytes) == good);
    CHECK(percentEncodeOffending(bytes) == encoded);
}

TEST_CASE("what is shown of a path has no control characters") {
    CHECK(displayPath("two\nlines\x7F") == "two\xE2\x90\x8Alines\xE2\x90\xA1");
    CHECK(repairedUtf8("caf\xE9") == "caf\xC3\xA9");
}

TEST_CASE("sizes, lengths and counts are said as a person reads them") {
    CHECK(humanBytes(1) == "1 byte");
    CHECK(humanBytes(999) == "999 bytes");
    CHECK(humanBytes(1240) == "1.24 kB");
    CHECK(humanBytes(999'999) == "1.00 MB");
    CHECK(humanBytes(12'345'678'901) == "12.3 GB");
    CHECK(humanSeconds(9.5) == "9.5 s");
    CHECK(humanSeconds(252) == "4 min 12 s");
    CHECK(humanSeconds(11'100) == "3 h 05 min");
    CHECK(humanCount(1'234'567) == "1,234,567");
    CHECK(counted(1, "copy", "copies") == "1 copy");
    CHECK(counted(2'000, "copy", "copies") == "2,000 copies");
}

TEST_CASE("times are ISO 8601 in UTC, before 1970 too") {
    CHECK(isoUtc(0) == "1970-01-01T00:00:00Z");
    CHECK(isoUtc(-1) == "1969-12-31T23:59:59Z");
    CHECK(isoUtc(1'795'569'061'999'999'999) == "2026-11-25T01:11:01Z");
}

TEST_CASE("work waits while paused and ends when cancelled") {
    RunControl control;
    control.pause();
    std::atomic<int> steps = 0;
    std::thread worker([&] {
        while (control.proceed()) {
            ++steps;
            std::this_thread::yield();
        }
    });
    std::this_thread::sleep_for(std::chrono::milliseconds(30));
    CHECK(steps == 0);
    control.goOn();
    while (steps == 0) {
        std::this_thread::yield();
    }
    control.cancel();
    worker.join();
    CHECK(control.isCancelled());
}

TEST_CASE("days are told in English, whatever the locale of the process") {
    constexpr std::array months{"Jan", "Feb", "Mar", "Apr", "May", "Jun",
                                "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"};
    const std::string before = std::setlocale(LC_ALL, nullptr);
    for (const auto* locale : {"C", "C.UTF-8", "de_DE.UTF-8", "fr_FR.UTF-8"}) { // the last two where they are installed
        std::setlocale(LC_ALL, locale);
        for (int month = 0; month < 12; ++month) {
            std::tm parts{};
            parts.tm_year = 126;
            parts.tm_mon = month;
            parts.tm_mday = 5;
            parts.tm_hour = 14;
            parts.tm_min = 7;
            parts.tm_isdst = -1;
            const Nanoseconds time = static_cast<Nanoseconds>(std::mktime(&parts)) * 1'000'000'000;
            const auto day = std::string("05 ") + months[static_cast<std::size_t>(month)] + " 2026";
            CHECK(localDay(time) == day);
            CHECK(localMinute(time) == day + ", 14:07");
        }
    }
    std::setlocale(LC_ALL, before.c_str());
}
