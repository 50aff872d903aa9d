#include "core/survey/survey.h"

#include "core/base/text.h"
#include "core/base/trash_places.h"
#include "core/catalogue/excerpt_store.h"
#include "core/catalogue/inbox_store.h"
#include "core/catalogue/ledger_store.h"
#include "core/catalogue/volumes.h"
#include "core/survey/read_changed.h"
#include "core/survey/volume_identity.h"
#include "core/survey/walk.h"

#include <fmt/format.h>
#include <sys/stat.h>

#include <chrono>
#include <filesystem>
#include <future>

namespace sober {
namespace {

Result<BytePath> usableRoot(const BytePath& given) {
    const auto root = realPathOf(given);
    if (!root) {
        return Error{Cause::notFound, given, "There is no folder " + displayPath(given) + "."};
    }
    struct stat status {};
    if (stat(root->c_str(), &status) != 0 || !S_ISDIR(status.st_mode)) {
        return Error{Cause::wrongKind, given,
                     displayPath(given) + " is a file. A survey reads folders and drives."};
    }
    return *root;
}

bool isEmptyFolder(const BytePath& path) {
    std::error_code trouble;
    return std::filesystem::is_empty(path, trouble) && !trouble;
}

Outcome standsApart(const BytePath& root, std::span<const Volume> volumes) {
    for (const auto& volume : volumes) {
        if (volume.root != root && isWithin(root, volume.root)) {
            return Error{
                Cause::refused, root,
                fmt::format(
                    "{} lies within the volume {} ({}), which is catalogued already. Survey that one.",
                    displayPath(root), volume.label, displayPath(volume.root))};
        }
        if (volume.root != root && isWithin(volume.root, root)) {
            return Error{
                Cause::refused, root,
                fmt::format("{} holds the volume {} ({}), which is catalogued already. Survey its other "
                            "folders one by one.",
                            displayPath(root), volume.label, displayPath(volume.root))};
        }
    }
    return done();
}

/// A folder of one file system that was emptied or filled anew: still the volume, though nothing of it is
/// found.
bool isSameFolder(const Volume& known, const BytePath& root, std::span<const Mount> mounts) {
    const auto now = identityOf(root, mounts);
    return !now.within.empty() && now.within == known.identity.within && !isEmptyFolder(root) &&
           now.filesystemType == known.identity.filesystemType && now.filesystem == known.identity.filesystem;
}

/// Where a volume that is away was mounted: the bare folder, or an empty one.
bool isMountPointOf(const Volume& known, const BytePath& root, std::span<const Mount> mounts) {
    const bool isMounted = std::ranges::find(mounts, root, &Mount::point) != mounts.end();
    return isEmptyFolder(root) || (known.identity.within.empty() && !isMounted);
}

/// The volume at `root`: known there, known from elsewhere, or new.
Result<Volume> volumeFor(Catalogue& catalogue, const BytePath& root, const SurveyRequest& request) {
    const auto volumes = Volumes(catalogue).all();
    RETURN_IF_FAILED(volumes);
    const auto mounts = mountsNow();
    std::optional<Volume> volume;
    for (const auto& known : *volumes) {
        if (known.root == root && (isAtHand(catalogue, known, mounts) || isSameFolder(known, root, mounts))) {
            volume = known;
            break;
        }
    }
    if (!volume) {
        for (const auto& known : *volumes) {
            if (known.root == root && isMountPointOf(known, root, mounts)) {
                return Error{
                    Cause::refused, root,
                    fmt::format("{} is away: {} is the folder where it is mounted. Connect it first.",
                                known.label, displayPath(root))};
            }
        }
        if (isInTrash(root)) {
            return Error{Cause::refused, root,
                         displayPath(root) +
                             " is a trash: what lies there was thrown away, and is no collection."};
        }
        if (const auto* other = sameByAnotherWay(*volumes, root, mounts)) {
            return Error{
                Cause::refused, root,
                fmt::format("{} is the volume {} ({}) by another way, or a part of it: its files would "
                            "count as copies of themselves. Survey that one.",
                            displayPath(root), other->label, displayPath(other->root))};
        }
    }
    if (!volume) {
        auto recognised = recogniseVolume(catalogue, root, mounts);
        RETURN_IF_FAILED(recognised);
        volume = *recognised;
    }
    if (const auto apart = standsApart(root, *volumes); !volume && !apart) {
        return apart.error();
    }
    const bool isNew = !volume;
    if (isNew) {
        volume.emplace();
        volume->label = root == "/" ? "root" : repairedUtf8(nameOf(root));
    }
    volume->root = root;
    volume->identity = identityOf(root, mounts);
    volume->atHand = true;
    measureSpace(*volume);
    if (request.label && !request.label->empty()) {
        volume->label = *request.label;
    }
    volume->choices = request.choices.value_or(volume->choices);
    if (request.changeChoices) {
        request.changeChoices(volume->choices);
    }
    if (volume->choices.maxSize > 0 && volume->choices.minSize > volume->choices.maxSize) {
        return Error{
            Cause::invalid, root,
            fmt::format("With files from {} up to {} everything would be left out: the smallest size is "
                        "above the largest.",
                        humanBytes(volume->choices.minSize), humanBytes(volume->choices.maxSize))};
    }
    volume->effort = request.effort.value_or(volume->effort);
    if (isNew) {
        return Volumes(catalogue).add(*volume);
    }
    RETURN_IF_FAILED(Volumes(catalogue).update(*volume));
    return *volume;
}

std::string summaryOf(const SurveyReport& report) {
    return fmt::format("{}: {} seen, {} added, {} changed, {} moved, {} missing{}{}", report.label,
                       humanCount(report.seen), humanCount(report.added), humanCount(report.changed),
                       humanCount(report.moved), humanCount(report.missing),
                       report.leftOut > 0 ? fmt::format(", {} left out by choice", humanCount(report.leftOut))
                                          : "",
                       report.interrupted ? ", stopped before its end" : "");
}

} // namespace

Result<SurveyReport> surveyVolume(Catalogue& catalogue, const SurveyRequest& request, RunControl& control,
                                  const ProgressSink& onProgress) {
    const auto began = std::chrono::steady_clock::now();
    const auto root = usableRoot(request.root);
    RETURN_IF_FAILED(root);
    auto volume = volumeFor(catalogue, *root, request);
    RETURN_IF_FAILED(volume);
    const auto volumes = Volumes(catalogue).all();
    RETURN_IF_FAILED(volumes);
    std::vector<BytePath> otherRoots;
    for (const auto& other : *volumes) {
        if (other.id != volume->id) {
            otherRoots.push_back(other.root);
        }
    }
    const auto away = noteInnerMounts(catalogue, *volume, otherRoots, mountsNow());
    RETURN_IF_FAILED(away);
    volume->awayWithin = *away;
    const auto entry = LedgerStore(catalogue).open("survey", volume->label + ": survey", std::nullopt);
    RETURN_IF_FAILED(entry);

    const bool keepsExcerpts = volume->effort == Effort::full && volume->choices.keepExcerpts;
    RETURN_IF_FAILED(keepsExcerpts ? ExcerptStore(catalogue).open() : done());
    auto walking = std::async(std::launch::async,
                              [&] { return walkVolume(volume->root, volume->choices, otherRoots, control); });
    auto remembered = rememberedFiles(catalogue, volume->id, keepsExcerpts);
    Walk walk = walking.get();
    RETURN_IF_FAILED(remembered);
    for (const auto& folder : *away) {
        walk.unlisted.push_back(folder);
        walk.errors.push_back({joinPath(volume->root, folder),
                               fmt::format("What was mounted at {} is away; what it holds is not missing.",
                                           displayPath(joinPath(volume->root, folder)))});
    }

    const auto inboxes = InboxStore(catalogue).all();
    RETURN_IF_FAILED(inboxes);
    std::vector<BytePath> inFull; // what arrives is examined at once
    for (const auto& inbox : *inboxes) {
        if (auto folder = relativeTo(inbox.folder, volume->root)) {
            inFull.push_back(std::move(*folder));
        }
    }

    SurveyReport report;
    report.volume = volume->id;
    report.label = volume->label;
    const auto read = readChanged(catalogue, *volume, std::move(walk), std::move(*remembered),
                                  std::move(inFull), control, onProgress, report);
    report.seconds = std::chrono::duration<double>(std::chrono::steady_clock::now() - began).count();
    if (read && !report.interrupted) {
        RETURN_IF_FAILED(keepsExcerpts ? ExcerptStore(catalogue).tidy() : done());
        volume->surveyedAt = timeNow();
        RETURN_IF_FAILED(Volumes(catalogue).update(*volume));
    }
    RETURN_IF_FAILED(LedgerStore(catalogue).close(*entry, summaryOf(report)));
    RETURN_IF_FAILED(read);
    return report;
}

} // namespace sober
