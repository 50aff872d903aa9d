#pragma once

#include "cli/commands.h"

namespace sober::cli {

struct DiscReadOptions {
    BytePath disc;
    BytePath to;
    std::string forms = "flac"; ///< parted by commas
    std::string tracks;         ///< "1,3-5"
    std::string layout;
    int retries = 20;
    int offset = 0;
    std::string registerAddress;
    std::string lookup;
    std::optional<int> answer; ///< which of the names, as `show` numbers them
    bool oneFile = false;
    bool plainTags = false;
};

int runDiscShow(const CommonOptions& common, const BytePath& disc, const std::string& lookup,
                RunControl& control);
/// Sets up services; those not said stay, "" is for none.
int runDiscServices(const CommonOptions& common, const std::optional<std::string>& ripRegister,
                    const std::optional<std::string>& lookup);
int runDiscRead(const CommonOptions& common, const DiscReadOptions& options, RunControl& control);

} // namespace sober::cli
