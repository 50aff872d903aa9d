#pragma once

#include "core/base/run_control.h"
#include "core/catalogue/transfer_store.h"

namespace sober {

/// What a proof found of one file.
struct ProvenFile {
    BytePath path; ///< relative to the transfer's folder
    HoldingId source = 0;
    std::uint64_t bytes = 0;
    std::string sha256; ///< of what the medium gave; "" where it could not be read
    std::string wrong;  ///< a sentence; "" where it is what it has to be
};

/// What a proof found of one list.
struct ProvenList {
    BytePath source;           ///< absolute; "" for one of the transfer's own
    BytePath path;             ///< relative to the transfer's folder
    std::uint64_t before = 0;  ///< entries that the source had when it was planned
    std::uint64_t coming = 0;  ///< of those
    std::uint64_t entries = 0; ///< that it has now
    std::uint64_t playable = 0;
    std::vector<std::pair<std::string, std::string>> wrong; ///< by location: why it does not play
};

struct TransferProof {
    Transfer transfer;
    Nanoseconds time = 0;
    std::vector<ProvenFile> files;
    std::vector<ProvenList> lists;
    std::vector<NotComing> left;
    bool interrupted = false;

    std::uint64_t bytes() const;
    std::uint64_t entries() const;
    std::uint64_t playable() const;
    /// What is not as it has to be: the path, absolute, and a sentence.
    std::vector<std::pair<BytePath, std::string>> wrong() const;
    bool holds() const { return !interrupted && wrong().empty(); }
};

/// Reads every copy back from the medium and compares it with what was recorded, opens every list as its
/// player would, and decodes the beginning of what each entry leads to. Changes nothing. What cannot be read
/// is a part of what it found, and no Error.
Result<TransferProof> prove(const Catalogue& catalogue, const Transfer& transfer,
                            std::span<const TransferItem> items, RunControl& control,
                            const ProgressSink& onProgress);

/// The proof for a person, as a page by itself; for other programs; and as a list that `sha256sum -c` reads
/// in the transfer's folder.
std::string htmlOf(const TransferProof& proof);
std::string jsonOf(const TransferProof& proof);
std::string checksumsOf(const TransferProof& proof);

} // namespace sober
