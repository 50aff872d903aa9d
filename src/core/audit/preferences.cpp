#include "core/audit/preferences.h"

#include "core/audit/name_score.h"
#include "core/base/text.h"

#include <fmt/format.h>

#include <algorithm>

namespace sober {
namespace {

bool liesBelow(const BytePath& path, std::string_view folder) {
    const auto first = folder.find_first_not_of('/');
    if (first == std::string_view::npos) {
        return false;
    }
    folder = folder.substr(first, folder.find_last_not_of('/') + 1 - first);
    return fmt::format("/{}/", parentOf(path)).find(fmt::format("/{}/", folder)) != std::string::npos;
}

template <typename Value>
int lessFirst(const Value& a, const Value& b) {
    return a < b ? -1 : (b < a ? 1 : 0);
}

} // namespace

bool meets(const Preference& preference, const Holding& holding) {
    switch (preference.kind) {
    case PreferenceKind::onVolume:
        return holding.volume == preference.volume;
    case PreferenceKind::inFolder:
        return liesBelow(holding.path, preference.folder);
    default:
        return true;
    }
}

int compareBy(const Preference& preference, const Holding& a, const Holding& b) {
    switch (preference.kind) {
    case PreferenceKind::onVolume:
    case PreferenceKind::inFolder:
        return lessFirst(!meets(preference, a), !meets(preference, b));
    case PreferenceKind::betterNamed:
        return lessFirst(nameScore(b), nameScore(a));
    case PreferenceKind::moreTags:
        return lessFirst(b.tags.filled(), a.tags.filled());
    case PreferenceKind::older:
        return lessFirst(a.mtime, b.mtime);
    case PreferenceKind::newer:
        return lessFirst(b.mtime, a.mtime);
    case PreferenceKind::smaller:
        return lessFirst(a.size, b.size);
    }
    return 0;
}

int compareBy(const Policy& policy, const Holding& a, const Holding& b) {
    for (const auto& preference : policy.preferences) {
        if (const int told = compareBy(preference, a, b); told != 0) {
            return told;
        }
    }
    return 0;
}

std::string preferenceWords(const Preference& preference, std::span<const Volume> volumes) {
    switch (preference.kind) {
    case PreferenceKind::onVolume: {
        const auto volume = std::ranges::find(volumes, preference.volume, &Volume::id);
        return volume != volumes.end() ? "the copy on " + volume->label
                                       : "the copy on a volume that is no longer known";
    }
    case PreferenceKind::inFolder:
        return "the copy below the folder " + preference.folder;
    case PreferenceKind::betterNamed:
        return "the better-named copy";
    case PreferenceKind::moreTags:
        return "the copy with more tags";
    case PreferenceKind::older:
        return "the copy written first";
    case PreferenceKind::newer:
        return "the copy written last";
    case PreferenceKind::smaller:
        break;
    }
    return "the smaller file";
}

} // namespace sober
