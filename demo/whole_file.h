#pragma once

#include "core/base/paths.h"

#include <filesystem>
#include <fstream>
#include <sstream>

namespace sober::demo {

inline std::string contentOf(const BytePath& path) {
    std::ostringstream content;
    content << std::ifstream(path, std::ios::binary).rdbuf();
    return content.str();
}

/// Its folder is made where there is none.
inline void write(const BytePath& path, const std::string& content) {
    std::filesystem::create_directories(std::filesystem::path(path).parent_path());
    std::ofstream(path, std::ios::binary) << content;
}

} // namespace sober::demo
