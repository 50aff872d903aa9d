#include "core/transfer/proof.h"

#include "core/base/text.h"
#include "core/catalogue/fixity_store.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/volumes.h"
#include "core/evidence/fixity_reading.h"
#include "core/evidence/worker/evidence_worker.h"
#include "core/players/list_reading.h"

#include <algorithm>
#include <chrono>
#include <mutex>
#include <numeric>
#include <thread>
#include <unordered_map>

namespace sober {
namespace {

class Proving {
  public:
    Proving(const Catalogue& catalogue, const Transfer& transfer, std::span<const TransferItem> items,
            RunControl& control, const ProgressSink& onProgress)
        : catalogue_(catalogue), items_(items), control_(control), onProgress_(onProgress) {
        proof_.transfer = transfer;
        proof_.time = timeNow();
    }

    Result<TransferProof> run() {
        for (const auto phase : {&Proving::readFiles, &Proving::readLists, &Proving::playEntries}) {
            RETURN_IF_FAILED((this->*phase)());
        }
        proof_.interrupted = control_.isCancelled();
        return std::move(proof_);
    }

  private:
    Outcome readFiles() {
        const auto known = blocksThere();
        RETURN_IF_FAILED(known);
        std::vector<BytePath> paths;
        for (const auto& item : items_) {
            proof_.files.push_back({item.target, item.source, item.bytes, {}, {}});
            paths.push_back(joinPath(proof_.transfer.folder, item.target));
            progress_.totalBytes += item.bytes;
        }
        progress_.totalFiles = items_.size();
        ReadingChoices choices;
        choices.strong = true;
        readForFixity(
            paths, choices, control_,
            [this](std::uint64_t bytes) {
                progress_.bytes += bytes;
                tell();
            },
            [&](std::size_t at, const Result<FixityReading>& reading) { judge(at, (*known)[at], reading); });
        return done();
    }

    void judge(std::size_t at, const std::vector<Checksum128>& blocks, const Result<FixityReading>& reading) {
        auto& file = proof_.files[at];
        ++progress_.files;
        const auto place = displayPath(joinPath(proof_.transfer.folder, file.path));
        if (!reading) {
            file.wrong = reading.error().sentence;
            return;
        }
        file.bytes = reading->stamp.size;
        file.sha256 =
            reading->sha256 && reading->unreadable.empty() ? toHex(*reading->sha256) : std::string();
        file.wrong = !reading->unreadable.empty() ? place + " cannot be read whole."
                     : blocks.empty()             ? place + " is not catalogued; run the transfer again."
                     : reading->blocks != blocks  ? place + " is not what was copied."
                     : items_[at].state == ItemState::failed || items_[at].state == ItemState::waits
                         ? place + " was not copied."
                         : std::string();
    }

    /// What is recorded of what stands at the items' places, block by block.
    Result<std::vector<std::vector<Checksum128>>> blocksThere() const {
        const auto volumes = Volumes(catalogue_).all();
        RETURN_IF_FAILED(volumes);
        const auto volume = volumeHolding(*volumes, proof_.transfer.folder);
        RETURN_IF_FAILED(volume);
        std::vector<std::vector<Checksum128>> known;
        for (const auto& item : items_) {
            const auto place = joinPath(proof_.transfer.folder, item.target);
            const auto holding = Holdings(catalogue_).at((*volume)->id, *relativeTo(place, (*volume)->root));
            auto blocks = !holding   ? Result<std::vector<Checksum128>>(holding.error())
                          : *holding ? FixityStore(catalogue_).blocksOf((*holding)->id)
                                     : Result(std::vector<Checksum128>{});
            RETURN_IF_FAILED(blocks);
            known.push_back(std::move(*blocks));
        }
        return known;
    }

    Outcome readLists() {
        const auto lists = TransferStore(catalogue_).lists(proof_.transfer.id);
        const auto left = TransferStore(catalogue_).left(proof_.transfer.id);
        auto volumes = Volumes(catalogue_).all();
        if (!lists || !left || !volumes) {
            return !lists ? lists.error() : !left ? left.error() : volumes.error();
        }
        proof_.left = *left;
        Resolver resolver(std::move(*volumes));
        for (const auto& list : *lists) {
            if (isListName(list.target)) {
                readOne(list, resolver);
            }
        }
        return done();
    }

