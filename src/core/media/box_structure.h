#pragma once

#include "core/media/push_parser.h"

namespace sober {

/// The outermost boxes of ISO base media files (ISO/IEC 14496-12 section 4.2), M4A among them: each within
/// the file, a table of contents among them, nothing behind the last.
class BoxStructure final : public PushParser {
  public:
    explicit BoxStructure(std::uint64_t size) : PushParser(size) {}
    std::string_view container() const override { return "mp4"; }

  private:
    std::uint64_t parse(std::span<const std::uint8_t> held, bool atEnd) override;
    void conclude() override;

    bool hasContents_ = false;
    bool over_ = false;
};

} // namespace sober
