#include "core/audit/shown_folder.h"

#include "core/audit/relink_names.h"
#include "core/audit/relink_rules.h"
#include "core/base/text.h"

#include <algorithm>

namespace sober {

ShownFolder::ShownFolder(const BytePath& folder, RunControl& control) : control_(control) {
    const auto root = realPathOf(folder);
    if (!root) {
        return;
    }
    const auto walked = walkVolume(*root, {}, {}, control);
    for (const auto& file : walked.files) {
        const auto words = plainWords(stemOf(nameOf(file.path)));
        files_.push_back({joinPath(*root, file.path),
                          file.stamp.size,
                          withoutZeros(words),
                          withoutNumbers(words),
                          {},
                          false,
                          false});
    }
}

std::size_t ShownFolder::open(RelinkCandidates& candidates, const WantedFiles& wanted,
                              const ProgressSink& onProgress) {
    const auto bySize = readBySize(candidates, wanted, onProgress);
    return bySize + openByName(candidates, wanted, onProgress);
}

std::map<std::uint64_t, std::vector<ShownFolder::Listed*>>
ShownFolder::ofWantedSize(const RelinkCandidates& candidates, const WantedFiles& wanted) {
    std::map<std::uint64_t, std::vector<std::pair<std::size_t, Listed*>>> byNearness;
    for (auto& file : files_) {
        const auto contents = wanted.contents.find(file.size);
        if (contents == wanted.contents.end() || file.read || candidates.at(file.path)) {
            continue;
        }
        std::size_t near = 0;
        for (const auto& [content, places] : contents->second) {
            for (const auto& place : places) {
                near = std::max(near, commonFolder(file.path, place).size());
            }
        }
        byNearness[file.size].emplace_back(near, &file);
    }
    std::map<std::uint64_t, std::vector<Listed*>> ordered;
    for (auto& [size, files] : byNearness) {
        std::ranges::stable_sort(files, std::ranges::greater{}, [](const auto& each) { return each.first; });
        std::ranges::transform(files, std::back_inserter(ordered[size]),
                               [](const auto& each) { return each.second; });
    }
    return ordered;
}

std::size_t ShownFolder::readBySize(RelinkCandidates& candidates, const WantedFiles& wanted,
                                    const ProgressSink& onProgress) {
    const auto bySize = ofWantedSize(candidates, wanted);
    for (const auto& [size, files] : bySize) {
        progress_.totalFiles += files.size();
    }
    std::size_t added = 0;
    for (const auto& [size, files] : bySize) {
        auto contents = wanted.contents.at(size);
        auto left = files.size();
        for (auto* file : files) {
            if (contents.empty() || !control_.proceed()) {
                break;
            }
            --left;
            tell(onProgress, *file);
            read(*file);
            if (file->content && contents.erase(*file->content) > 0) {
                added += probe(candidates, *file) ? 1 : 0;
            }
        }
        progress_.totalFiles -= left;
    }
    return added;
}

std::size_t ShownFolder::openByName(RelinkCandidates& candidates, const WantedFiles& wanted,
                                    const ProgressSink& onProgress) {
    std::vector<Listed*> called;
    for (auto& file : files_) {
        const bool isCalled =
            wanted.words.contains(file.words) || wanted.wordsAlone.contains(file.wordsAlone);
        if (isCalled && !file.opened && !candidates.at(file.path)) {
            called.push_back(&file);
        }
    }
    progress_.totalFiles += called.size();
    std::size_t added = 0;
    for (auto* file : called) {
        if (!control_.proceed()) {
            break;
        }
        tell(onProgress, *file);
        if (!file->read && wanted.contents.contains(file->size)) {
            read(*file); // the same name and size, and another content: another recording
        }
        added += probe(candidates, *file) ? 1 : 0;
    }
    return added;
}

void ShownFolder::read(Listed& file) {
    file.read = true;
    if (const auto pass = worker_.passOver(file.path, control_, [](std::uint64_t) {})) {
        file.content = pass->checksums.file;
    }
}

bool ShownFolder::probe(RelinkCandidates& candidates, Listed& file) {
    file.opened = true;
    auto probed = worker_.probe(file.path);
    if (!probed) {
        return false; // no audio, or none that can be opened
    }
    RelinkCandidate candidate;
    candidate.path = file.path;
    candidate.size = file.size;
    candidate.content = file.content;
    candidate.seconds = probed->claims.duration;
    candidate.title = std::move(probed->tags.title);
    candidate.artist = std::move(probed->tags.artist);
    candidate.album = std::move(probed->tags.album);
    candidates.add(std::move(candidate));
    return true;
}

void ShownFolder::tell(const ProgressSink& onProgress, const Listed& file) {
    ++progress_.files;
    progress_.at = displayPath(file.path);
    onProgress(progress_);
}

} // namespace sober
