#pragma once

#include "core/base/paths.h"

#include <map>
#include <string>
#include <vector>

namespace sober::test {

/// A folder of its own, gone when the test ends.
class TempFolder {
  public:
    enum class On {
        memory, ///< where there is enough of it
        disk,   ///< for what rests on a lasting file system: flushing, reading from the medium
    };
    explicit TempFolder(On on = On::memory);
    ~TempFolder();
    TempFolder(const TempFolder&) = delete;
    TempFolder& operator=(const TempFolder&) = delete;

    const BytePath& path() const { return path_; }
    BytePath operator/(const BytePath& relative) const { return joinPath(path_, relative); }

  private:
    BytePath path_;
};

/// Makes `to` a copy of `from`, times, rights and hard links kept; what was there before is gone.
void copyFolder(const BytePath& from, const BytePath& to);

void writeFile(const BytePath& path, const std::string& content);
std::string readFile(const BytePath& path);

/// Content of every regular file below a folder, by path: what must still be there afterwards.
std::map<BytePath, std::string> contentsBelow(const BytePath& folder);

/// How often each content occurs below the folders; for "no byte is lost".
std::map<std::string, int> contentCounts(const std::vector<BytePath>& folders);

} // namespace sober::test
