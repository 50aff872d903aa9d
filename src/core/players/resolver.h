#pragma once

#include "core/catalogue/player_store.h"
#include "core/players/location.h"

#include <unordered_map>

namespace sober {

/// What a location leads to on this machine now.
struct Resolution {
    ReferenceState state = ReferenceState::broken;
    BytePath path;    ///< absolute, links resolved; of a broken one where the file would be, for a link too
    BytePath instead; ///< a file that is there under nearly that name; "" for none
};

/// How a list's locations are to be read: the mapping of the player that has one.
struct ListContext {
    BytePath folder; ///< absolute, of the list
    bool asUri = false;
    BytePath writtenPrefix;
    BytePath standsFor;
    bool isLatin1 = false; ///< its text is no UTF-8: letters beyond ASCII are written in ISO 8859-1
};

/// Looks where locations lead. What was learnt of folders is kept, so that a hundred thousand entries cost
/// little more than a stat each; to be made anew for every reading.
class Resolver {
  public:
    explicit Resolver(std::vector<Volume> volumes) : volumes_(std::move(volumes)) {}

    Resolution resolve(std::string_view location, const ListContext& context);
    /// Every place that counts as where a location leads, whether or not anything is there: the likeliest
    /// first.
    std::vector<BytePath> placesOf(std::string_view location, const ListContext& context);
    /// The path with links resolved as far as it exists.
    BytePath canonical(const BytePath& path);
    /// The one file that is there under this path but for letter case or normalisation; "" for none.
    BytePath nearly(const BytePath& path);

  private:
    struct Folder {
        BytePath real;  ///< "" where it does not exist
        BytePath would; ///< as far as it exists links resolved
        bool ignoresCase = false;
        bool listed = false;
        std::unordered_map<std::string, std::vector<std::string>> names; ///< by folded name
    };
    Folder& folder(const BytePath& path);
    /// Of a link that leads to nothing: where that would be.
    std::optional<BytePath> whereLinkLeads(const BytePath& link);
    const std::vector<std::string>* namesLike(Folder& folder, std::string_view name);
    bool isOnAway(const BytePath& path) const;

    std::vector<Volume> volumes_;
    std::unordered_map<BytePath, Folder> folders_;
    std::unordered_map<BytePath, BytePath> nearFolders_;
};

/// The readings of a location with a player's mapping applied, most likely first.
LocationMeaning mappedMeaning(std::string_view location, const ListContext& context);

} // namespace sober
