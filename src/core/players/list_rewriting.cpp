#include "core/players/list_rewriting.h"

#include "core/base/text.h"

#include <algorithm>
#include <numeric>
#include <unordered_map>

namespace sober {
namespace {

BytePath relativeFrom(const BytePath& folder, const BytePath& target) {
    BytePath above = folder;
    BytePath ups;
    while (!isWithin(target, above) && above.size() > 1) {
        above = BytePath(parentOf(above));
        ups += "../";
    }
    return ups + relativeTo(target, above).value_or(target);
}

/// RFC 3986: a relative reference whose first segment holds a colon would be taken for a scheme.
std::string relativeUri(const BytePath& relative) {
    auto uri = fileUriOf(relative).substr(std::string_view("file://").size());
    return uri.substr(0, uri.find('/')).find(':') != std::string::npos ? "./" + uri : uri;
}

bool hasBackslashes(std::string_view was) {
    return was.find('\\') != std::string_view::npos && was.find('/') == std::string_view::npos;
}

Error cannotReach(const BytePath& target, std::string_view why) {
    std::string sentence = displayPath(target);
    sentence += why;
    return {Cause::refused, target, std::move(sentence)};
}

const Volume* volumeAround(std::span<const Volume> volumes, const BytePath& path) {
    const Volume* best = nullptr;
    for (const auto& volume : volumes) {
        if (isWithin(path, volume.root) && (best == nullptr || volume.root.size() > best->root.size())) {
            best = &volume;
        }
    }
    return best;
}

/// A relative path that would be taken for something else at the beginning of a line: a comment, a drive or
/// scheme, the mark of an encoding, folders parted by backslashes.
bool wouldMislead(const BytePath& path) {
    const auto segment = path.substr(0, path.find('/'));
    return path.starts_with('#') || path.starts_with(' ') || path.starts_with('\t') ||
           path.starts_with("\xEF\xBB\xBF") || segment.find_first_of(":\\") != BytePath::npos;
}

/// Where the places that things have left are looked up by what a list writes: as it is, else but for letter
/// case and normalisation where that leaves one.
class PlacesLeft {
  public:
    explicit PlacesLeft(const NewPlaces& places) : places_(places) {}

    NewPlaces::const_iterator find(std::span<const BytePath> readings) const {
        for (const auto& reading : readings) {
            if (const auto exact = places_.find(reading); exact != places_.end()) {
                return exact;
            }
        }
        if (folded_.empty() && !places_.empty()) {
            for (auto place = places_.begin(); place != places_.end(); ++place) {
                const auto [known, isNew] = folded_.emplace(foldedName(place->first), place);
                known->second = isNew ? place : places_.end();
            }
        }
        for (const auto& reading : readings) {
            const auto near = folded_.find(foldedName(reading));
            if (near != folded_.end() && near->second != places_.end()) {
                return near->second;
            }
        }
        return places_.end();
    }

