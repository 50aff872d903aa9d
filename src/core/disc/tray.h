#pragma once

#include "core/base/run_control.h"
#include "core/disc/sector_source.h"
#include "core/evidence/worker/worker_process.h"

namespace sober {

/// The letters of the questions to a tray.
enum TrayQuestion : char {
    openQuestion = 'o',
    sectorsQuestion = 'r',
    carefulSectorsQuestion = 'c',
};

/// A drive with a disc in it, or an image of a disc by its cue sheet, read by a process of its own (libcdio):
/// what a drive does that never answers, or an image that was made to do harm, costs that process.
class Tray final : public SectorSource {
  public:
    /// Opens it and reads its contents. `silentSeconds`: how long is waited for any answer.
    static Result<Tray> open(const BytePath& disc, RunControl& control, unsigned silentSeconds = 60);

    const BytePath& disc() const { return disc_; }
    const DiscContents& contents() const { return contents_; }

    Result<DiscSamples> read(int first, int count) override {
        return ask(*process_, sectorsQuestion, first, count);
    }
    /// In a process of its own: the library for it may not come to an end at what cannot be read. What takes
    /// too long counts as unreadable, and once that has cost some seconds nothing is read with care any more.
    Result<DiscSamples> readWithCare(int first, int count) override;

  private:
    Tray(BytePath disc, RunControl& control, unsigned silentSeconds);
    Result<DiscSamples> ask(WorkerProcess& process, char letter, int first, int count);
    Result<std::string> answerTo(WorkerProcess& process, char letter, std::string_view question);

    BytePath disc_;
    RunControl* control_;
    std::unique_ptr<WorkerProcess> process_;
    std::unique_ptr<WorkerProcess> careful_;
    double careLost_ = 0; ///< seconds of careful readings that came to nothing
    DiscContents contents_;
};

} // namespace sober
