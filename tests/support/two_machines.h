#pragma once

#include "core/work/meet_catalogue.h"
#include "support/collection.h"

#include <map>

namespace sober::test {

inline const ProgressSink quiet = [](const Progress&) {};

/// Two machines that look at the same drives, one after the other.
struct TwoMachines : Collection {
    TwoMachines() : other(openOther()) {}

    Catalogue other;

    BytePath otherPath() const { return *this / "other.sqlite"; }
    Catalogue openOther() const {
        auto opened = Catalogue::openForWriting(otherPath());
        REQUIRE(opened.ok());
        return std::move(*opened);
    }
    SurveyReport surveyBy(Catalogue& who, const std::string& volume, Effort effort = Effort::index,
                          bool excerpts = false) {
        SurveyChoices choices;
        choices.keepExcerpts = excerpts;
        RunControl control;
        auto report = surveyVolume(who, {*this / volume, {}, choices, effort}, control, quiet);
        INFO((report ? std::string() : report.error().sentence));
        REQUIRE(report.ok());
        return *report;
    }
    CatalogueMeeting takeIn(Catalogue& who, const BytePath& from) {
        RunControl control;
        auto meeting = takeInCatalogue(who, from, control, quiet);
        INFO((meeting ? std::string() : meeting.error().sentence));
        REQUIRE(meeting.ok());
        return *meeting;
    }
    CatalogueMeeting compare() {
        RunControl control;
        auto meeting = compareCatalogue(catalogue(), otherPath(), control);
        REQUIRE(meeting.ok());
        return *meeting;
    }
    /// Path, state, content and whether it was examined, of all that a catalogue knows of a volume.
    static std::map<std::string, std::string> known(const Catalogue& who, const std::string& label) {
        std::map<std::string, std::string> all;
        const auto volumes = Volumes(who).all();
        const auto volume = std::ranges::find(*volumes, label, &Volume::label);
        REQUIRE(volume != volumes->end());
        const auto holdings = knownOn(who, volume->id);
        for (const auto& each : *holdings) {
            all[each.path] = std::string(stateWord(each.state)) + " " + each.content.hex() +
                             (each.isExamined ? " examined" : "");
        }
        return all;
    }
};

} // namespace sober::test
