#include "core/players/list_rewriting.h"

#include "core/base/text.h"

#include <algorithm>

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
        if (path.starts_with('#') || path.front() == ' ') {
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
    return path;
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
                                    const NewPlaces& newPlaces) {
    RewrittenList rewritten;
    std::vector<NewLocation> locations;
    for (std::size_t i = 0; i < read.playlist.entries.size(); ++i) {
        const auto& entry = read.playlist.entries[i];
        const auto resolution = resolver.resolve(entry.location, context);
        if (resolution.state == ReferenceState::stream) {
            continue;
        }
        const bool loosely = resolution.state == ReferenceState::loosely;
        auto found = newPlaces.find(resolution.path);
        if (found == newPlaces.end() && loosely) {
            found = newPlaces.find(resolution.instead);
        }
        const auto& place = found != newPlaces.end() ? found->first : resolution.path;
        if (found == newPlaces.end() || (found->second == place && !loosely)) {
            continue;
        }
        const auto& target = found->second;
        auto location = locationLeadingTo(target, place, entry.location, list, context, volumes);
        const bool cannotStand = location && !canStandIn(read.playlist.format, *location);
        if (cannotStand) {
            location = cannotReach(target, " has a name that cannot stand in " +
                                               displayPath(nameOf(list.path)) + ".");
        }
        if (location && isTaken(target) && resolver.resolve(*location, context).path != target) {
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
    if (!text) {
        return text.error();
    }
    std::size_t line = 1;
    std::size_t at = 0;
    std::vector<std::size_t> order(rewritten.changes.size());
    for (std::size_t i = 0; i < order.size(); ++i) {
        order[i] = i;
    }
    std::ranges::sort(
        order, {}, [&](std::size_t i) { return read.playlist.entries[rewritten.changes[i].entry].begins; });
    for (const auto i : order) {
        const auto begins = read.playlist.entries[rewritten.changes[i].entry].begins;
        line += static_cast<std::size_t>(std::count(read.text.begin() + static_cast<std::ptrdiff_t>(at),
                                                    read.text.begin() + static_cast<std::ptrdiff_t>(begins),
                                                    '\n'));
        at = begins;
        rewritten.changes[i].line = line;
    }
    rewritten.text = std::move(*text);
    return rewritten;
}

} // namespace sober
