#include "core/intake/read_tags.h"

#include "core/base/text.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/inbox_store.h"
#include "core/catalogue/volumes.h"
#include "core/evidence/worker/evidence_worker.h"

#include <algorithm>
#include <filesystem>

namespace sober {
namespace {

/// Pictures that people call covers.
bool isCoverName(const BytePath& path) {
    const auto name = lowerAscii(nameOf(path));
    for (const auto* stem : {"cover.", "folder.", "front."}) {
        for (const auto* ending : {"jpg", "jpeg", "png"}) {
            if (name == std::string(stem) + ending) {
                return true;
            }
        }
    }
    return false;
}

/// The picture that lies in a folder for what is there; nothing where there is none.
std::optional<Picture> coverIn(const BytePath& folder) {
    constexpr std::uint64_t largest = 2U << 20; // a picture in every file of an album; no source
    std::error_code failed;
    for (const auto& entry : std::filesystem::directory_iterator(folder, failed)) {
        const BytePath path = entry.path().string();
        auto bytes = isCoverName(path) ? wholeFile(path, largest) : Result<std::string>(Error{});
        if (bytes && bytes->size() > 4) {
            const bool isPng = bytes->starts_with("\x89PNG");
            const bool isJpeg = bytes->starts_with("\xFF\xD8");
            if (isPng || isJpeg) {
                return Picture{isPng ? "image/png" : "image/jpeg", 3, std::move(*bytes)};
            }
        }
    }
    return std::nullopt;
}

/// In place of a single picture that takes more room than many recordings.
std::optional<TagProposal> smallerPicture(const TagFields& tags, EvidenceWorker& worker) {
    constexpr std::size_t farTooLarge = 2U << 20; // bytes; no source
    constexpr int shownPixels = 1'200;            // no source
    if (tags.pictures.size() != 1 || tags.pictures.front().bytes.size() < farTooLarge) {
        return std::nullopt;
    }
    const auto& picture = tags.pictures.front();
    auto smaller = worker.jpeg(picture.bytes, shownPixels);
    if (!smaller || smaller->size() * 2 > picture.bytes.size()) {
        return std::nullopt;
    }
    const auto now = humanBytes(picture.bytes.size());
    const auto shall = humanBytes(smaller->size());
    return TagProposal{"PICTURE",
                       now,
                       shall,
                       ProposedFor::largePicture,
                       "The picture in it has " + now + "; fitted into 1,200 pixels it has " + shall + ".",
                       Picture{"image/jpeg", picture.kind, std::move(*smaller)}};
}

/// Of what is filed already.
Result<CollectionNames> namesOf(const Catalogue& catalogue) {
    const auto inboxes = InboxStore(catalogue).all();
    const auto volumes = Volumes(catalogue).all();
    if (!inboxes || !volumes) {
        return inboxes ? volumes.error() : inboxes.error();
    }
    CollectionNames names;
    const auto read = Holdings(catalogue).eachFiled([&](const std::string& artist, const std::string& genre,
                                                        VolumeId volume, const BytePath& path) {
        const auto on = std::ranges::find(*volumes, volume, &Volume::id);
        const bool isFiled = on != volumes->end() && std::ranges::none_of(*inboxes, [&](const Inbox& inbox) {
                                 return isWithin(joinPath(on->root, path), inbox.folder);
                             });
        if (isFiled) {
            names.add(artist, genre);
        }
    });
    return read ? Result(std::move(names)) : Result<CollectionNames>(read.error());
}

} // namespace

Result<ProposedTags> readAndPropose(const Catalogue& catalogue, std::span<const BytePath> paths,
                                    RunControl& control) {
    const auto names = namesOf(catalogue);
    RETURN_IF_FAILED(names);
    EvidenceWorker worker;
    ProposedTags read;
    std::map<BytePath, Picture> pictures;
    std::set<BytePath> looked;
    for (const auto& path : paths) {
        if (!control.proceed()) {
            return Error{Cause::interrupted, {}, "Stopped before all tags were read."};
        }
        auto tags = worker.readTags(path);
        if (!tags && !tellsOfTheFile(tags.error())) {
            return tags.error();
        }
        read.files.push_back({path, tags ? std::move(*tags) : TagFields{}});
        const BytePath folder(parentOf(path));
        if (looked.insert(folder).second) {
            if (auto cover = coverIn(folder)) {
                pictures.emplace(folder, std::move(*cover));
            }
        }
    }
    read.proposals = proposeTags(read.files, *names, pictures);
    for (std::size_t i = 0; i < read.files.size() && control.proceed(); ++i) {
        if (auto smaller = smallerPicture(read.files[i].tags, worker)) {
            read.proposals[i].push_back(std::move(*smaller));
        }
    }
    return read;
}

} // namespace sober
