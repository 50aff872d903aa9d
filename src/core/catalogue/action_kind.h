#pragma once

#include <array>
#include <optional>
#include <string_view>

namespace sober {

/// What a docket can tell to be done, and what the ledger says was done.
enum class ActionKind {
    retire,       ///< a holding goes to the trash
    writeOff,     ///< what is missing is not missed; nothing on a volume changes
    accept,       ///< a recording is kept as it is, whatever its evidence says
    acceptChange, ///< a holding's content as it is now is what it should be
    restore,      ///< what was recorded of a drifted or missing holding is put back from a healthy copy
    repair,       ///< the same, put together from copies whose damage lies in different blocks
    rewrite,      ///< an MP3 or Ogg file is made anew without the bytes that are neither audio nor tags
    retag,        ///< fields that other copies know are written into the tags, the audio data untouched
    repoint,      ///< every reference that leads to a place leads to another; in the ledger: a list changed
    move,         ///< a holding goes to another place on its file system
    bringBack,    ///< in the ledger alone: a missing holding was restored, nothing had to be set aside
    copy,         ///< a holding's bytes are put at another place too
    encode,       ///< a holding is put at another place in another form; the action's `change` says which
    writeList,    ///< a list is written where nothing stood, by a transfer
    replaceList,  ///< one takes the place of what an earlier transfer has written
    salvage,      ///< what was found in an image or a trash is put at a place; `change` says where it lies
    discard,      ///< what lies in the trash and is held elsewhere leaves it for good
    rip,          ///< a file that was made of a disc is put at a place; `change` says where it waits
    replace,      ///< a better file of its recording takes a holding's place; `change` says which
    clearFolder,  ///< a folder that a transfer has left without a file goes to the trash
};

inline constexpr std::array everyKind{
    ActionKind::retire,  ActionKind::writeOff,  ActionKind::accept,      ActionKind::acceptChange,
    ActionKind::restore, ActionKind::repair,    ActionKind::rewrite,     ActionKind::retag,
    ActionKind::repoint, ActionKind::move,      ActionKind::bringBack,   ActionKind::copy,
    ActionKind::encode,  ActionKind::writeList, ActionKind::replaceList, ActionKind::salvage,
    ActionKind::discard, ActionKind::rip,       ActionKind::replace,     ActionKind::clearFolder};

/// The word that stands for it in the catalogue, the command and the windows.
std::string_view word(ActionKind kind);
/// Nothing for a word that stands for none.
std::optional<ActionKind> actionKindOf(std::string_view word);
/// What was done, after "had been" or "was not … yet".
std::string_view pastOf(ActionKind kind);
/// Its event in the vocabulary of PREMIS (id.loc.gov/vocabulary/preservation/eventType).
std::string_view premisEventOf(ActionKind kind);

/// Whether a kind puts back what was recorded.
inline bool isMended(ActionKind kind) {
    return kind == ActionKind::restore || kind == ActionKind::repair;
}

/// Whether a kind writes a transfer's list.
inline bool isOwnList(ActionKind kind) {
    return kind == ActionKind::writeList || kind == ActionKind::replaceList;
}
/// Whether a kind is about a place where something comes to stand, and no holding is known yet.
inline bool isAboutNewPlace(ActionKind kind) {
    return isOwnList(kind) || kind == ActionKind::salvage || kind == ActionKind::rip;
}
/// Whether a kind is about what is no holding.
inline bool isAboutNoHolding(ActionKind kind) {
    return isAboutNewPlace(kind) || kind == ActionKind::discard || kind == ActionKind::clearFolder;
}
/// Whether a kind is a transfer's alone: never asked for on the docket.
inline bool isTransfers(ActionKind kind) {
    return isOwnList(kind) || kind == ActionKind::encode || kind == ActionKind::clearFolder;
}
/// Whether a kind puts a holding at another place.
inline bool isPlaced(ActionKind kind) {
    return kind == ActionKind::move || kind == ActionKind::copy;
}
/// Whether it has to be said where to.
inline bool needsTarget(ActionKind kind) {
    return isPlaced(kind) || kind == ActionKind::repoint || kind == ActionKind::replace;
}

} // namespace sober
