#include "app/listening/listening_bar.h"

#include "app/desks/desk.h"
#include "app/listening/excerpt_strip.h"
#include "app/listening/listening_source.h"
#include "app/words.h"
#include "core/catalogue/excerpt_store.h"
#include "core/evidence/worker/evidence_worker.h"

#include <QAudioDevice>
#include <QAudioSink>
#include <QHBoxLayout>
#include <QLabel>
#include <QMediaDevices>
#include <QPushButton>
#include <QSlider>
#include <QTimer>
#include <QVBoxLayout>

#include <cmath>

namespace sober::app {
namespace {

constexpr int sliderSteps = 1000;
constexpr int followEvery = 100; // milliseconds

/// What is kept of a holding, its cover decoded.
struct KeptOf {
    std::shared_ptr<const Excerpt> excerpt; ///< null: nothing
    SmallPicture cover;
};

Result<KeptOf> keptOf(const Catalogue& catalogue, HoldingId holding) {
    auto kept = ExcerptStore(catalogue).of(holding);
    RETURN_IF_FAILED(kept);
    KeptOf found;
    if (*kept && !(*kept)->sound.empty()) {
        if (!(*kept)->cover.empty()) {
            const auto picture = EvidenceWorker().picture((*kept)->cover, Excerpt::coverPixels);
            found.cover = picture ? *picture : SmallPicture{};
        }
        found.excerpt = std::make_shared<Excerpt>(std::move(**kept));
    }
    return found;
}

} // namespace

ListeningBar::ListeningBar(QWidget* parent)
    : QWidget(parent),
      strip_(new ExcerptStrip(this)),
      button_(new QPushButton(this)),
      slider_(new QSlider(Qt::Horizontal, this)),
      text_(quietLabel({}, this)) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(2);
    layout->addWidget(strip_);
    auto* row = new QHBoxLayout;
    row->setSpacing(8);
    row->addWidget(button_);
    row->addWidget(slider_, 1);
    layout->addLayout(row);
    layout->addWidget(text_);
    text_->setWordWrap(true);
    slider_->setRange(0, sliderSteps);
    slider_->setAccessibleName(tr("Place in the recording"));
    text_->setAccessibleName(tr("Listening"));
    button_->setAccessibleName(tr("Play"));
    button_->setFocusPolicy(Qt::TabFocus);
    connect(button_, &QPushButton::clicked, this, [this] { isPlaying() ? stop() : play(); });
    connect(slider_, &QSlider::sliderReleased, this, [this] {
        if (source_) {
            goTo(source_->seconds() * slider_->value() / sliderSteps);
        }
    });
    auto* following = new QTimer(this);
    connect(following, &QTimer::timeout, this, &ListeningBar::follow);
    following->start(followEvery);
    setFile({});
}

ListeningBar::~ListeningBar() {
    stop();
}

void ListeningBar::toggle() {
    button_->click();
}

bool ListeningBar::isPlaying() const {
    return sink_ != nullptr;
}

void ListeningBar::say(const QString& text) {
    text_->setText(text);
}

void ListeningBar::setFile(const BytePath& path, const QString& whyNot) {
    stop();
    path_ = path;
    part_ = {};
    excerpt_.reset();
    ++excerptWanted_;
    strip_->setVisible(false);
    startAt_ = 0;
    gain_ = 0;
    slider_->setValue(0);
    button_->setEnabled(canPlay());
    slider_->setEnabled(canPlay());
    say(QMediaDevices::defaultAudioOutput().isNull() ? tr("No audio device: listening is not possible here.")
        : path.empty()                               ? whyNot
                                                     : QString());
}

bool ListeningBar::canPlay() const {
    return !QMediaDevices::defaultAudioOutput().isNull() && (!path_.empty() || excerpt_ != nullptr);
}

void ListeningBar::setAway(Workbench& workbench, HoldingId holding, const QString& why) {
    setFile({}, why);
    workbench.askLatest<KeptOf>(
        excerptAsked_, this, [holding](const Catalogue& catalogue) { return keptOf(catalogue, holding); },
        [this, wanted = excerptWanted_](const KeptOf& kept) {
            if (!kept.excerpt || wanted != excerptWanted_) {
                return;
            }
            excerpt_ = kept.excerpt;
            const auto& cover = kept.cover;
            strip_->setExcerpt(excerpt_,
                               QImage(reinterpret_cast<const uchar*>(cover.pixels.data()), cover.width,
                                      cover.height, 4 * cover.width, QImage::Format_RGBA8888)
                                   .copy());
            strip_->setVisible(true);
            button_->setEnabled(canPlay());
            slider_->setEnabled(canPlay());
            const bool isAll = excerpt_->seconds > excerpt_->whole - 0.5;
            const auto words =
                isAll ? tr("An excerpt is kept: all of its %1.").arg(clockText(excerpt_->whole))
                      : tr("An excerpt is kept: %1 to %2 of %3.")
                            .arg(clockText(excerpt_->begins), clockText(excerpt_->begins + excerpt_->seconds),
                                 clockText(excerpt_->whole));
            say(QMediaDevices::defaultAudioOutput().isNull() ? tr("%1 No audio device to play it.").arg(words)
                                                             : words);
        });
}

