#include "core/base/inner_path.h"

#include <catch2/catch.hpp>

using namespace sober;

TEST_CASE("a path leads into an archive where something named like one stands before the mark") {
    struct Given {
        const char* path;
        const char* archive; ///< "": it does not
        const char* inside;
    };
    for (const auto& [path, archive, inside] : {
             Given{"a/b.zip!/c/d.flac", "a/b.zip", "c/d.flac"},
             {"a/B.TAR.GZ!/d.flac", "a/B.TAR.GZ", "d.flac"},
             {"b.7z!/", "b.7z", ""},
             {"Help!/01.flac", "", ""},
             {"Help!/b.rar!/01.flac", "Help!/b.rar", "01.flac"},
             {"b.iso!/c.zip!/d.flac", "b.iso", "c.zip!/d.flac"},
             {"b.zip/c.flac", "", ""},
             {".zip!/c.flac", "", ""}, // no name before its ending
             {"b.zip!", "", ""},
             {"", "", ""},
         }) {
        CAPTURE(path);
        const auto found = innerPathOf(path);
        CHECK(found.has_value() == (*archive != 0));
        CHECK(found.value_or(InnerPath{}).archive == archive);
        CHECK(found.value_or(InnerPath{}).inside == inside);
        CHECK((!found || innerPath(found->archive, found->inside) == path));
    }
}
