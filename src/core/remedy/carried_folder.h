#pragma once

#include "core/base/result.h"

#include <optional>
#include <string_view>

namespace sober {

/// A folder of ours that comes to be whole or not at all, in the place of one that we made before.
class CarriedFolder {
  public:
    /// `folder` is what it will be called.
    static Result<CarriedFolder> begin(const BytePath& folder);

    /// Where it is while it is made.
    const BytePath& made() const { return made_; }
    Outcome add(std::string_view name, std::string_view content);
    /// A copy of a file, under its name.
    Outcome addCopy(const BytePath& file);
    /// It stands under its name now. What stood there goes if we made all of it and it is not to be kept;
    /// else it stays beside, and its new place is given.
    Result<BytePath> finish(bool keepsBefore);
    /// Nothing of it is left.
    void giveUp();

  private:
    CarriedFolder(BytePath folder, BytePath made) : folder_(std::move(folder)), made_(std::move(made)) {}
    BytePath folder_;
    BytePath made_;
};

} // namespace sober
