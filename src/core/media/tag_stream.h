#pragma once

#include "core/base/file_handle.h"

#include <taglib/tfilestream.h>

#include <fcntl.h>

namespace sober {

/// An open file for TagLib, by the name that tells its format. Only for the sources of this folder.
class TagStream final : public TagLib::FileStream {
  public:
    TagStream(const FileHandle& file, BytePath path, bool readOnly)
        : TagLib::FileStream(fcntl(file.get(), F_DUPFD_CLOEXEC, 0), readOnly), path_(std::move(path)) {
        seek(0); // some formats are read from where the file stands
    }
    TagLib::FileName name() const override { return path_.c_str(); }

  private:
    BytePath path_;
};

} // namespace sober
