// What lies in archives: another part of changed_reader.h.
#include "core/base/inner_path.h"
#include "core/base/text.h"
#include "core/survey/changed_reader.h"

#include <algorithm>
#include <utility>

namespace sober {

void ChangedReader::rememberInside() {
    for (std::size_t i = 0; volume_.choices.lookInside && i < remembered_.size(); ++i) {
        if (auto inner = innerPathOf(remembered_[i].path)) {
            inside_[std::move(inner->archive)].push_back(i);
        }
    }
}

void ChangedReader::sortOutArchive(WalkedFile& file) {
    const auto whole = remembered_.at(innerPath(file.path, {}));
    const auto& held = inside_[file.path];
    const bool isKnown = whole && unchanged(file.stamp, remembered_[*whole]);
    const bool isWanted = std::ranges::any_of(held, [&](std::size_t i) {
        const auto& before = remembered_[i];
        return before.id != 0 && before.state == HoldingState::present && wantsEvidence(before);
    });
    if (const auto plain = remembered_.at(file.path)) {
        met_[*plain] = isKnown; // passed over as a file once
    }
    if (!isKnown || isWanted) {
        if (whole) {
            met_[*whole] = true;
        }
        lookedInto_.insert(file.path);
        jobs_.push_back({&file, nullptr, true});
        return;
    }
    for (const auto i : held) { // `whole` is one of them
        const auto& before = remembered_[i];
        met_[i] = true;
        if (before.id == 0) {
            notePassedOver(before.path, remembered_.sentenceOf(before));
        } else if (before.state == HoldingState::present || before.state == HoldingState::leftOut) {
            ++report_.seen;
            ++report_.unchanged;
            if (before.state == HoldingState::leftOut) {
                auto stamp = file.stamp;
                stamp.links = 0;
                writer_.restamp(before.id, before.path, stamp, {}, {});
            }
        }
    }
}

void ChangedReader::takeInside(FileRead& read) {
    const auto& path = read.job.file.path;
    if (read.job.isArchive) {
        endArchive(path, read.job.file.stamp, read.record.error());
        return;
    }
    const auto archive = innerPathOf(path)->archive;
    const bool isNone = !read.record && read.record.error().cause == Cause::notAudio;
    if (!read.record && (!isNone || namedLikeAudio(path))) {
        auto& ended = ended_[archive];
        ended.isWhole &= isLasting(read.record.error());
        ended.sentences += (ended.sentences.empty() ? "" : " ") + read.record.error().sentence;
    }
    if (isNone) {
        return; // one that was a holding is missing then
    }
    if (const auto found = remembered_.at(path)) {
        read.job.before = &remembered_[*found];
        met_[*found] = true;
    }
    if (read.record && read.job.before == nullptr && isLikeOneToCome(archive, *read.record)) {
        ended_[archive].waiting.push_back(std::move(read));
    } else if (read.record) {
        take(read);
    } else {
        report_.seen += read.job.before != nullptr && read.job.before->state == HoldingState::present ? 1 : 0;
    }
}

bool ChangedReader::isLikeOneToCome(const BytePath& archive, const FileRecord& record) {
    return std::ranges::any_of(inside_[archive], [&](std::size_t i) {
        return !met_[i] && remembered_[i].id != 0 &&
               checksumOfHolding(remembered_[i].id) == record.checksums.file;
    });
}

void ChangedReader::takeRenamed(const BytePath& archive, std::vector<FileRead>& waiting, bool isWhole) {
    for (const auto i : inside_[archive]) {
        const auto checksum = checksumOfHolding(remembered_[i].id);
        if (isWhole && !met_[i] && remembered_[i].id != 0 && remembered_[i].state != HoldingState::leftOut &&
            checksum != Checksum128{}) {
            goneByChecksum_.emplace(checksum, i);
        }
    }
    for (auto& read : waiting) {
        take(read);
    }
}

bool ChangedReader::isLasting(const Error& error) {
    return error.cause == Cause::notAudio || error.cause == Cause::unreadable ||
           error.cause == Cause::damaged || error.cause == Cause::refused;
}

void ChangedReader::endArchive(const BytePath& archive, const FileStamp& stamp, const Error& how) {
    auto [isWhole, sentences, waiting] = std::exchange(ended_[archive], {});
    const bool wasAllMet = how.cause == Cause::notAudio || how.cause == Cause::unreadable;
    if (!wasAllMet) {
        walk_.unlisted.push_back(archive + "!"); // what was not come to is not missing
    }
    takeRenamed(archive, waiting, wasAllMet && !control_.isCancelled());
    if (control_.isCancelled()) {
        return;
    }
    sentences = how.sentence + (how.sentence.empty() || sentences.empty() ? "" : " ") + sentences;
    if (isWhole && isLasting(how)) {
        const auto whole = innerPath(archive, {});
        writer_.passOver(whole, stamp, sentences);
        notePassedOver(whole, sentences);
    } else {
        addError(joinPath(volume_.root, archive), sentences);
    }
}

} // namespace sober
