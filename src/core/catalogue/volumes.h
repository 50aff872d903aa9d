#pragma once

#include "core/catalogue/catalogue.h"
#include "core/catalogue/records.h"

#include <span>

namespace sober {

/// The places audio is kept.
class Volumes {
  public:
    explicit Volumes(const Catalogue& catalogue) : catalogue_(catalogue) {}

    /// All of them, by label, without what was forgotten.
    Result<std::vector<Volume>> all() const;
    /// Takes a new volume in; its id is set in what comes back. A label already in use gets a number.
    Result<Volume> add(Volume volume) const;
    /// Writes everything but the id and what is mounted within; since when it is away is noted here.
    Outcome update(const Volume& volume) const;

    /// Gives a volume another label; Cause::alreadyThere where another one has it.
    Outcome relabel(const Volume& volume, const std::string& label) const;

    /// Another file system that was mounted below a volume's root when that was surveyed.
    struct InnerMount {
        BytePath path; ///< relative to the volume's root
        VolumeIdentity identity;
        bool away = false;
    };
    Result<std::vector<InnerMount>> innerMounts(VolumeId volume) const;
    /// What is mounted within now and what was and is away.
    Outcome setInnerMounts(VolumeId volume, std::span<const InnerMount> mounts) const;

  private:
    const Catalogue& catalogue_;
};

/// The volume at hand on which an absolute path lies; Cause::notFound where there is none.
Result<const Volume*> volumeHolding(std::span<const Volume> volumes, const BytePath& path);

} // namespace sober