  private:
    const NewPlaces& places_;
    mutable std::unordered_map<std::string, NewPlaces::const_iterator> folded_;
};

/// A location that leads to `target`, written the way `was` is.
Result<std::string> writtenAs(const BytePath& target, std::string_view was, const ListContext& context) {
    const auto meaning = meaningOf(was, context.asUri, context.folder);
    const bool isUri = lowerAscii(was.substr(0, 5)) == "file:";
    BytePath path = target;
    if (meaning.relative) {
        path = relativeFrom(realPathOf(context.folder).value_or(context.folder), target);
        if (context.asUri) {
            return relativeUri(path);
        }
        if (wouldMislead(path)) {
            path.insert(0, "./");
        }
    } else if (!context.writtenPrefix.empty()) {
        const auto rest = relativeTo(target, context.standsFor);
        if (!rest) {
            return cannotReach(target, " lies where this player does not look: outside of " +
                                           displayPath(context.standsFor) + ".");
        }
        path = joinPath(context.writtenPrefix, *rest);
    }
    if (isUri || context.asUri) {
        return fileUriOf(path.starts_with('/') ? path : joinPath("/", path));
    }
    const bool staysForeign = meaning.kind == LocationKind::file || !context.writtenPrefix.empty();
    if (hasBackslashes(was) && staysForeign) {
        std::ranges::replace(path, '/', '\\');
    }
    const bool wasAscii =
        std::ranges::all_of(was, [](char c) { return static_cast<unsigned char>(c) < 0x80; });
    if (!isUtf8(was) || (context.isLatin1 && wasAscii)) {
        auto letters = asLatin1(path);
        return letters
                   ? Result<std::string>(std::move(*letters))
                   : cannotReach(target,
                                 " has letters that cannot be written in its list, which is in ISO 8859-1.");
    }
    return path;
}

std::vector<std::size_t> allOf(std::size_t count) {
    std::vector<std::size_t> all(count);
    std::iota(all.begin(), all.end(), 0);
    return all;
}

} // namespace

Result<std::string> locationLeadingTo(const BytePath& target, const BytePath& place, std::string_view was,
                                      const ListFile& list, const ListContext& context,
                                      std::span<const Volume> volumes) {
    const auto* own = volumeAround(volumes, list.path);
    const bool staysWithin = own != nullptr && isWithin(place, own->root) &&
                             meaningOf(was, context.asUri, context.folder).relative;
    if (staysWithin && !isWithin(target, own->root)) {
        return cannotReach(target, " is not on " + own->label + ", where " + displayPath(nameOf(list.path)) +
                                       " is used; its player would not find it.");
    }
    return writtenAs(target, was, context);
}

Result<RewrittenList> rewrittenList(const ListFile& list, const ReadList& read, const ListContext& context,
                                    Resolver& resolver, std::span<const Volume> volumes,
                                    const NewPlaces& newPlaces, const EntryIndex* index) {
    RewrittenList rewritten;
    std::vector<NewLocation> locations;
    auto own = context;
    own.isLatin1 = !context.asUri && !isUtf8(read.text);
    const PlacesLeft leftFrom(newPlaces);
    for (const auto i :
         index != nullptr ? index->mayLeadTo(newPlaces) : allOf(read.playlist.entries.size())) {
        const auto& entry = read.playlist.entries[i];
        const auto resolution = resolver.resolve(entry.location, own);
        if (resolution.state == ReferenceState::stream) {
            continue;
        }
        const bool loosely = resolution.state == ReferenceState::loosely;
        auto found = newPlaces.find(resolution.path);
        if (found == newPlaces.end() && loosely) {
            found = newPlaces.find(resolution.instead);
        }
        const bool isThere = loosely || resolution.state == ReferenceState::resolved;
        if (found == newPlaces.end() && !isThere) {
            found = leftFrom.find(resolver.placesOf(entry.location, own));
        }
        const auto& place = found != newPlaces.end() ? found->first : resolution.path;
        if (found == newPlaces.end() || (found->second == place && !loosely)) {
            continue;
        }
        const auto& target = found->second;
        auto location = locationLeadingTo(target, place, entry.location, list, own, volumes);
        const bool cannotStand = location && !canStandIn(read.playlist.format, *location);
        if (cannotStand) {
            location = cannotReach(target, " has a name that cannot stand in " +
                                               displayPath(nameOf(list.path)) + ".");
        }
        if (location && isTaken(target) && resolver.resolve(*location, own).path != target) {
            location = cannotReach(target, " cannot be written into " + displayPath(nameOf(list.path)) +
                                               " so that it is found again.");
        }
        if (!location) {
            rewritten.unreachable.push_back({place, location.error().sentence});
            continue;
        }
        rewritten.changes.push_back({i, 1, entry.location, *location});
        locations.push_back({i, std::move(*location)});
    }
    auto text = withLocations(read.text, read.playlist, locations);
    RETURN_IF_FAILED(text);
    const char lineEnd = read.text.find('\n') == std::string::npos ? '\r' : '\n';
    std::size_t line = 1;
    std::size_t at = 0;
    auto order = allOf(rewritten.changes.size());
    std::ranges::sort(
        order, {}, [&](std::size_t i) { return read.playlist.entries[rewritten.changes[i].entry].begins; });
    for (const auto i : order) {
        const auto begins = read.playlist.entries[rewritten.changes[i].entry].begins;
        line += static_cast<std::size_t>(std::count(read.text.begin() + static_cast<std::ptrdiff_t>(at),
                                                    read.text.begin() + static_cast<std::ptrdiff_t>(begins),
                                                    lineEnd));
        at = begins;
        rewritten.changes[i].line = line;
    }
    rewritten.text = std::move(*text);
    return rewritten;
}

} // namespace sober
