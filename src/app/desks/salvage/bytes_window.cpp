#include "app/desks/salvage/bytes_window.h"

#include "app/charts/byte_sheet.h"
#include "app/desks/desk.h"
#include "app/theme/theme.h"
#include "app/words.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QRegularExpression>
#include <QScrollBar>
#include <QVBoxLayout>

#include <algorithm>

namespace sober::app {

constexpr int barSteps = 1'000'000; // an image has more rows than a bar has numbers

BytesWindow::BytesWindow(Workbench& workbench, BytePath image, std::uint64_t at, QWidget* parent)
    : QDialog(parent),
      workbench_(workbench),
      image_(std::move(image)),
      at_(at),
      sheet_(new ByteSheet(this)),
      bar_(new QScrollBar(Qt::Vertical, this)),
      kind_(new QComboBox(this)),
      wanted_(new QLineEdit(this)),
      place_(new QLineEdit(this)),
      said_(quietLabel({}, this)) {
    setWindowTitle(tr("Bytes of %1").arg(shownPath(BytePath(nameOf(image_)))));
    setAttribute(Qt::WA_DeleteOnClose);
    resize(1010, 640);
    auto* layout = titledLayout(windowTitle(), this);
    auto* row = new QHBoxLayout;
    buildRow(*row);
    layout->addLayout(row);
    auto* middle = new QHBoxLayout;
    middle->setSpacing(4);
    middle->addWidget(sheet_, 1);
    middle->addWidget(bar_);
    layout->addLayout(middle, 1);
    layout->addWidget(said_);
    bar_->setAccessibleName(tr("Place in the image"));
    bar_->setRange(0, barSteps);
    connect(bar_, &QScrollBar::sliderMoved, this, [this](int step) {
        goTo(static_cast<std::uint64_t>(static_cast<double>(size_) * step / barSteps));
    });
    connect(sheet_, &ByteSheet::movedBy, this, &BytesWindow::moveBy);
    connect(sheet_, &ByteSheet::resized, this, &BytesWindow::ask);
    goTo(at);
    sheet_->setFocus();
}

BytesWindow::~BytesWindow() {
    if (searching_) {
        searching_->cancel();
    }
}

void BytesWindow::buildRow(QHBoxLayout& row) {
    kind_->setAccessibleName(tr("What is looked for"));
    kind_->addItems({tr("Text"), tr("Bytes, as hexadecimal digits")});
    wanted_->setAccessibleName(tr("Look for"));
    wanted_->setPlaceholderText(tr("Look for, from here on"));
    place_->setAccessibleName(tr("Byte to go to"));
    place_->setPlaceholderText(tr("Go to byte"));
    place_->setMaximumWidth(170);
    auto* look = new QPushButton(tr("Look for"), this);
    look->setAutoDefault(false);
    auto* stop = new QPushButton(tr("Stop"), this);
    stop->setAutoDefault(false);
    row.addWidget(kind_);
    row.addWidget(wanted_, 1);
    row.addWidget(look);
    row.addWidget(stop);
    row.addSpacing(16);
    row.addWidget(place_);
    connect(look, &QPushButton::clicked, this, &BytesWindow::search);
    connect(wanted_, &QLineEdit::returnPressed, this, &BytesWindow::search);
    connect(stop, &QPushButton::clicked, this, [this] {
        if (searching_) {
            searching_->cancel();
            said_->setText(tr("Stopped."));
        }
    });
    connect(place_, &QLineEdit::returnPressed, this, [this] {
        auto text = place_->text();
        text.remove(QRegularExpression(QStringLiteral("\\D")));
        goTo(text.toULongLong());
    });
}

void BytesWindow::goTo(std::uint64_t at) {
    at_ = at - at % ByteSheet::rowBytes;
    ask();
}

void BytesWindow::moveBy(qint64 rows) {
    const auto last = static_cast<qint64>(size_ / ByteSheet::rowBytes) - sheet_->rows() + 2;
    const auto row = static_cast<qint64>(at_ / ByteSheet::rowBytes);
    goTo(static_cast<std::uint64_t>(std::clamp<qint64>(row + rows, 0, std::max<qint64>(0, last))) *
         ByteSheet::rowBytes);
}

void BytesWindow::ask() {
    if (waits_) {
        again_ = true;
        return;
    }
    waits_ = true;
    const auto length = static_cast<std::size_t>(sheet_->rows() + 1) * ByteSheet::rowBytes;
    workbench_.ask<ByteLook>(
        this,
        [image = image_, at = at_, length](const Catalogue& catalogue) {
            RunControl control;
            return lookAtBytes(catalogue, image, at, length, control);
        },
        [this](const ByteLook& look) { showLook(look); });
}

void BytesWindow::showLook(const ByteLook& look) {
    waits_ = false;
    size_ = look.size;
    sheet_->setLook(look);
    sheet_->setMarked(found_.value_or(ByteRange{0, 0}));
    if (!bar_->isSliderDown() && size_ > 0) {
        bar_->setValue(
            static_cast<int>(static_cast<double>(look.at) / static_cast<double>(size_) * barSteps));
    }
    if (std::exchange(again_, false)) {
        ask();
    }
}

void BytesWindow::search() {
    auto digits = wanted_->text().toLower();
    digits.remove(QLatin1Char(' '));
    const bool isText = kind_->currentIndex() == 0;
    const auto wanted =
        isText ? std::optional(wanted_->text().toStdString()) : bytesFromHex(digits.toStdString());
    if (!wanted || wanted->empty()) {
        said_->setText(isText ? tr("There is nothing to look for.")
                              : tr("These are no hexadecimal digits of bytes."));
        return;
    }
    if (searching_) {
        searching_->cancel();
    }
    searching_ = std::make_shared<RunControl>();
    said_->setText(tr("Looking through the image from byte %1 on…").arg(told(humanCount(at_))));
    // Behind what was found last, so that the same key goes on.
    const auto from = found_ && found_->first >= at_ ? found_->first + 1 : at_;
    searcher_.post([this, image = image_, wanted = *wanted, from, control = searching_] {
        const auto onProgress = [this, control](const Progress& progress) {
            QMetaObject::invokeMethod(this, [this, control, progress] {
                if (!control->isCancelled() && control == searching_) {
                    said_->setText(
                        tr("Looking: %1 of %2 gone by")
                            .arg(told(humanBytes(progress.bytes)), told(humanBytes(progress.totalBytes))));
                }
            });
        };
        const auto found = searchBytes(image, wanted, from, *control, onProgress);
        QMetaObject::invokeMethod(this, [this, found, length = wanted.size(), control] {
            if (!control->isCancelled() && control == searching_) {
                takeFound(found, length);
            }
        });
    });
}

void BytesWindow::takeFound(const Result<std::optional<std::uint64_t>>& found, std::size_t length) {
    searching_.reset();
    found_.reset();
    if (!found) {
        said_->setText(told(found.error().sentence));
    } else if (!*found) {
        said_->setText(tr("It stands nowhere from there on."));
    } else {
        found_ = ByteRange{**found, **found + length};
        said_->setText(tr("It stands at byte %1.").arg(told(humanCount(**found))));
        goTo(**found);
    }
}

} // namespace sober::app
