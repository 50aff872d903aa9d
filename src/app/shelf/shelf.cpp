#include "app/shelf/shelf.h"

#include "app/desks/file_manager.h"
#include "app/shelf/choices_window.h"
#include "app/theme/marks.h"
#include "app/theme/theme.h"
#include "app/words.h"
#include "core/catalogue/volumes.h"

#include <QContextMenuEvent>
#include <QKeyEvent>
#include <QLabel>
#include <QMenu>
#include <QPainter>
#include <QVBoxLayout>

namespace sober::app {

VolumeBox::VolumeBox(Volume volume, QWidget* parent) : QWidget(parent), volume_(std::move(volume)) {
    setFixedHeight(56);
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(
        tr("Volume %1, %2").arg(shown(volume_.label), volume_.atHand ? tr("at hand") : tr("away")));
    QString tip = shownPath(volume_.root);
    if (volume_.atHand && volume_.capacity > 0) {
        tip +=
            QStringLiteral("\n") +
            tr("%1 free of %2").arg(told(humanBytes(volume_.available)), told(humanBytes(volume_.capacity)));
    }
    tip += QStringLiteral("\n") + (volume_.surveyedAt != 0
                                       ? tr("surveyed %1").arg(told(localMinute(volume_.surveyedAt)))
                                       : tr("not surveyed to its end yet"));
    setToolTip(tip);
}

void VolumeBox::paintEvent(QPaintEvent* /*event*/) {
    const auto& inks = Theme::inks();
    QPainter painter(this);
    const QRectF box = QRectF(rect()).adjusted(0.5, 2.5, -0.5, -5.5);
    painter.fillRect(box, volume_.atHand ? inks.sheet : inks.paper);
    if (volume_.capacity > 0 && volume_.atHand) {
        const double share =
            1.0 - static_cast<double>(volume_.available) / static_cast<double>(volume_.capacity);
        painter.fillRect(QRectF(box.left() + 1, box.bottom() - 4, (box.width() - 2) * share, 4), inks.rule);
    }
    QPen edge(hasFocus() ? inks.accent : inks.rule, 1);
    if (!volume_.atHand) {
        edge.setDashPattern({3, 3});
    }
    painter.setPen(edge);
    painter.drawRect(box);
    // The pull of an archive box's drawer.
    painter.setPen(QPen(inks.quiet, 1));
    painter.drawLine(QPointF(box.right() - 22, box.top() + 12), QPointF(box.right() - 10, box.top() + 12));
    painter.setPen(volume_.atHand ? inks.ink : inks.quiet);
    painter.setFont(Theme::strong());
    const QRectF text = box.adjusted(10, 4, -28, 0);
    painter.drawText(QRectF(text.left(), text.top(), text.width(), 20), Qt::AlignLeft | Qt::AlignVCenter,
                     painter.fontMetrics().elidedText(shown(volume_.label), Qt::ElideRight,
                                                      static_cast<int>(text.width())));
    painter.setPen(inks.quiet);
    painter.setFont(Theme::text(11));
    const QString state =
        !volume_.atHand ? tr("away") : tr("at hand, %1 free").arg(told(humanBytes(volume_.available)));
    const QString below = tr("No. %1, %2").arg(volume_.id).arg(state);
    const QRectF lower(text.left(), text.top() + 20, box.width() - 16, 16);
    painter.drawText(
        lower, Qt::AlignLeft | Qt::AlignVCenter,
        painter.fontMetrics().elidedText(below, Qt::ElideRight, static_cast<int>(lower.width())));
}

void VolumeBox::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Space || event->key() == Qt::Key_Menu) {
        emit menuWanted(mapToGlobal(rect().bottomLeft()));
    } else {
        QWidget::keyPressEvent(event);
    }
}

