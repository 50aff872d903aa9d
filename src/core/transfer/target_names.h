#pragma once

#include "core/base/paths.h"
#include "core/transfer/target_rules.h"

#include <functional>
#include <map>
#include <vector>

namespace sober {

/// What stands for characters that a target cannot hold.
struct NameReplacements {
    std::map<char, std::string> characters; ///< ":" by "-", and so on
    std::string other = "_";                ///< for all others
};

/// Those that are used where nobody says otherwise.
NameReplacements usualReplacements();

struct FittedName {
    std::string name;
    std::string why; ///< in what the name was altered; "" where it is as it was
};

/// A name as the target can hold it: offending characters replaced, endings cut, too long ones shortened
/// before their ending. `ending` is the file's, without its dot; "" for folders.
FittedName fitName(const TargetRules& rules, const NameReplacements& replacements, const std::string& stem,
                   const std::string& ending);

/// What two names have in common that are one on the target.
std::string collisionKey(const TargetRules& rules, const BytePath& path);

/// One file among those that shall lie in the target.
struct TargetName {
    BytePath folder;  ///< relative to the target, as fitted
    std::string stem; ///< of its name, before it was fitted
    std::string ending;
    std::string disc; ///< what may tell it from another; "" where there is none
    std::string album;
    std::string year;
    FittedName fitted;           ///< filled in
    std::size_t longestName = 0; ///< units that a player leaves it, with its ending; 0: what the target holds
};

/// Fits all names and gives those that would be one on the target what tells them apart: the disc, the album,
/// the year or, where none of these does, a number. `taken` says of a path (relative to the target) and the
/// name that it is for that something else stands there already; that stays, whatever it is.
void fitAll(const TargetRules& rules, const NameReplacements& replacements, std::vector<TargetName>& names,
            const std::function<bool(const BytePath&, std::size_t)>& taken);

/// A target's rules as they hold for this name.
TargetRules rulesFor(const TargetRules& rules, const TargetName& name);

/// Where a fitted file lies, relative to the target.
BytePath pathOf(const TargetName& name);

} // namespace sober
