#pragma once

#include "core/audit/match_recordings.h"
#include "core/audit/refresh_findings.h"
#include "core/audit/set_choice.h"
#include "support/collection.h"
#include "support/sound.h"

namespace sober::test {

/// A collection that is examined and matched as `sober survey --effort full` does it.
struct Examined : Collection {
    void surveyFully(const BytePath& relative) {
        RunControl control;
        REQUIRE(
            surveyVolume(catalogue(), {*this / relative, {}, {}, Effort::full}, control, [](const Progress&) {
            }).ok());
        const auto matched = matchRecordings(catalogue(), control, [](const Progress&) {});
        REQUIRE(matched.ok());
        report = *matched;
        REQUIRE(refreshFindings(catalogue()).ok());
    }
    std::vector<SetDetail> details(const SetFilter& filter = {}) {
        const Findings findings(catalogue());
        const auto volumes = Volumes(catalogue()).all();
        std::vector<SetDetail> all;
        const auto sets = findings.sets(*findings.setOrder(SetOrder::mostMembers, filter));
        for (const auto& set : *sets) {
            all.push_back(*detailOf(catalogue(), set, *volumes));
        }
        return all;
    }
    /// What `tool` makes of a file that is there already.
    void derive(const BytePath& from, const std::vector<std::string>& options, const BytePath& to) {
        std::filesystem::create_directories(std::filesystem::path(*this / to).parent_path());
        std::vector<std::string> words{"-i", *this / from};
        words.insert(words.end(), options.begin(), options.end());
        words.push_back(*this / to);
        ffmpeg(words);
    }
    void music(const BytePath& to, unsigned seed, double seconds) {
        std::filesystem::create_directories(std::filesystem::path(*this / to).parent_path());
        writeMusic(*this / to, seed, seconds);
    }
    MatchReport report;
};

} // namespace sober::test
