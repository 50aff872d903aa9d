#pragma once

#include "app/workbench.h"
#include "core/base/file_handle.h"
#include "core/evidence/worker/caged_listening.h"
#include "core/media/excerpt.h"

#include <QPointer>
#include <QWidget>

#include <functional>
#include <memory>

class QAudioSink;
class QLabel;
class QPushButton;
class QSlider;

namespace sober::app {

class ExcerptStrip;
class ListeningSource;

/// Play, seek, stop. Without an audio device it says so and does nothing.
class ListeningBar : public QWidget {
    Q_OBJECT

  public:
    explicit ListeningBar(QWidget* parent = nullptr);
    ~ListeningBar() override;

    /// The file that Play plays; "" for none. What is playing stops.
    void setFile(const BytePath& path, const QString& whyNot = {});
    /// The same of what lies in several places of an image.
    void setPart(PlacedBytes part);
    /// A holding that cannot be played where it lies, and why: its excerpt is, if one is kept, and the
    /// outline of all of it is shown.
    void setAway(Workbench& workbench, HoldingId holding, const QString& why);
    void goTo(double seconds);
    /// Another file from now on, `later` seconds further in it than in the present one: where something plays
    /// it goes on at the same musical moment. `gain` in dB, 0 at most, brings both to one level.
    void switchTo(const BytePath& path, double later, double gain);
    /// As the button does, where there is something to play.
    void toggle();
    bool isPlaying() const;

  signals:
    void placeChanged(double seconds); ///< negative where nothing plays

  private:
    void play();
    void stop();
    void follow();
    void say(const QString& text);
    /// Opens the file on a thread of its own; `then` hears of it unless another was asked for meanwhile.
    bool canPlay() const;
    void openFile(const BytePath& path, int rate, std::function<void(CagedListening)> then);

    BytePath path_;
    PlacedBytes part_;                       ///< no extents: all of the file
    std::shared_ptr<const Excerpt> excerpt_; ///< played in place of a file
    Latest excerptAsked_;
    unsigned excerptWanted_ = 0; ///< each time that something else is to be played
    ExcerptStrip* strip_;
    QPushButton* button_;
    QSlider* slider_;
    QLabel* text_;
    std::unique_ptr<ListeningSource> source_;
    std::unique_ptr<QAudioSink> sink_;
    double startAt_ = 0;
    double gain_ = 0; ///< dB
    unsigned asked_ = 0;
    WorkThread opener_; ///< last: it ends before what it speaks to
};

} // namespace sober::app
