#include "core/work/encode_crew.h"

#include "core/base/text.h"
#include "core/evidence/file_content.h"
#include "core/evidence/worker/evidence_worker.h"
#include "core/remedy/actions/new_form.h"
#include "core/remedy/changes/file_changes.h"

#include <openssl/evp.h>

#include <algorithm>
#include <cmath>

namespace sober {
namespace {

constexpr std::size_t waveHeadBytes = 44;
constexpr std::size_t sampleBytes = 4;
constexpr std::uint64_t largestTrack = 2'000'000'000;

/// The MD5 of the samples that a file has to decode to, as FLAC defines it.
Result<std::string> md5OfPart(const BytePath& wave, const Encoded& encoded) {
    const auto bytes = wholeFile(wave, largestTrack);
    RETURN_IF_FAILED(bytes);
    const auto samples = std::string_view(*bytes).substr(std::min(waveHeadBytes, bytes->size()));
    const auto at = [&](double seconds) {
        return std::min(sampleBytes * static_cast<std::size_t>(std::llround(seconds * discSampleRate)),
                        samples.size());
    };
    const auto part = samples.substr(at(encoded.begins), at(encoded.seconds));
    std::array<std::uint8_t, 16> digest{};
    unsigned size = 0;
    EVP_Digest(part.data(), part.size(), digest.data(), &size, EVP_md5(), nullptr);
    return toHex(digest);
}

} // namespace

EncodeCrew::EncodeCrew(const DiscSpool& spool, RunControl& control) : spool_(spool), control_(control) {
    const auto processors = std::max(1U, std::thread::hardware_concurrency());
    for (unsigned i = 0; i < processors; ++i) {
        hands_.emplace_back([this] { work(); });
    }
}

EncodeCrew::~EncodeCrew() {
    {
        const std::lock_guard lock(mutex_);
        ends_ = true;
        waiting_.clear();
    }
    changed_.notify_all();
    for (auto& hand : hands_) {
        hand.join();
    }
}

void EncodeCrew::add(TrackJob job) {
    {
        const std::lock_guard lock(mutex_);
        waiting_.push_back(std::move(job));
    }
    changed_.notify_all();
}

std::vector<TrackJobDone> EncodeCrew::done() {
    const std::lock_guard lock(mutex_);
    return std::exchange(done_, {});
}

bool EncodeCrew::isBusy() {
    std::unique_lock lock(mutex_);
    if (!waiting_.empty() || going_ > 0) {
        changed_.wait_for(lock, std::chrono::milliseconds(100));
    }
    return !waiting_.empty() || going_ > 0;
}

void EncodeCrew::work() {
    WorkerLimits limits;
    limits.secondsPerMegabyte = 60; // encoders take longer than decoders
    EvidenceWorker worker(limits);
    std::unique_lock lock(mutex_);
    while (true) {
        changed_.wait(lock, [this] { return ends_ || !waiting_.empty(); });
        if (ends_) {
            return;
        }
        auto job = std::move(waiting_.front());
        waiting_.pop_front();
        ++going_;
        lock.unlock();
        auto result = doJob(worker, std::move(job));
        lock.lock();
        --going_;
        done_.push_back(std::move(result));
        changed_.notify_all();
    }
}

TrackJobDone EncodeCrew::doJob(EvidenceWorker& worker, TrackJob job) {
    TrackJobDone result{std::move(job), {}, {}, {}};
    if (result.job.form.empty()) {
        auto heard = worker.fingerprint(result.job.samples, control_);
        result.heard = heard ? std::optional(std::move(*heard)) : std::nullopt;
        return result;
    }
    auto made = make(worker, result.job);
    if (made) {
        result.file = std::move(*made);
    } else {
        result.failure = made.error();
    }
    return result;
}

Result<RippedFile> EncodeCrew::make(EvidenceWorker& worker, const TrackJob& job) {
    const auto path = spool_.beginFile(job.name);
    const auto target = path ? openForChanging(*path) : Result<FileHandle>(path.error());
    RETURN_IF_FAILED(target);
    const auto encoded = worker.encode(job.samples, *target, job.form, control_);
    const auto tagged =
        encoded ? writeWhatItHolds(worker, *target, *path, job.tags) : Outcome(encoded.error());
    const auto content = tagged ? readContent(*path, control_) : Result<FileContent>(tagged.error());
    RETURN_IF_FAILED(content);
    RippedFile file{*path, content->stamp.size, content->checksums.file, job.samples, {}, *encoded};
    const auto form = encodingFormFrom(job.form);
    if (form && form->isLossless()) {
        auto md5 = md5OfPart(job.samples, *encoded);
        RETURN_IF_FAILED(md5);
        file.md5 = std::move(*md5);
    }
    return file;
}

} // namespace sober
