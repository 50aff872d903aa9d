#pragma once

#include "core/catalogue/records.h"
#include "core/transfer/layout.h"
#include "core/transfer/target_names.h"

#include <map>
#include <set>
#include <span>

namespace sober {

/// A holding's place by a layout, before the names of files are fitted; its folders are.
struct FiledName {
    TargetName name;
    std::string folderAltered; ///< why a folder is not called as the layout says; "" where all are
};

/// How holdings are filed by a layout. What concerns albums is known only by looking at all of them: a disc
/// counts only where its album has several; an album of several artists that names none of its own is filed
/// under "Various Artists".
class Filing {
  public:
    explicit Filing(std::span<const Holding> holdings);

    /// `within`: where it lies, relative to the folder whose folders may be kept.
    FiledName nameFor(const Holding& holding, const BytePath& within, const Layout& layout,
                      const TargetRules& rules, const NameReplacements& replacements) const;

  private:
    using Key = std::pair<std::string, std::string>;
    static Key byArtist(const Holding& holding);
    static Key byFolder(const Holding& holding);
    void add(const Holding& holding);
    bool hasDiscs(const Holding& holding) const;
    bool isOfSeveral(const Holding& holding) const;
    LayoutFields fieldsOf(const Holding& holding, const BytePath& folders) const;

    std::map<Key, std::set<std::string>> discs_;
    std::map<Key, std::set<std::string>> artists_;
};

} // namespace sober