    void readOne(const TransferList& list, Resolver& resolver) {
        ProvenList proven{list.source, list.target, list.entries, list.coming, 0, 0, {}};
        const auto place = joinPath(proof_.transfer.folder, list.target);
        const auto read = readList(place);
        std::vector<BytePath> leads;
        if (!read) {
            proven.wrong.emplace_back("", read.error().sentence);
        } else {
            ListContext context;
            context.folder = BytePath(parentOf(place));
            context.asUri = read->playlist.format == PlaylistFormat::xspf;
            context.writtenPrefix = list.prefix;
            std::ranges::replace(context.writtenPrefix, '\\', '/');
            context.standsFor = list.prefix.empty() ? BytePath() : proof_.transfer.folder;
            for (const auto& entry : read->playlist.entries) {
                leads.push_back(leadsTo(resolver.resolve(entry.location, context), entry.location, proven));
            }
            proven.entries = leads.size();
            if (proven.entries != proven.coming) {
                proven.wrong.emplace_back("", "It was to have " + counted(proven.coming, "entry", "entries") +
                                                  " and has " + humanCount(proven.entries) + ".");
            }
        }
        leads_.push_back(std::move(leads));
        proof_.lists.push_back(std::move(proven));
    }

    /// The file, which has to lie in the new place; "" for none.
    BytePath leadsTo(const Resolution& resolution, const std::string& location, ProvenList& proven) const {
        const bool isThere =
            resolution.state == ReferenceState::resolved || resolution.state == ReferenceState::loosely;
        if (!isThere || !isWithin(resolution.path, proof_.transfer.folder)) {
            proven.wrong.emplace_back(location,
                                      isThere ? "it leads out of the new place" : "it leads nowhere");
            return {};
        }
        return resolution.path;
    }

    /// Each file once, on all processors.
    Outcome playEntries() {
        std::unordered_map<BytePath, std::string> plays; // why not
        for (const auto& leads : leads_) {
            for (const auto& path : leads) {
                plays.emplace(path, std::string());
            }
        }
        plays.erase(BytePath());
        std::vector<std::pair<const BytePath, std::string>*> files;
        for (auto& each : plays) {
            files.push_back(&each);
        }
        std::atomic<std::size_t> next = 0;
        const auto play = [&] {
            EvidenceWorker worker;
            for (auto at = next++; at < files.size() && control_.proceed(); at = next++) {
                const auto begins = worker.decodeBeginning(files[at]->first);
                files[at]->second = begins ? std::string() : begins.error().sentence;
                const std::lock_guard lock(telling_);
                progress_.at = displayPath(files[at]->first);
                tell();
            }
        };
        {
            std::vector<std::jthread> threads;
            const auto count =
                std::min<std::size_t>(std::max(1U, std::thread::hardware_concurrency()), files.size());
            for (std::size_t i = 0; i < count; ++i) {
                threads.emplace_back(play);
            }
        }
        for (std::size_t i = 0; i < leads_.size() && !control_.isCancelled(); ++i) {
            for (const auto& path : leads_[i]) {
                const auto why = plays.find(path);
                if (why != plays.end() && why->second.empty()) {
                    ++proof_.lists[i].playable;
                } else if (why != plays.end()) {
                    proof_.lists[i].wrong.emplace_back(displayPath(path), why->second);
                }
            }
        }
        return done();
    }

    void tell() {
        progress_.elapsed = std::chrono::duration<double>(std::chrono::steady_clock::now() - began_).count();
        onProgress_(progress_);
    }

    const Catalogue& catalogue_;
    std::span<const TransferItem> items_;
    RunControl& control_;
    const ProgressSink& onProgress_;
    TransferProof proof_;
    std::vector<std::vector<BytePath>> leads_; ///< of each list's entries
    Progress progress_;
    std::mutex telling_;
    std::chrono::steady_clock::time_point began_ = std::chrono::steady_clock::now();
};

} // namespace

std::uint64_t TransferProof::bytes() const {
    return std::accumulate(files.begin(), files.end(), std::uint64_t{0},
                           [](std::uint64_t sum, const ProvenFile& file) { return sum + file.bytes; });
}
std::uint64_t TransferProof::entries() const {
    return std::accumulate(lists.begin(), lists.end(), std::uint64_t{0},
                           [](std::uint64_t sum, const ProvenList& list) { return sum + list.entries; });
}
std::uint64_t TransferProof::playable() const {
    return std::accumulate(lists.begin(), lists.end(), std::uint64_t{0},
                           [](std::uint64_t sum, const ProvenList& list) { return sum + list.playable; });
}

std::vector<std::pair<BytePath, std::string>> TransferProof::wrong() const {
    std::vector<std::pair<BytePath, std::string>> all;
    for (const auto& file : files) {
        if (!file.wrong.empty()) {
            all.emplace_back(joinPath(transfer.folder, file.path), file.wrong);
        }
    }
    for (const auto& list : lists) {
        for (const auto& [location, why] : list.wrong) {
            all.emplace_back(joinPath(transfer.folder, list.path),
                             location.empty() ? why : location + ": " + why);
        }
    }
    return all;
}

Result<TransferProof> prove(const Catalogue& catalogue, const Transfer& transfer,
                            std::span<const TransferItem> items, RunControl& control,
                            const ProgressSink& onProgress) {
    return Proving(catalogue, transfer, items, control, onProgress).run();
}

} // namespace sober
