#include "app/desks/standing_list_box.h"

#include "app/words.h"

#include <QSignalBlocker>

namespace sober::app {

StandingListBox::StandingListBox(Workbench& workbench, QWidget* parent)
    : QComboBox(parent), workbench_(workbench) {
    setAccessibleName(tr("Narrow to a standing list"));
    setToolTip(tr("A standing list is kept at the Claims desk and is always current"));
    setSizeAdjustPolicy(AdjustToMinimumContentsLengthWithIcon);
    addItem(tr("no standing list"));
    setMinimumContentsLength(std::max(18, static_cast<int>(itemText(0).size())));
    connect(this, &QComboBox::currentIndexChanged, this, [this] {
        wanted_.clear();
        emit listChanged();
    });
}

void StandingListBox::reload() {
    workbench_.ask<std::vector<StandingList>>(
        this, [](const Catalogue& catalogue) { return StandingLists(catalogue).all(); },
        [this](const std::vector<StandingList>& lists) { take(lists); });
}

void StandingListBox::take(const std::vector<StandingList>& lists) {
    const auto before = chosen();
    const QString name = !wanted_.isEmpty() ? wanted_ : before ? shown(before->name) : QString();
    {
        const QSignalBlocker quiet(this);
        lists_ = lists;
        clear();
        addItem(tr("no standing list"));
        for (const auto& list : lists_) {
            addItem(listName(list.name), shown(list.name));
        }
        const int index = name.isEmpty() ? 0 : findData(name);
        setCurrentIndex(std::max(0, index));
        if (index >= 0) {
            wanted_.clear();
        }
    }
    const auto now = chosen();
    if (before.has_value() != now.has_value() ||
        (now && (before->id != now->id || before->filter != now->filter))) {
        emit listChanged();
    }
}

std::optional<StandingList> StandingListBox::chosen() const {
    const int index = currentIndex() - 1;
    return index >= 0 && index < static_cast<int>(lists_.size())
               ? std::optional(lists_[static_cast<std::size_t>(index)])
               : std::nullopt;
}

std::optional<HoldingFilter> StandingListBox::filter() const {
    const auto list = chosen();
    return list ? std::optional(list->filter) : std::nullopt;
}

void StandingListBox::choose(const QString& name) {
    if (name.isEmpty()) {
        setCurrentIndex(0);
        return;
    }
    wanted_ = name;
    reload();
}

} // namespace sober::app
