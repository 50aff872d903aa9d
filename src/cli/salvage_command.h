#pragma once

#include "cli/commands.h"
#include "core/catalogue/salvage_store.h"

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

struct BytesOptions {
    BytePath image;
    FindId find = 0;      ///< where it begins; 0: at `at`
    std::uint64_t at = 0; ///< byte of the image
    std::size_t length = 512;
    std::string text; ///< looked for from there on
    std::string hex;  ///< the same as hexadecimal digits
};

struct WriteOptions {
    BytePath image;
    BytePath to;
    std::string label;
    std::uint64_t size = 0;
};

int runSalvageBytes(const CommonOptions& common, const BytesOptions& options, RunControl& control);
int runSalvageWrite(const CommonOptions& common, const WriteOptions& options, RunControl& control);
int runSalvageImage(const CommonOptions& common, const ImageOptions& options, RunControl& control);
int runSalvageTrash(const CommonOptions& common, const std::string& volume, RunControl& control);
int runSalvageScan(const CommonOptions& common, const ScanOptions& options, RunControl& control);
int runSalvageList(const CommonOptions& common, const BytePath& image);
int runSalvageTidy(const CommonOptions& common);
int runSalvageForget(const CommonOptions& common, const BytePath& image);
int runSalvageTake(const CommonOptions& common, const TakeOptions& options, RunControl& control);

} // namespace sober::cli
