#pragma once

#include "core/audit/set_knowledge.h"
#include "core/catalogue/catalogue.h"
#include "core/catalogue/records.h"

#include <span>
#include <string>
#include <string_view>
#include <unordered_set>
#include <vector>

namespace sober {

/// What is no longer held where a holding goes and only a certain other of its recording stays, the gravest
/// last.
enum class Loss {
    none,
    quality,     ///< what stays sounds like a clearly lower rate
    passage,     ///< what goes is only a small part of what stays, and would not be held by itself
    genuineness, ///< what stays is doubtful or transcoded, what goes is not
    lossless,    ///< what stays went through a lossy encoder, what goes did not
    whole,       ///< what stays is shorter, or holds not all of it
    master,      ///< what stays is another master
};

/// The word that stands for it on the docket and in the ledger; "" for none.
std::string_view lossWord(Loss loss);
/// "no lossless copy of it would be left"; "" for none.
std::string_view lossWords(Loss loss);
/// The other way round: none for a word that is not known.
Loss lossFromWord(std::string_view word);

/// What is lost where one member of a set goes and another stays, by what was measured of this very pair;
/// nothing where it was not proven that one carries the other.
std::optional<Loss> lossBetween(const Holding& goes, std::size_t goesAt, const Holding& stays,
                                std::size_t staysAt, const SetKnowledge& known);

/// Whether all of a member that is a part is heard in another, by comparing these two.
bool isContained(std::size_t part, std::size_t whole, const SetKnowledge& known);
/// Whether a part is so short that it is a passage of the other rather than another copy.
bool isPassage(double partSeconds, double wholeSeconds);

/// One holding that carries the recording of another which goes.
struct Carrier {
    Holding holding;
    BytePath path; ///< absolute
    bool sameBytes = false;
    /// This very pair was compared; else it is known by a chain of lossy copies and has to be compared first.
    bool pairwise = true;
    Loss loss = Loss::none;
};

/// Whether what carries a recording with other bytes is wanted where a copy has its bytes: it costs more to
/// find.
enum class OtherBytes {
    whereNeeded,
    too,
};

/// What carries a holding's recording and stays: present, on a volume at hand, not `going` itself; where it
/// has not the same bytes, decoded without a fault and proven for this pair. The least loss first, same bytes
/// before others.
Result<std::vector<Carrier>> carriersOf(const Catalogue& catalogue, const Holding& goes,
                                        std::span<const Volume> volumes,
                                        const std::unordered_set<HoldingId>& going,
                                        OtherBytes others = OtherBytes::whereNeeded);

} // namespace sober
