#include "app/desks/transfer/transfer_sources.h"

#include "app/hand_focus_on.h"
#include "app/words.h"
#include "core/catalogue/findings.h"
#include "core/catalogue/standing_lists.h"
#include "core/catalogue/volumes.h"

#include <QShortcut>
#include <QVBoxLayout>

#include <fmt/format.h>

#include <algorithm>
#include <set>

namespace sober::app {

TransferSources::TransferSources(Workbench& workbench, QWidget* parent)
    : QWidget(parent),
      workbench_(workbench),
      rows_(new RowListModel<Source>(
          {{tr("What comes along"),
            [](const Source& source) {
                Cell cell{source.name, source.chosen ? Mark::keep : Mark::none, false, !source.chosen,
                          source.name};
                return cell;
            }},
           {tr("Which is"),
            [](const Source& source) {
                return Cell{source.what, Mark::none, false, true, {}};
            }}},
          [](const Source& source) { return source.key; }, this)),
      list_(new ListView(tr("What can come along"), this)) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addWidget(list_);
    list_->setModel(rows_);
    list_->setWidths({200, 130}, 0);
    list_->setEmptyText(tr("Survey a volume or take a player's lists in first."));
    list_->setToolTip(tr("Space or a double click takes one in or out"));
    auto* toggleKey = new QShortcut(QKeySequence(Qt::Key_Space), list_);
    toggleKey->setContext(Qt::WidgetShortcut);
    connect(toggleKey, &QShortcut::activated, this, &TransferSources::toggle);
    connect(list_, &QAbstractItemView::doubleClicked, this, &TransferSources::toggle);
    handFocusOn(this, list_);
}

Result<std::vector<TransferSources::Source>> TransferSources::look(const Catalogue& catalogue) {
    const PlayerStore store(catalogue);
    const auto players = store.all();
    const auto figures = store.figures();
    const auto lists = store.lists();
    const auto volumes = Volumes(catalogue).all();
    const auto standing = StandingLists(catalogue).all();
    const auto held = Findings(catalogue).volumeFigures();
    if (!players || !figures || !lists || !volumes || !standing || !held) {
        return !players    ? players.error()
               : !figures  ? figures.error()
               : !lists    ? lists.error()
               : !volumes  ? volumes.error()
               : !standing ? standing.error()
                           : held.error();
    }
    std::vector<Source> sources;
    for (std::size_t i = 0; i < players->size(); ++i) {
        const auto& player = (*players)[i];
        Source source{Kind::player,
                      fmt::format("p{}", player.id),
                      tr("all that %1 knows").arg(shown(player.name)),
                      told(counted((*figures)[i].references, "reference")),
                      player.id,
                      0,
                      {},
                      {},
                      false};
        sources.push_back(std::move(source));
        for (const auto& list : *lists) {
            if (std::ranges::find(list.players, player.id) != list.players.end() && list.problem.empty()) {
                sources.push_back({Kind::list,
                                   "l" + list.path,
                                   tr("the list %1").arg(shownPath(BytePath(nameOf(list.path)))),
                                   tr("of %1").arg(shown(player.name)),
                                   0,
                                   0,
                                   list.path,
                                   {},
                                   false});
            }
        }
    }
    for (const auto& volume : *volumes) {
        const auto figure = std::ranges::find(*held, volume.id, &VolumeFigures::volume);
        const auto count = figure == held->end() ? 0 : figure->holdings;
        sources.push_back({Kind::volume,
                           fmt::format("v{}", volume.id),
                           tr("all of %1").arg(volumeName(volume)),
                           volume.atHand ? told(counted(count, "holding")) : tr("away"),
                           0,
                           volume.id,
                           {},
                           {},
                           false});
    }
    for (const auto& list : *standing) {
        sources.push_back({Kind::standing,
                           "s" + list.name,
                           listName(list.name),
                           tr("standing list"),
                           0,
                           0,
                           {},
                           list.filter,
                           false});
    }
    // One list of two players stands once.
    std::set<std::string> keys;
    std::erase_if(sources, [&](const Source& source) { return !keys.insert(source.key).second; });
    return sources;
}

void TransferSources::reload() {
    workbench_.ask<std::vector<Source>>(this, &TransferSources::look,
                                        [this](const std::vector<Source>& sources) { take(sources); });
}

void TransferSources::take(std::vector<Source> sources) {
    sources.insert(sources.begin(), found_.begin(), found_.end());
    for (auto& source : sources) {
        const auto before = std::ranges::find(rows_->rows(), source.key, &Source::key);
        source.chosen = before != rows_->rows().end() ? before->chosen : source.chosen;
    }
    rows_->setRows(std::move(sources));
    if (list_->currentRow() < 0 && !rows_->rows().empty()) {
        list_->selectRow(0);
    }
    choose();
}

void TransferSources::takeFound(const QString& name, const HoldingFilter& filter) {
    Source source{Kind::found, "f" + name.toStdString(), name, tr("found"), 0, 0, {}, filter, true};
    std::erase_if(found_, [&](const Source& each) { return each.key == source.key; });
    found_.push_back(std::move(source));
    reload();
}

void TransferSources::toggle() {
    auto rows = rows_->rows();
    const int row = list_->currentRow();
    if (row >= 0 && row < static_cast<int>(rows.size())) {
        auto& source = rows[static_cast<std::size_t>(row)];
        source.chosen = !source.chosen;
        rows_->setRows(std::move(rows));
        choose();
    }
}

void TransferSources::setUnlisted(bool too) {
    choice_.andUnlisted = too;
    choose();
}

void TransferSources::setKeepersOnly(bool only) {
    choice_.keepersOnly = only;
    choose();
}

void TransferSources::choose() {
    TransferChoice choice;
    choice.andUnlisted = choice_.andUnlisted;
    choice.keepersOnly = choice_.keepersOnly;
    for (const auto& source : rows_->rows()) {
        if (!source.chosen) {
            continue;
        }
        switch (source.kind) {
        case Kind::player:
            choice.players.push_back(source.player);
            break;
        case Kind::list:
            choice.lists.push_back(source.list);
            break;
        case Kind::volume:
            choice.volumes.push_back(source.volume);
            break;
        case Kind::standing:
        case Kind::found:
            choice.filters.emplace_back(source.name.toStdString(), source.filter);
            break;
        }
    }
    choice_ = std::move(choice);
    emit choiceChanged();
}

} // namespace sober::app
