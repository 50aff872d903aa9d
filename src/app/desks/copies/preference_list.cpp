#include "app/desks/copies/preference_list.h"

#include "app/desks/ask_window.h"
#include "app/words.h"
#include "core/audit/preferences.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QListWidget>
#include <QPushButton>
#include <QVBoxLayout>

namespace sober::app {

PreferenceList::PreferenceList(std::vector<Volume> volumes, QWidget* parent)
    : QWidget(parent),
      volumes_(std::move(volumes)),
      list_(new QListWidget(this)),
      choice_(new QComboBox(this)),
      up_(new QPushButton(tr("Up"), this)),
      down_(new QPushButton(tr("Down"), this)),
      remove_(new QPushButton(tr("Remove"), this)) {
    list_->setAccessibleName(tr("Preferences in their order"));
    list_->setFixedHeight(96);
    choice_->setAccessibleName(tr("Add a preference"));
    choice_->addItem(tr("Add a preference…"));
    for (const auto& volume : volumes_) {
        choice_->addItem(told(preferenceWords({PreferenceKind::onVolume, volume.id, {}}, volumes_)),
                         QPoint(static_cast<int>(PreferenceKind::onVolume), static_cast<int>(volume.id)));
    }
    choice_->addItem(tr("the copy below a folder…"), QPoint(static_cast<int>(PreferenceKind::inFolder), 0));
    for (const auto kind : {PreferenceKind::betterNamed, PreferenceKind::moreTags, PreferenceKind::older,
                            PreferenceKind::newer, PreferenceKind::smaller}) {
        choice_->addItem(told(preferenceWords({kind, 0, {}}, volumes_)), QPoint(static_cast<int>(kind), 0));
    }
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(8);
    layout->addWidget(list_);
    auto* below = new QHBoxLayout;
    below->setSpacing(8);
    below->addWidget(choice_, 1);
    below->addWidget(up_);
    below->addWidget(down_);
    below->addWidget(remove_);
    layout->addLayout(below);
    setMinimumHeight(96 + layout->spacing() + choice_->sizeHint().height());
    connect(choice_, &QComboBox::activated, this, [this] { addChosen(); });
    connect(up_, &QPushButton::clicked, this, [this] { move(-1); });
    connect(down_, &QPushButton::clicked, this, [this] { move(1); });
    connect(remove_, &QPushButton::clicked, this, [this] { removeCurrent(); });
    connect(list_, &QListWidget::currentRowChanged, this, [this](int row) {
        up_->setEnabled(row > 0);
        down_->setEnabled(row >= 0 && row + 1 < list_->count());
        remove_->setEnabled(row >= 0);
    });
    show(-1);
}

void PreferenceList::setPreferences(std::vector<Preference> preferences) {
    preferences_ = std::move(preferences);
    show(-1);
}

void PreferenceList::addChosen() {
    if (choice_->currentIndex() <= 0) {
        return;
    }
    const QPoint picked = choice_->currentData().toPoint();
    choice_->setCurrentIndex(0);
    const Preference preference{static_cast<PreferenceKind>(picked.x()), picked.y(), {}};
    if (preference.kind != PreferenceKind::inFolder) {
        add(preference);
        return;
    }
    auto* ask =
        new AskWindow({tr("Which folder?"),
                       tr("A folder's name, or a path below a volume: copies below it are preferred."),
                       tr("Prefer it"),
                       {},
                       {}},
                      this);
    ask->setAttribute(Qt::WA_DeleteOnClose);
    connect(ask, &AskWindow::answered, this, [this, preference](const QString& text) {
        auto withFolder = preference;
        withFolder.folder = text.trimmed().toStdString();
        if (!withFolder.folder.empty()) {
            add(withFolder);
        }
    });
    ask->open();
}

void PreferenceList::add(const Preference& preference) {
    preferences_.push_back(preference);
    show(static_cast<int>(preferences_.size()) - 1);
    emit preferencesChanged();
}

void PreferenceList::move(int by) {
    const int row = list_->currentRow();
    const int to = row + by;
    if (row < 0 || to < 0 || to >= list_->count()) {
        return;
    }
    std::swap(preferences_[static_cast<std::size_t>(row)], preferences_[static_cast<std::size_t>(to)]);
    show(to);
    emit preferencesChanged();
}

void PreferenceList::removeCurrent() {
    const int row = list_->currentRow();
    if (row >= 0) {
        preferences_.erase(preferences_.begin() + row);
        show(std::min(row, static_cast<int>(preferences_.size()) - 1));
        emit preferencesChanged();
    }
}

void PreferenceList::show(int current) {
    list_->clear();
    for (std::size_t at = 0; at < preferences_.size(); ++at) {
        list_->addItem(
            QStringLiteral("%1.  %2").arg(at + 1).arg(told(preferenceWords(preferences_[at], volumes_))));
    }
    list_->setCurrentRow(current);
    up_->setEnabled(current > 0);
    down_->setEnabled(current >= 0 && current + 1 < list_->count());
    remove_->setEnabled(current >= 0);
}

} // namespace sober::app
