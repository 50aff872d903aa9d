#include "core/transfer/filing.h"

#include "core/base/text.h"

#include <fmt/format.h>

namespace sober {

Filing::Filing(std::span<const Holding> holdings) {
    for (const auto& holding : holdings) {
        add(holding);
    }
}

void Filing::add(const Holding& holding) {
    if (!holding.tags.album.empty()) {
        discs_[byArtist(holding)].insert(numberOf(holding.filing.disc, 0));
        artists_[byFolder(holding)].insert(foldedName(holding.tags.artist));
    }
}

bool Filing::hasDiscs(const Holding& holding) const {
    const auto discs = discs_.find(byArtist(holding));
    return discs != discs_.end() && discs->second.size() > 1;
}

/// It names no artist of its own, and those of its files differ.
bool Filing::isOfSeveral(const Holding& holding) const {
    const auto artists = artists_.find(byFolder(holding));
    return holding.filing.albumArtist.empty() && artists != artists_.end() && artists->second.size() > 1;
}

/// Discs of one album may lie in folders of their own; artists of one album lie together.
Filing::Key Filing::byArtist(const Holding& holding) {
    const auto& artist = holding.filing.albumArtist;
    return {foldedName(holding.tags.album), foldedName(artist.empty() ? holding.tags.artist : artist)};
}

Filing::Key Filing::byFolder(const Holding& holding) {
    return {foldedName(holding.tags.album), std::string(parentOf(holding.path))};
}

LayoutFields Filing::fieldsOf(const Holding& holding, const BytePath& folders) const {
    const auto& [title, artist, albumTitle, track, date] = holding.tags;
    LayoutFields fields;
    fields[LayoutField::albumArtist] = isOfSeveral(holding) ? "Various Artists" : holding.filing.albumArtist;
    fields[LayoutField::artist] = artist;
    fields[LayoutField::album] = albumTitle;
    fields[LayoutField::disc] = hasDiscs(holding) ? holding.filing.disc : std::string();
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

FiledName Filing::nameFor(const Holding& holding, const BytePath& within, const Layout& layout,
                          const TargetRules& rules, const NameReplacements& replacements) const {
    const auto fields = fieldsOf(holding, BytePath(parentOf(within)));
    auto parts = layout.namesFor(fields);
    FiledName filed;
    filed.name.stem = std::move(parts.back());
    parts.pop_back();
    for (const auto& part : parts) {
        const auto fitted = fitName(rules, replacements, part, {});
        filed.name.folder = joinPath(filed.name.folder, fitted.name);
        if (!fitted.why.empty()) {
            filed.folderAltered = fmt::format("of its folder \"{}\", {}", part, fitted.why);
        }
    }
    const auto file = nameOf(within);
    const auto stem = stemOf(file);
    filed.name.ending = stem.size() < file.size() ? file.substr(stem.size() + 1) : std::string();
    filed.name.disc = fields[LayoutField::disc];
    filed.name.album = holding.tags.album;
    filed.name.year = fields[LayoutField::year];
    return filed;
}

} // namespace sober
