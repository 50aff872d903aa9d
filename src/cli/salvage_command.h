#pragma once

#include "cli/commands.h"

namespace sober::cli {

struct ScanOptions {
    BytePath image;
    std::string kinds; ///< parted by commas; "": all
    bool everywhere = false;
    bool anew = false;
};

struct TakeOptions {
    BytePath source; ///< an image, or "trash"
    std::vector<std::int64_t> finds;
    bool all = false;
    bool home = false;
    BytePath to;
    std::string layout;
    std::string onConflict = "name";
};

struct ImageOptions {
    BytePath source;
    BytePath to;
    BytePath map;
    unsigned retries = 1;
};

int runSalvageImage(const CommonOptions& common, const ImageOptions& options, RunControl& control);
int runSalvageTrash(const CommonOptions& common, const std::string& volume, RunControl& control);
int runSalvageScan(const CommonOptions& common, const ScanOptions& options, RunControl& control);
int runSalvageList(const CommonOptions& common, const BytePath& image);
int runSalvageTake(const CommonOptions& common, const TakeOptions& options, RunControl& control);

} // namespace sober::cli
