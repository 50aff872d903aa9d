#include "app/listening/listening_bar.h"

#include "app/desks/desk.h"
#include "app/listening/listening_source.h"
#include "app/words.h"

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

QString clock(double seconds) {
    const auto whole = static_cast<int>(seconds);
    return QStringLiteral("%1:%2").arg(whole / 60).arg(whole % 60, 2, 10, QLatin1Char('0'));
}

} // namespace

ListeningBar::ListeningBar(QWidget* parent)
    : QWidget(parent),
      button_(new QPushButton(this)),
      slider_(new QSlider(Qt::Horizontal, this)),
      text_(quietLabel({}, this)) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(2);
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
    startAt_ = 0;
    gain_ = 0;
    slider_->setValue(0);
    const bool device = !QMediaDevices::defaultAudioOutput().isNull();
    const bool can = device && !path.empty();
    button_->setEnabled(can);
    slider_->setEnabled(can);
    say(!device ? tr("No audio device: listening is not possible here.") : path.empty() ? whyNot : QString());
}

void ListeningBar::setPart(PlacedBytes part) {
    setFile(part.file);
    part_ = std::move(part);
}

void ListeningBar::switchTo(const BytePath& path, double later, double gain) {
    if (path == path_) {
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
    opener_.post([this, path, part = part_, rate, asked = ++asked_, then = std::move(then)] {
        auto opened = std::make_shared<Result<CagedListening>>(
            part.extents.empty() ? CagedListening::open(path, rate) : CagedListening::openPart(part, rate));
        QMetaObject::invokeMethod(this, [this, opened, asked, then, path] {
            if (asked != asked_) {
                return;
            }
            if (*opened) {
                then(std::move(**opened));
            } else {
                setFile(path);
                say(shown(opened->error().sentence));
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
    say(QStringLiteral("%1 / %2").arg(clock(place), clock(source_->seconds())));
    emit placeChanged(place);
}

} // namespace sober::app
