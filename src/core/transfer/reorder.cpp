#include "core/transfer/reorder.h"

#include "core/base/file_handle.h"
#include "core/base/text.h"
#include "core/catalogue/evidence_store.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/volumes.h"
#include "core/transfer/target_names.h"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <set>
#include <span>
#include <unordered_set>

namespace sober {
namespace {

/// What is known of albums only by looking at all of them.
class Albums {
  public:
    void add(const Holding& holding) {
        if (!holding.tags.album.empty()) {
            discs_[byArtist(holding)].insert(numberOf(holding.filing.disc, 0));
            artists_[byFolder(holding)].insert(foldedName(holding.tags.artist));
        }
    }
    bool hasDiscs(const Holding& holding) const {
        const auto discs = discs_.find(byArtist(holding));
        return discs != discs_.end() && discs->second.size() > 1;
    }
    /// It names no artist of its own, and those of its files differ.
    bool isOfSeveral(const Holding& holding) const {
        const auto artists = artists_.find(byFolder(holding));
        return holding.filing.albumArtist.empty() && artists != artists_.end() && artists->second.size() > 1;
    }

  private:
    using Key = std::pair<std::string, std::string>;
    /// Discs of one album may lie in folders of their own; artists of one album lie together.
    static Key byArtist(const Holding& holding) {
        const auto& artist = holding.filing.albumArtist;
        return {foldedName(holding.tags.album), foldedName(artist.empty() ? holding.tags.artist : artist)};
    }
    static Key byFolder(const Holding& holding) {
        return {foldedName(holding.tags.album), std::string(parentOf(holding.path))};
    }
    std::map<Key, std::set<std::string>> discs_;
    std::map<Key, std::set<std::string>> artists_;
};

LayoutFields fieldsOf(const Holding& holding, const BytePath& folders, const Albums& albums) {
    const auto& [title, artist, albumTitle, track, date] = holding.tags;
    LayoutFields fields;
    fields[LayoutField::albumArtist] =
        albums.isOfSeveral(holding) ? "Various Artists" : holding.filing.albumArtist;
    fields[LayoutField::artist] = artist;
    fields[LayoutField::album] = albumTitle;
    fields[LayoutField::disc] = albums.hasDiscs(holding) ? holding.filing.disc : std::string();
    fields[LayoutField::track] = track;
    fields[LayoutField::title] = title;
    fields[LayoutField::date] = date;
    fields[LayoutField::year] = date.substr(0, 4);
    fields[LayoutField::genre] = holding.filing.genre;
    fields[LayoutField::composer] = holding.filing.composer;
    fields[LayoutField::name] = std::string(stemOf(nameOf(holding.path)));
    fields[LayoutField::folders] = folders;
    return fields;
}

/// A holding on its way to its new name.
struct Ordered {
    HoldingId id = 0;
    BytePath within; ///< where it lies, relative to the folder that is put in order
    TargetName name; ///< not fitted yet
    std::string folderAltered;
};

Ordered orderedBy(const Holding& holding, const BytePath& within, const Layout& layout, const Albums& albums,
                  const TargetRules& rules) {
    const auto fields = fieldsOf(holding, BytePath(parentOf(within)), albums);
    auto parts = layout.namesFor(fields);
    Ordered ordered{holding.id, within, {}, {}};
    ordered.name.stem = std::move(parts.back());
    parts.pop_back();
    for (const auto& part : parts) {
        const auto fitted = fitName(rules, usualReplacements(), part, {});
        ordered.name.folder = joinPath(ordered.name.folder, fitted.name);
        if (!fitted.why.empty()) {
            ordered.folderAltered = fmt::format("of its folder \"{}\", {}", part, fitted.why);
        }
    }
    const auto file = nameOf(within);
    const auto stem = stemOf(file);
    ordered.name.ending = stem.size() < file.size() ? file.substr(stem.size() + 1) : std::string();
    ordered.name.disc = fields[LayoutField::disc];
    ordered.name.album = holding.tags.album;
    ordered.name.year = fields[LayoutField::year];
    return ordered;
}

/// Those that lie where they shall come first, so that of several with one name these keep it: what is in
/// order stays as it is.
std::vector<Ordered> inPlaceFirst(std::span<const Holding> holdings, const BytePath& root,
                                  const Volume& volume, const Layout& layout, const Albums& albums,
                                  const TargetRules& rules) {
    std::vector<Ordered> all;
    for (const auto& holding : holdings) {
        const auto within = relativeTo(joinPath(volume.root, holding.path), root).value_or(holding.path);
        all.push_back(orderedBy(holding, within, layout, albums, rules));
    }
    std::ranges::stable_partition(all, [&](const Ordered& ordered) {
        const auto& name = ordered.name;
        return joinPath(name.folder, fitName(rules, usualReplacements(), name.stem, name.ending).name) ==
               ordered.within;
    });
    return all;
}

} // namespace

Result<std::vector<Reordered>> reorder(const Catalogue& catalogue, const BytePath& folder,
                                       const Layout& layout) {
    const auto volumes = Volumes(catalogue).all();
    if (!volumes) {
        return volumes.error();
    }
    const auto root = realPathOf(folder).value_or(folder);
    const auto volume = volumeHolding(*volumes, root);
    if (!volume) {
        return volume.error();
    }
    HoldingFilter filter;
    filter.volume = (*volume)->id;
    filter.folder = relativeTo(root, (*volume)->root).value_or(BytePath());
    const auto ids = EvidenceStore(catalogue).meant(filter);
    const auto holdings = ids ? Holdings(catalogue).byIds(*ids) : Result<std::vector<Holding>>(ids.error());
    if (!holdings) {
        return holdings.error();
    }
    if (holdings->empty()) {
        return Error{Cause::notFound, folder, "Nothing in " + displayPath(folder) + " is in the catalogue."};
    }
    Albums albums;
    for (const auto& holding : *holdings) {
        albums.add(holding);
    }
    const auto& rules = targetRulesFor((*volume)->identity.filesystemType);
    std::vector<TargetName> names;
    std::vector<Reordered> moves;
    std::unordered_set<BytePath> sources;
    for (const auto& holding : inPlaceFirst(*holdings, root, **volume, layout, albums, rules)) {
        names.push_back(holding.name);
        moves.push_back({holding.id, joinPath(root, holding.within), {}, holding.folderAltered});
        sources.insert(holding.within);
    }
    fitAll(rules, usualReplacements(), names,
           [&](const BytePath& path) { return !sources.contains(path) && isTaken(joinPath(root, path)); });
    for (std::size_t at = 0; at < names.size(); ++at) {
        moves[at].to = joinPath(root, pathOf(names[at]));
        moves[at].altered = names[at].fitted.why.empty() ? moves[at].altered : names[at].fitted.why;
    }
    std::erase_if(moves, [](const Reordered& move) { return move.to == move.from; });
    return moves;
}

} // namespace sober
