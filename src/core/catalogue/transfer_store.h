#pragma once

#include "core/catalogue/catalogue.h"
#include "core/catalogue/records.h"

#include <span>

namespace sober {

using TransferId = std::int64_t;

enum class TransferState {
    planned = 0,
    running = 1, ///< begun, and not at its end
    copied = 2,  ///< everything stands at its new place
    proven = 3,
    released = 4, ///< the old has gone
};

enum class TransferMode {
    copy = 0,    ///< the old stays
    reorder = 1, ///< in place, by renames
    steps = 2,   ///< what is proven at its new place lets go of its old one
};

/// As the command prints and takes them.
std::string_view word(TransferState state);
std::string_view word(TransferMode mode);
std::optional<TransferMode> transferModeOf(std::string_view word);

/// How far one item has come.
enum class ItemState {
    waits = 0,
    copied = 1,
    there = 2, ///< it stood there before
    failed = 3,
};
std::string_view word(ItemState state);

/// One holding on its way to a new place.
struct TransferItem {
    HoldingId source = 0;
    Checksum128 content; ///< of the holding, when it was planned
    BytePath target;     ///< relative to the transfer's folder
    std::uint64_t bytes = 0;
    std::string altered; ///< why its name, or a folder's, is not what the layout says; "" where it is
    std::string form;    ///< in which it is encoded; "": as it is
    ItemState state = ItemState::waits;
    std::string error; ///< why it failed, in a sentence
};

/// Why something that was chosen does not come.
enum class LeftBehind {
    away = 0, ///< its volume is not at hand
    missing = 1,
    stream = 2,        ///< no local file
    notCatalogued = 3, ///< its file is on no volume
    tooLarge = 4,      ///< for the target's file system
    unsound = 5,       ///< what is to be encoded does not decode
    otherVolume = 6,   ///< of a reorder in place: it lies elsewhere
    tooMany = 7,       ///< its folder would hold more names than the target's file system can
    insideArchive = 8,
    pathTooLong = 9, ///< for the player that is to read it
};
std::string_view word(LeftBehind why);
/// "its volume is away", after the name of what does not come.
std::string_view sentenceOf(LeftBehind why);

struct NotComing {
    BytePath reference; ///< as the list writes it, or where the holding is
    LeftBehind why = LeftBehind::missing;
};

/// A list that is written at the target.
struct TransferList {
    BytePath source; ///< absolute; "" for those that a transfer makes of its own
    BytePath target; ///< relative to the transfer's folder
    std::uint64_t entries = 0;
    std::uint64_t coming = 0; ///< of those
    std::string content;
    BytePath prefix =
        {}; ///< what its absolute locations begin with, for the transfer's folder; "": as it is here
    std::optional<Checksum128> sourceContent = {}; ///< what the source was when it was planned
    std::optional<Checksum128> written = {};       ///< of what stands there since
};

struct Transfer {
    TransferId id = 0;
    Nanoseconds made = 0;
    TransferState state = TransferState::planned;
    TransferMode mode = TransferMode::copy;
    VolumeId volume = 0; ///< 0: the folder is on none yet
    BytePath folder;     ///< absolute, where it is now
    std::string rules;   ///< "fat32"
    std::string layout;
    std::string choice; ///< what comes along, in words
    std::uint64_t inNoList = 0;
    std::uint64_t needs = 0; ///< bytes
    std::uint64_t peak = 0;  ///< bytes, at the fullest moment
    std::uint64_t free = 0;  ///< bytes at the target, when it was planned, or unknownRoom
    /// What tells the file system of its folder from others, while it is on no volume: an empty mount point
    /// is no target.
    std::string filesystem;
    Nanoseconds proven = 0; ///< 0: never
    BytePath report = {};   ///< the folder of the last proof

    /// In place of `filesystem`: of a device that is not here and was described. It is planned for, and not
    /// run.
    static constexpr const char* byHand = "described by hand";

    bool fits() const { return peak <= free; }
    bool isByHand() const { return filesystem == byHand; }
};

/// Transfers as they were planned, and how far they have come.
class TransferStore {
  public:
    explicit TransferStore(const Catalogue& catalogue) : catalogue_(catalogue) {}

    /// Takes a new one in, all or nothing; its id.
    Result<TransferId> add(const Transfer& transfer, std::span<const TransferItem> items,
                           std::span<const NotComing> left, std::span<const TransferList> lists) const;
    /// Newest first.
    Result<std::vector<Transfer>> all() const;
    /// Cause::notFound where there is none of that number.
    Result<Transfer> of(TransferId id) const;
    /// In the order of the plan.
    Result<std::vector<TransferItem>> items(TransferId id) const;
    Result<std::vector<NotComing>> left(TransferId id) const;
    Result<std::vector<TransferList>> lists(TransferId id) const;

    /// What is catalogued at the items' places now, by its content.
    Result<std::vector<std::optional<Checksum128>>> standing(const Transfer& transfer,
                                                             std::span<const TransferItem> items) const;
    /// Writes the state, the volume (its folder goes with it), the proof and the report.
    Outcome update(const Transfer& transfer) const;
    /// Marks items by their place in the plan.
    struct ItemMark {
        std::size_t item = 0;
        ItemState state = ItemState::waits;
        std::string error = {};
    };
    Outcome mark(TransferId id, std::span<const ItemMark> marks) const;
    /// Where a list stands now, and what it is; in the order of `lists`.
    Outcome keepList(TransferId id, std::size_t number, const BytePath& target,
                     const Checksum128& written) const;
    /// Whether a transfer has written this very list at a place (absolute).
    Result<bool> hasWritten(const BytePath& list, const Checksum128& content) const;
    /// Forgets one; nothing on a volume changes.
    Outcome remove(TransferId id) const;

  private:
    const Catalogue& catalogue_;
};

} // namespace sober
