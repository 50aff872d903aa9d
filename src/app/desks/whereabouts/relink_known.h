#pragma once

#include "core/audit/relink.h"
#include "core/catalogue/action_kind.h"
#include "core/catalogue/player_store.h"
#include "core/catalogue/volumes.h"

#include <QString>
#include <QStringList>

#include <map>
#include <span>
#include <string>
#include <vector>

namespace sober::app {

/// What the catalogue says of players, beside what was found out about their references.
struct RelinkKnown {
    std::vector<Volume> volumes;
    std::vector<Player> players;
    std::vector<PlayerFigures> figures;
    std::map<ListFileId, std::vector<std::string>> owners; ///< by list: players' names
    std::map<BytePath, ActionKind> waiting;                ///< by place: the kind of action on the docket

    /// The players that a list is of.
    std::span<const std::string> namesOf(ListFileId list) const;
    /// Whose lists a lost place is in, with commas.
    std::string playersOf(const Relinking& found, std::size_t lost) const;
    /// A path for the eye: below a volume its label stands for the root.
    QString placeText(const BytePath& path) const;
    /// Of each player how many references are broken, now and once the links are carried out.
    QStringList figureWords(const Relinking& found) const;
};

Result<RelinkKnown> relinkKnown(const Catalogue& catalogue);

} // namespace sober::app
