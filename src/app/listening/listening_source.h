#pragma once

#include "core/evidence/worker/caged_listening.h"

#include <QIODevice>
#include <QMutex>

#include <atomic>

namespace sober::app {

/// A file's sound as a device that an audio output pulls from: 16-bit stereo, native byte order.
class ListeningSource : public QIODevice {
    Q_OBJECT

  public:
    ListeningSource(CagedListening reader, QObject* parent);

    double seconds() const; ///< of the whole, as stated
    /// Of what was handed out so far.
    double place() const;
    void goTo(double seconds);
    /// Goes on with another decode at `place` seconds of it, without a gap: what was handed out stays.
    void goOnWith(CagedListening reader, double place);
    /// What every sample is multiplied by, 1 at most.
    void setFactor(float factor);

    bool isSequential() const override { return true; }
    bool atEnd() const override { return ended_; }
    qint64 bytesAvailable() const override;

  protected:
    qint64 readData(char* data, qint64 most) override;
    qint64 writeData(const char* /*data*/, qint64 /*length*/) override { return -1; }

  private:
    mutable QMutex mutex_; ///< the output may pull from a thread of its own
    CagedListening reader_;
    double seconds_;
    float factor_ = 1;
    double start_ = 0;        ///< seconds: where the last jump went
    std::int64_t frames_ = 0; ///< handed out since
    std::atomic<bool> ended_ = false;
};

} // namespace sober::app