void ListeningBar::setPart(PlacedBytes part) {
    setFile(part.file);
    part_ = std::move(part);
}

void ListeningBar::switchTo(const BytePath& path, double later, double gain) {
    if (path == path_) {
        return;
    }
    if (excerpt_) { // of which the other's place is not known
        setFile(path);
        gain_ = gain;
        return;
    }
    gain_ = gain;
    if (!source_) {
        const double place = startAt_;
        setFile(path);
        gain_ = gain;
        startAt_ = std::max(0.0, place + later);
        return;
    }
    path_ = path;
    openFile(path, sink_->format().sampleRate(), [this, later](CagedListening reader) {
        if (source_) {
            source_->goOnWith(std::move(reader), source_->place() + later);
            source_->setFactor(static_cast<float>(std::pow(10.0, gain_ / 20)));
        }
    });
}

void ListeningBar::openFile(const BytePath& path, int rate, std::function<void(CagedListening)> then) {
    opener_.post(
        [this, path, part = part_, excerpt = excerpt_, rate, asked = ++asked_, then = std::move(then)] {
            auto opened = std::make_shared<Result<CagedListening>>(
                excerpt                ? CagedListening::openBytes(excerpt->sound, "the excerpt", rate)
                : part.extents.empty() ? CagedListening::open(path, rate)
                                       : CagedListening::openPart(part, rate));
            QMetaObject::invokeMethod(this, [this, opened, asked, then, path] {
                if (asked != asked_) {
                    return;
                }
                if (*opened) {
                    then(std::move(**opened));
                } else {
                    setFile(path);
                    say(told(opened->error().sentence));
                }
            });
        });
}

void ListeningBar::play() {
    const auto device = QMediaDevices::defaultAudioOutput();
    QAudioFormat format = device.preferredFormat();
    format.setSampleFormat(QAudioFormat::Int16);
    format.setChannelCount(2);
    if (device.isNull() || !device.isFormatSupported(format)) {
        say(tr("The audio device takes no 16-bit stereo sound."));
        return;
    }
    openFile(path_, format.sampleRate(), [this, device, format](CagedListening reader) {
        source_ = std::make_unique<ListeningSource>(std::move(reader), nullptr);
        source_->setFactor(static_cast<float>(std::pow(10.0, gain_ / 20)));
        if (startAt_ > 0) {
            source_->goTo(startAt_);
        }
        sink_ = std::make_unique<QAudioSink>(device, format);
        sink_->start(source_.get());
        if (sink_->error() != QAudio::NoError) {
            stop();
            say(tr("The audio device could not be opened."));
            return;
        }
        button_->setText(tr("Stop   P"));
    });
}

void ListeningBar::stop() {
    ++asked_;
    if (sink_) {
        sink_->stop();
    }
    sink_.reset();
    source_.reset();
    button_->setText(tr("Play   P"));
    strip_->setPlace(-1);
    emit placeChanged(-1);
}

void ListeningBar::goTo(double seconds) {
    startAt_ = seconds;
    if (source_) {
        source_->goTo(seconds);
    } else if (button_->isEnabled()) {
        play();
    }
}

void ListeningBar::follow() {
    if (!source_ || !sink_) {
        return;
    }
    if (source_->atEnd() && sink_->state() == QAudio::IdleState) {
        startAt_ = 0;
        stop();
        return;
    }
    const double place = source_->place();
    if (!slider_->isSliderDown() && source_->seconds() > 0) {
        slider_->setValue(static_cast<int>(place / source_->seconds() * sliderSteps));
    }
    const double within = excerpt_ ? excerpt_->begins + place : place; // the recording
    say(excerpt_ ? tr("Excerpt: %1 of %2").arg(clockText(within), clockText(excerpt_->whole))
                 : QStringLiteral("%1 / %2").arg(clockText(place), clockText(source_->seconds())));
    strip_->setPlace(excerpt_ ? within : -1);
    emit placeChanged(within);
}

} // namespace sober::app
