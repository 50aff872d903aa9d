#pragma once

#include "core/catalogue/catalogue.h"
#include "core/catalogue/findings.h"

namespace sober {

using PolicyId = std::int64_t;

/// What a custodian may prefer among copies between which the evidence does not decide.
enum class PreferenceKind {
    onVolume = 0,    ///< the copy on a certain volume
    inFolder = 1,    ///< the copy below a folder of a certain name or path
    betterNamed = 2, ///< the name that says most of what the tags say
    moreTags = 3,    ///< the copy whose tags are filled most
    older = 4,       ///< the one written first
    newer = 5,       ///< the one written last
    smaller = 6,     ///< the one that takes less space
};

struct Preference {
    PreferenceKind kind = PreferenceKind::betterNamed;
    VolumeId volume = 0; ///< of onVolume
    std::string folder;  ///< of inFolder: "Music/Albums" or "Albums"

    bool operator==(const Preference&) const = default;
};

/// How sets are decided: the evidence first, always; where it does not decide, the preferences in their
/// order. Without preferences it is what the evidence says.
struct Policy {
    PolicyId id = 0;
    std::string name;
    std::vector<Preference> preferences;
    Sameness weakest = Sameness::part; ///< sets that hold together by less are left
    bool onlyWhereMet = false; ///< sets of which the keeper does not meet the first preference are left

    bool operator==(const Policy&) const = default;
};

/// The custodian's policies, kept by name.
class Policies {
  public:
    explicit Policies(const Catalogue& catalogue) : catalogue_(catalogue) {}

    /// By name.
    Result<std::vector<Policy>> all() const;
    Result<std::optional<Policy>> named(const std::string& name) const;
    /// Keeps a policy under its name, in place of one of that name; its id is set in what comes back.
    /// Cause::invalid without a name.
    Result<Policy> keep(Policy policy) const;
    Outcome remove(PolicyId policy) const;

  private:
    const Catalogue& catalogue_;
};

} // namespace sober
