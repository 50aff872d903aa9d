#pragma once

#include "core/base/run_control.h"
#include "core/catalogue/ledger_store.h"
#include "core/evidence/file_pass.h"
#include "core/remedy/actions/list_places.h"
#include "core/remedy/actions/planned_action.h"
#include "core/remedy/actions/proving.h"

#include <span>
#include <unordered_set>

namespace sober {

class EvidenceWorker;

/// A change on a volume that is either there or not there. The ledger's action says where (ledger_store.h).
/// Lists have one of their own: they and what was made for them exchange names (journal/list_change.h).
enum class Step {
    note,     ///< the trash's note about a file is written
    make,     ///< what is to stand at the place is made beside it, under a name of ours, and read back
    setAside, ///< the file goes from its place to the trash
    place,    ///< what was made goes to the place
    move,     ///< the file goes from its place to another, which the action calls `made`
    discard,  ///< what lies in a trash goes for good, and the note about it; never taken back
};

enum class Way {
    forth,
    back,
};

struct Leg {
    Step step;
    Way way;
};

/// When the references to a file are led elsewhere.
enum class References {
    stay,
    beforeItGoes, ///< to what stays
    afterItWent,  ///< to where it is
};

/// Why something will not be carried out; nothing where it will be.
using Refusal = std::optional<std::string>;

/// What a review holds an action against: the catalogue and the rest of the docket.
struct ReviewContext {
    const Catalogue& catalogue;
    const std::vector<Volume>& volumes;
    const PlayerShelf& shelf;
    std::unordered_set<HoldingId> toRetire;
    std::unordered_set<BytePath> moveTargets; ///< that were given away already
    std::unordered_set<BytePath> freed;       ///< places from which something moves before
};

/// What an action is done with.
struct DoingContext {
    Catalogue& catalogue;
    RunControl& control;
    const std::vector<Volume>& volumes;
    Prover& prover;
    EvidenceWorker& worker; ///< one for all: to start a process takes as long as to examine a small file
    /// Hears how many bytes went by, and of which file.
    std::function<void(std::uint64_t, const BytePath&)> onBytes;
};

/// A kind of action: everything that is its own. What all have in common (order, batches, taking back,
/// recovery, the ledger) is the journal's.
struct ActionType {
    int turn = 0; ///< those of a lower turn are carried out first
    /// The changes on the volume, in their order, and those by which it is taken back.
    std::span<const Leg> forth;
    std::span<const Leg> back;
    References references = References::stay;
    HoldingState after = HoldingState::present; ///< of the holding, once it is carried out
    HoldingState before = HoldingState::present;

    /// From the catalogue alone, for the review. May take down in the plan what it found.
    Result<Refusal> (*whyNot)(ReviewContext& context, PlannedAction& planned, const Volume& volume) = nullptr;
    /// From the disk, just before. May complete the ledger's action by what it found.
    Result<Proven> (*prove)(DoingContext& context, const PlannedAction& planned,
                            LedgerAction& action) = nullptr;
    /// Whether what stands at a path is what it is about, or may go; Cause::changed where it is not. Of a
    /// kind that has none: by the checksum.
    Outcome (*holds)(const BytePath& path) = nullptr;
    /// What it needs in the catalogue before it is written down, in the same transaction. May complete the
    /// actions by that.
    Outcome (*layOut)(Catalogue& catalogue, std::span<LedgerAction* const> actions) = nullptr;
    /// Makes what is to stand at the place, at the action's `made`, and, unless many are made together, reads
    /// it back.
    Result<FileRecord> (*make)(DoingContext& context, const PlannedAction& planned,
                               const LedgerAction& action) = nullptr;
    /// Many are made one after another, flushed at once, and read back from the medium, to be block by block
    /// what was made.
    bool madeTogether = false;
    /// Several at a time, each on a processor of its own: `make` then leaves the catalogue and the
    /// worker alone.
    bool madeBesideEachOther = false;
    /// What the catalogue is to say beside the states above, in the transaction that says it is done.
    Outcome (*record)(Catalogue& catalogue, const PlannedAction& planned) = nullptr;
    Outcome (*withdraw)(Catalogue& catalogue, const LedgerAction& action) = nullptr;
    /// Instead of what `make` has read of it: says what stands at the places now, known from elsewhere.
    Outcome (*takeIn)(Catalogue& catalogue, std::span<const LedgerAction* const> actions) = nullptr;

    bool isMade() const { return make != nullptr; }
    /// One after another, because each is made and read back; else many at once.
    bool isMadeAlone() const { return isMade() && !madeTogether; }
    /// Something comes to stand where nothing stood; taken back, it goes to the trash.
    bool adds() const { return !back.empty() && back.front().way == Way::forth; }
    bool changesVolume() const { return !forth.empty(); }
};

/// The table of kinds.
const ActionType& typeOf(ActionKind kind);

} // namespace sober
