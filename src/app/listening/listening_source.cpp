#include "app/listening/listening_source.h"

#include <QMutexLocker>

#include <algorithm>
#include <cmath>

namespace sober::app {
namespace {

constexpr qint64 bytesPerFrame = 2 * sizeof(std::int16_t);

} // namespace

ListeningSource::ListeningSource(CagedListening reader, QObject* parent)
    : QIODevice(parent), reader_(std::move(reader)), seconds_(reader_.seconds()) {
    open(QIODevice::ReadOnly | QIODevice::Unbuffered);
}

double ListeningSource::place() const {
    const QMutexLocker lock(&mutex_);
    return start_ + static_cast<double>(frames_) / reader_.rate();
}

void ListeningSource::goTo(double seconds) {
    const QMutexLocker lock(&mutex_);
    start_ = std::max(0.0, seconds);
    frames_ = 0;
    ended_ = false;
    reader_.seek(start_);
}

double ListeningSource::seconds() const {
    const QMutexLocker lock(&mutex_);
    return seconds_;
}

void ListeningSource::goOnWith(CagedListening reader, double place) {
    reader.seek(std::max(0.0, place));
    const QMutexLocker lock(&mutex_);
    reader_ = std::move(reader);
    seconds_ = reader_.seconds();
    start_ = std::max(0.0, place);
    frames_ = 0;
    ended_ = false;
}

void ListeningSource::setFactor(float factor) {
    const QMutexLocker lock(&mutex_);
    factor_ = std::clamp(factor, 0.0F, 1.0F);
}

qint64 ListeningSource::bytesAvailable() const {
    return ended_ ? 0 : reader_.rate() * bytesPerFrame;
}

qint64 ListeningSource::readData(char* data, qint64 most) {
    const QMutexLocker lock(&mutex_);
    const auto samples = static_cast<std::size_t>(most / bytesPerFrame * 2);
    std::vector<std::int16_t> stereo(samples);
    const auto frames = reader_.read(stereo);
    if (factor_ < 1) {
        for (auto& sample : stereo) {
            sample = static_cast<std::int16_t>(std::lround(static_cast<float>(sample) * factor_));
        }
    }
    std::copy_n(reinterpret_cast<const char*>(stereo.data()), frames * bytesPerFrame, data);
    frames_ += static_cast<std::int64_t>(frames);
    ended_ = frames * 2 < samples;
    return static_cast<qint64>(frames) * bytesPerFrame;
}

} // namespace sober::app
