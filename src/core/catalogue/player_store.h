#pragma once

#include "core/catalogue/catalogue.h"
#include "core/catalogue/records.h"

#include <span>

namespace sober {

using PlayerId = std::int64_t;
using ListFileId = std::int64_t;

/// A program or device with lists of its own, and how it writes locations.
struct Player {
    PlayerId id = 0;
    std::string name;
    std::vector<BytePath> places; ///< absolute: its lists, or folders that hold them
    bool ignoresCase = false;     ///< it finds files under names that differ in letter case only
    /// What absolute locations begin with where it runs ("C:/Music", or "/" of a device), and the folder here
    /// that this stands for; both "" where it writes paths as they are here.
    BytePath writtenPrefix = {};
    BytePath standsFor = {};
};

/// One list, perhaps of several players.
struct ListFile {
    ListFileId id = 0;
    BytePath path;       ///< absolute
    FileStamp stamp;     ///< as it was read; device and links are not kept
    bool asUri = false;  ///< its format writes URIs
    bool away = false;   ///< on a volume that is not at hand: what is known of it stays
    std::string problem; ///< why it could not be read
    std::vector<PlayerId> players;
};

enum class ReferenceState {
    resolved = 0,
    loosely = 1, ///< only by ignoring letter case, normalisation or percent signs: works here, breaks there
    broken = 2,
    stream = 3, ///< no local file
    away = 4,   ///< into a volume that is away: nothing can be said
};

/// One entry of a list.
struct Reference {
    ListFileId list = 0;
    std::size_t entry = 0; ///< its place in the list
    std::string location;  ///< as the list writes it
    std::string title;     ///< what the list says of it; "" and negative where it does not
    std::string artist;
    std::string album;
    double seconds = -1;
    ReferenceState state = ReferenceState::broken;
    BytePath path;         ///< absolute: the file that it leads to; of a broken one where it would be
    HoldingId holding = 0; ///< that it leads to, or led to when it last did; 0: none that is catalogued
    std::optional<Checksum128> content; ///< of that holding, then

    bool operator==(const Reference&) const = default;
};

/// What is counted of one player.
struct PlayerFigures {
    PlayerId player = 0;
    std::uint64_t lists = 0;
    std::uint64_t references = 0; ///< to files: without streams and what is written off
    std::uint64_t resolved = 0;
    std::uint64_t broken = 0;
    std::uint64_t loosely = 0; ///< a part of the resolved where the player ignores case, else of the broken
    std::uint64_t away = 0;
    std::uint64_t streams = 0;
    std::uint64_t writtenOff = 0; ///< broken, and not missed
};

/// The players, their lists and what these point at, as last read.
class PlayerStore {
  public:
    explicit PlayerStore(const Catalogue& catalogue) : catalogue_(catalogue) {}

    /// By name. Places and lists on a volume are where the volume is now.
    Result<std::vector<Player>> all() const;
    /// A name in use already gets a number. Places within a volume go with the volume.
    Result<Player> add(Player player) const;
    Outcome update(const Player& player) const;
    /// Forgets a player and the lists that are of no other.
    Outcome remove(PlayerId player) const;

    Result<std::vector<ListFile>> lists() const;
    /// Writes a list's stamp and problem, takes it in where it is new, and makes it the player's.
    Result<ListFileId> keepList(const ListFile& list, PlayerId player) const;
    /// A player's lists that are there no more.
    Outcome forgetLists(PlayerId player, std::span<const ListFileId> lists) const;

    /// Of one list or, 0, of all, by list and entry.
    Result<std::vector<Reference>> references(ListFileId list = 0) const;
    /// Those that lead nowhere or only loosely, by list and entry.
    Result<std::vector<Reference>> unresolved() const;
    /// How many there are besides these, without streams: that lead to a file, and into what is away.
    struct Settled {
        std::uint64_t resolved = 0;
        std::uint64_t away = 0;
    };
    Result<Settled> settled() const;
    /// Those of some lists that lead to one of these places, or to one of these holdings.
    Result<std::vector<Reference>> leadingTo(std::span<const BytePath> places) const;
    Result<std::vector<Reference>> leadingTo(std::span<const HoldingId> holdings) const;
    /// The lists that lead to a holding, or led to it when it was last there; absolute, by path.
    Result<std::vector<BytePath>> listsNaming(HoldingId holding) const;
    /// A list was read: its stamp, and that it holds `count` entries now, of which these are others than
    /// before, all or nothing. Those that lead to a holding are tied to it.
    Result<ListFileId> keepRead(const ListFile& list, PlayerId player, std::vector<Reference> changed,
                                std::size_t count) const;
    /// Writes state and path of references of a list that have changed, then ties all of that list that lead
    /// to a holding to it.
    Outcome settle(ListFileId list, std::span<const Reference> changed) const;

    /// In the order of `all`.
    Result<std::vector<PlayerFigures>> figures() const;
    /// References that lead nowhere and are missed.
    Result<std::uint64_t> broken() const;
    /// Present holdings on volumes at hand that no list points at.
    Result<std::vector<HoldingId>> inNoList() const;

    Result<std::vector<BytePath>> writtenOff() const;
    /// Shell patterns of places that do not last, held against whole paths, case ignored.
    Result<std::vector<std::string>> passingPlaces() const;
    Outcome setPassingPlaces(std::span<const std::string> patterns) const;

  private:
    const Catalogue& catalogue_;
};

} // namespace sober
