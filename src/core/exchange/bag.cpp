#include "core/exchange/bag.h"

#include "core/base/file_handle.h"
#include "core/base/text.h"
#include "core/survey/walk.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <map>
#include <set>
#include <unordered_set>

namespace sober {
namespace {

constexpr std::uint64_t longestTagFile = 1ULL << 30; // bytes

using NamedDigest = std::pair<std::string_view, ListedChecksum>;
/// As RFC 8493 section 2.4 names them.
constexpr std::array<NamedDigest, 4> digests{{{"md5", ListedChecksum::md5},
                                              {"sha1", ListedChecksum::sha1},
                                              {"sha256", ListedChecksum::sha256},
                                              {"sha512", ListedChecksum::sha512}}};

Result<std::string> tagFile(const BytePath& path) {
    return wholeFile(path, longestTagFile);
}

std::string valueOf(const std::vector<std::pair<std::string, std::string>>& info, std::string_view label) {
    const auto found = std::ranges::find_if(
        info, [&](const auto& each) { return lowerAscii(each.first) == lowerAscii(label); });
    return found != info.end() ? found->second : std::string();
}

class BagReader {
  public:
    BagReader(BytePath bag, RunControl& control, const ProgressSink& onProgress)
        : bag_(std::move(bag)), control_(control), onProgress_(onProgress) {}

    Result<BagReport> read() {
        const auto declaration = tagFile(joinPath(bag_, "bagit.txt"));
        if (!declaration) {
            return Error{Cause::invalid, bag_, displayPath(bag_) + " is no bag: it has no bagit.txt."};
        }
        const auto lines = parseBagInfo(*declaration);
        report_.version = valueOf(lines, "BagIt-Version");
        const auto encoding = valueOf(lines, "Tag-File-Character-Encoding");
        if (report_.version.empty() || encoding.empty()) {
            problem("bagit.txt", "does not state its version and its encoding");
        } else if (encoding != "UTF-8" && encoding != "utf-8" && encoding != "US-ASCII") {
            problem("bagit.txt", "names its files in " + encoding + ", which is taken as bytes");
        }
        walk();
        const bool manifested = readManifests();
        if (!manifested) {
            problem("", "It has no manifest of its payload.");
        }
        checkFetch();
        checkInfo();
        report_.complete = report_.problems.empty();
        checkSums();
        report_.interrupted = control_.isCancelled();
        report_.valid = report_.problems.empty() && !report_.interrupted;
        return std::move(report_);
    }

  private:
    void problem(const BytePath& path, std::string_view why) {
        report_.problems.push_back(
            {path, path.empty() ? std::string(why) : fmt::format("{}: {}.", displayPath(path), why)});
    }

    void walk() {
        auto walked = walkVolume(bag_, {}, {}, control_);
        for (const auto& error : walked.errors) {
            problem("", error.sentence);
        }
        for (auto& file : walked.files) {
            if (file.path.starts_with("data/")) {
                ++report_.files;
                report_.bytes += file.stamp.size;
            }
            there_.emplace(std::move(file.path), file.stamp.size);
        }
    }

