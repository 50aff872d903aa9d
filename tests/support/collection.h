#pragma once

#include "core/base/user_folders.h"
#include "core/catalogue/catalogue.h"
#include "core/catalogue/docket_store.h"
#include "core/catalogue/findings.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/volumes.h"
#include "core/survey/survey.h"
#include "support/temp_folder.h"

#include <catch2/catch.hpp>

#include <filesystem>
#include <optional>

namespace sober::test {

/// The trash folder of the tests' own home.
inline BytePath homeTrash() {
    return joinPath(dataHome(), "Trash");
}

/// A catalogue in a temporary folder with room for volumes beside it.
class Collection {
  public:
    Collection() : catalogue_(openOrFail(folder_ / "catalogue.sqlite")) {}

    BytePath operator/(const BytePath& relative) const { return folder_ / relative; }
    Catalogue& catalogue() { return catalogue_; }
    BytePath cataloguePath() const { return folder_ / "catalogue.sqlite"; }

    /// Surveys a folder of the collection; fails the test where that fails.
    SurveyReport survey(const BytePath& relative, std::optional<SurveyChoices> choices = {}) {
        RunControl control;
        auto report =
            surveyVolume(catalogue_, {folder_ / relative, {}, choices, {}}, control, [](const Progress&) {});
        INFO((report ? std::string() : report.error().sentence));
        REQUIRE(report.ok());
        return *report;
    }
    Result<SurveyReport> trySurvey(const BytePath& relative) {
        RunControl control;
        return surveyVolume(catalogue_, {folder_ / relative, {}, {}, {}}, control, [](const Progress&) {});
    }

    Volume volume(const std::string& label) {
        const auto volumes = Volumes(catalogue_).all();
        const auto found = std::ranges::find(*volumes, label, &Volume::label);
        REQUIRE(found != volumes->end());
        return *found;
    }
    std::optional<Holding> holding(const std::string& label, const BytePath& path) {
        return *Holdings(catalogue_).at(volume(label).id, path);
    }
    void putOnDocket(ActionKind kind, const std::string& label, const BytePath& path) {
        const auto found = holding(label, path);
        REQUIRE(found.has_value());
        const std::vector<DocketAction> actions{{0, kind, found->id, "", timeNow()}};
        REQUIRE(DocketStore(catalogue_).add(actions).ok());
    }
    /// Closes the catalogue, so that another process can open it, and opens it again.
    template <typename Work>
    void whileClosed(Work work) {
        const BytePath path = catalogue_.path();
        { const Catalogue closing = std::move(catalogue_); }
        work();
        catalogue_ = openOrFail(path);
    }

    /// Puts everything back as `keep` met it, the home trash emptied; inodes are new, paths are the same.
    void putBack() {
        whileClosed([&] {
            std::filesystem::remove_all(homeTrash());
            copyFolder(*kept_ / "all", folder_.path());
        });
    }
    void keep() {
        kept_.emplace();
        whileClosed([&] { copyFolder(folder_.path(), *kept_ / "all"); });
    }

  private:
    static Catalogue openOrFail(const BytePath& path) {
        auto opened = Catalogue::openForWriting(path);
        INFO((opened ? std::string() : opened.error().sentence));
        REQUIRE(opened.ok());
        return std::move(*opened);
    }

    TempFolder folder_;
    std::optional<TempFolder> kept_;
    Catalogue catalogue_;
};

} // namespace sober::test
