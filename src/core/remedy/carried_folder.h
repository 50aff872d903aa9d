#pragma once

#include "core/base/result.h"
#include "core/base/run_control.h"

#include <optional>
#include <span>
#include <string_view>
#include <vector>

namespace sober {

/// A file of the program that goes along, and its name below the folder of that.
struct CarriedFile {
    BytePath from;
    std::string as;
};

/// The folder of the program below such a folder, and the list in it of all that we put there.
inline constexpr std::string_view carriedProgramName = "Program";

/// Its file that says on which machines it runs.
inline constexpr std::string_view carriedMachinesName = "machines.txt";

/// The names in a carried program's folder, by the list in it; none where it has no such list.
std::vector<std::string> carriedNames(const BytePath& program);

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
    /// The program's files, into a folder of their own, and on which machines it runs. Cause::interrupted
    /// where it was cancelled.
    Outcome addProgram(std::span<const CarriedFile> files, std::string_view machines, RunControl& control,
                       const ProgressSink& onProgress);
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