    bool readManifests() {
        bool any = false;
        std::set<BytePath> unlisted;
        const bool every = report_.version >= "1.0";
        std::unordered_set<BytePath> everywhere;
        for (const auto& [path, size] : there_) {
            const bool payload = path.starts_with("manifest-");
            if ((!payload && !path.starts_with("tagmanifest-")) || !path.ends_with(".txt") ||
                path.find('/') != BytePath::npos) {
                continue;
            }
            const auto text = tagFile(joinPath(bag_, path));
            if (!text) {
                problem(path, text.error().sentence);
                continue;
            }
            const std::string name = path.substr(payload ? 9 : 12, path.size() - (payload ? 13 : 16));
            auto manifest = parseBagManifest(*text, payload);
            for (const auto& trouble : manifest.problems) {
                problem(path, trouble.sentence);
            }
            std::unordered_set<BytePath> listed;
            for (const auto& file : manifest.files) {
                listed.insert(file.path);
                if (!there_.contains(file.path)) {
                    problem(file.path, "is listed and not there");
                }
            }
            if (payload) {
                any = true;
                report_.algorithms.push_back(name);
                for (const auto& [each, bytes] : there_) {
                    if (each.starts_with("data/") && !listed.contains(each) && every) {
                        unlisted.insert(each);
                    }
                }
                everywhere.insert(listed.begin(), listed.end());
            }
            const auto digest = std::ranges::find(digests, name, &NamedDigest::first);
            if (digest == digests.end()) {
                problem(path, "its kind of checksum is not known here");
                continue;
            }
            for (auto& file : manifest.files) {
                if (there_.contains(file.path)) {
                    sums_[std::move(file.path)].emplace_back(digest->second, std::move(file.hex));
                }
            }
        }
        for (const auto& [path, size] : there_) {
            // Before version 1.0 it was enough to stand in one manifest.
            if (any && path.starts_with("data/") && !everywhere.contains(path)) {
                unlisted.insert(path);
            }
        }
        for (const auto& path : unlisted) {
            problem(path, "is there and not listed");
        }
        return any;
    }

    void checkFetch() {
        if (!there_.contains("fetch.txt")) {
            return;
        }
        const auto text = tagFile(joinPath(bag_, "fetch.txt"));
        const auto names = text ? parseBagFetch(*text) : std::vector<BytePath>{};
        const auto absent = static_cast<std::uint64_t>(
            std::ranges::count_if(names, [&](const BytePath& name) { return !there_.contains(name); }));
        if (absent > 0) {
            problem("fetch.txt", fmt::format("{} to be fetched from a network, which is not done",
                                             counted(absent, "file has", "files have")));
        }
    }

    void checkInfo() {
        if (!there_.contains("bag-info.txt")) {
            return;
        }
        if (const auto text = tagFile(joinPath(bag_, "bag-info.txt"))) {
            report_.info = parseBagInfo(*text);
        }
        const auto stated = valueOf(report_.info, "Payload-Oxum");
        const auto real = fmt::format("{}.{}", report_.bytes, report_.files);
        if (!stated.empty() && stated != real) {
            problem("bag-info.txt", fmt::format("states a payload of {}, and it is {}", stated, real));
        }
    }

    /// Each file is read once for each kind of checksum.
    void checkSums() {
        Progress progress;
        progress.totalFiles = sums_.size();
        for (const auto& [path, sums] : sums_) {
            progress.totalBytes += there_.at(path) * sums.size();
        }
        for (const auto& [path, sums] : sums_) {
            progress.at = displayPath(path);
            for (const auto& [kind, hex] : sums) {
                const auto real = checksumOfFile(joinPath(bag_, path), kind, control_);
                if (!real && real.error().cause == Cause::interrupted) {
                    return;
                }
                if (!real) {
                    problem(path, real.error().sentence);
                } else if (*real != hex) {
                    problem(path, fmt::format("its {} is another than is listed", checksumWord(kind)));
                }
                progress.bytes += there_.at(path);
                onProgress_(progress);
            }
            ++progress.files;
        }
    }

    BytePath bag_;
    RunControl& control_;
    const ProgressSink& onProgress_;
    std::map<BytePath, std::uint64_t> there_; ///< every regular file, with its size
    std::map<BytePath, std::vector<std::pair<ListedChecksum, std::string>>> sums_;
    BagReport report_;
};

} // namespace

Result<BagReport> checkBag(const BytePath& bag, RunControl& control, const ProgressSink& onProgress) {
    const auto folder = realPathOf(bag);
    if (!folder) {
        return Error{Cause::notFound, bag, displayPath(bag) + " is not there."};
    }
    return BagReader(*folder, control, onProgress).read();
}

} // namespace sober