void VolumeBox::mousePressEvent(QMouseEvent* event) {
    QWidget::mousePressEvent(event);
    if (event->button() == Qt::LeftButton) {
        emit menuWanted(mapToGlobal(rect().bottomLeft()));
    }
}

void VolumeBox::contextMenuEvent(QContextMenuEvent* event) {
    emit menuWanted(event->globalPos());
}

Shelf::Shelf(Workbench& workbench, QWidget* parent)
    : QWidget(parent),
      workbench_(workbench),
      changes_(new VolumeChanges(workbench, this)),
      boxes_(new QVBoxLayout) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(4);
    boxes_->setSpacing(4);
    layout->addLayout(boxes_);
}

void Shelf::reload() {
    workbench_.ask<std::vector<Volume>>(
        this, [](const Catalogue& catalogue) { return Volumes(catalogue).all(); },
        [this](const std::vector<Volume>& volumes) { showVolumes(volumes); });
}

void Shelf::showVolumes(const std::vector<Volume>& volumes) {
    while (auto* item = boxes_->takeAt(0)) {
        item->widget()->deleteLater();
        delete item;
    }
    if (volumes.empty()) {
        auto* hint = new QLabel(tr("No volume yet. Drop a folder or a drive here."), this);
        hint->setProperty("tone", "quiet");
        hint->setWordWrap(true);
        boxes_->addWidget(hint);
    }
    for (const auto& volume : volumes) {
        auto* box = new VolumeBox(volume, this);
        connect(box, &VolumeBox::menuWanted, this,
                [this, volume](const QPoint& at) { openMenu(volume, at); });
        boxes_->addWidget(box);
    }
}

void Shelf::openMenu(const Volume& volume, const QPoint& at) {
    auto* menu = new QMenu(this);
    menu->setAttribute(Qt::WA_DeleteOnClose);
    auto* again = menu->addAction(tr("Survey %1 again").arg(shown(volume.label)));
    again->setEnabled(volume.atHand);
    connect(again, &QAction::triggered, this, [this, volume] {
        emit surveyWanted({volume.root, {}, {}, {}});
    });
    auto* choices = menu->addAction(tr("What a survey takes in…"));
    connect(choices, &QAction::triggered, this, [this, volume] { openChoices(volume); });
    menu->addSeparator();
    for (const auto& [name, change] : {std::pair{tr("Give it another label…"), &VolumeChanges::relabel},
                                       {tr("A copy has taken its place…"), &VolumeChanges::succeed},
                                       {tr("Forget it…"), &VolumeChanges::forget}}) {
        auto* action = menu->addAction(name);
        action->setEnabled(!workbench_.isBusy());
        connect(action, &QAction::triggered, changes_,
                [this, change = change, volume] { (changes_->*change)(volume); });
    }
    menu->addSeparator();
    auto* open = menu->addAction(tr("Open in the file manager"));
    open->setEnabled(volume.atHand);
    connect(open, &QAction::triggered, this, [volume] { openFolderOf(joinPath(volume.root, "x")); });
    auto* copy = menu->addAction(tr("Copy path"));
    connect(copy, &QAction::triggered, this, [volume] { copyPath(volume.root); });
    menu->popup(at);
}

void Shelf::openChoices(const Volume& volume) {
    workbench_.ask<std::uint64_t>(
        this,
        [id = volume.id](const Catalogue& catalogue) -> Result<std::uint64_t> {
            const auto all = Findings(catalogue).volumeFigures();
            RETURN_IF_FAILED(all);
            const auto known = std::ranges::find(*all, id, &VolumeFigures::volume);
            return known != all->end() ? known->holdings : std::uint64_t{0};
        },
        [this, volume](std::uint64_t holdings) {
            auto* window = new ChoicesWindow(volume, holdings, this);
            window->setAttribute(Qt::WA_DeleteOnClose);
            connect(window, &ChoicesWindow::surveyWanted, this, &Shelf::surveyWanted);
            window->open();
        });
}

} // namespace sober::app
