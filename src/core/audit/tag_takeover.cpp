#include "core/audit/tag_takeover.h"

#include "core/base/text.h"
#include "core/evidence/worker/evidence_worker.h"

#include <algorithm>
#include <array>

namespace sober {
namespace {

/// Of its encode, or how loud that is.
bool isOfTheFile(std::string_view field) {
    constexpr std::array<std::string_view, 3> loudness{"REPLAYGAIN_", "R128_", "ITUNNORM"};
    return isOfTheEncode(field) ||
           std::ranges::any_of(loudness, [&](std::string_view one) { return field.starts_with(one); });
}

/// Spelling apart: "Polka" and "polka " say the same.
std::string sense(const std::vector<std::string>& values) {
    std::string all;
    for (const auto& value : values) {
        const auto plain = lettersAndDigits(value);
        all += (plain.empty() ? value : plain) + '\n';
    }
    return all;
}

bool saysNothing(const std::vector<std::string>& values) {
    return std::ranges::all_of(values, [](const std::string& value) {
        return value.find_first_not_of(" \t\r\n") == std::string::npos;
    });
}

FieldOffer offerOf(const std::string& field, const TagFields& keeper, std::span<const TagFields> others) {
    FieldOffer offer{field, {}, {}};
    if (const auto own = keeper.fields.find(field); own != keeper.fields.end() && !saysNothing(own->second)) {
        offer.kept = own->second;
    }
    for (std::size_t at = 0; at < others.size(); ++at) {
        const auto theirs = others[at].fields.find(field);
        if (theirs == others[at].fields.end() || saysNothing(theirs->second) ||
            sense(theirs->second) == sense(offer.kept)) {
            continue;
        }
        const auto known = std::ranges::find_if(offer.offered, [&](const OfferedValue& each) {
            return sense(each.values) == sense(theirs->second);
        });
        if (known != offer.offered.end()) {
            known->from.push_back(at);
        } else {
            offer.offered.push_back({theirs->second, {at}});
        }
    }
    return offer;
}

Result<TagFields> fieldsOf(const Holding& holding, std::span<const Volume> volumes, EvidenceWorker& worker) {
    const auto volume = std::ranges::find(volumes, holding.volume, &Volume::id);
    if (volume == volumes.end() || !volume->atHand) {
        return Error{Cause::notFound, holding.path, displayPath(holding.path) + " is away."};
    }
    return worker.readTags(joinPath(volume->root, holding.path));
}

TagTakeover withSmallPictures(TagTakeover takeover, EvidenceWorker& worker) {
    constexpr int shownPixels = 256;
    for (auto& offered : takeover.pictures) {
        auto small = worker.picture(offered.picture.bytes, shownPixels);
        offered.small = small ? std::move(*small) : SmallPicture{};
    }
    return takeover;
}

} // namespace

TagTakeover takeoverOf(const TagFields& keeper, std::span<const TagFields> others) {
    TagTakeover takeover;
    takeover.keeperHasPicture = !keeper.pictures.empty();
    std::map<std::string, bool> names;
    for (const auto& other : others) {
        for (const auto& [name, values] : other.fields) {
            names[name] = true;
        }
    }
    for (const auto& [name, met] : names) {
        auto offer = isOfTheFile(name) ? FieldOffer{} : offerOf(name, keeper, others);
        if (!offer.offered.empty()) {
            takeover.fields.push_back(std::move(offer));
        }
    }
    for (std::size_t at = 0; at < others.size(); ++at) {
        for (const auto& picture : others[at].pictures) {
            const auto sameBytes = [&](const Picture& each) { return each.bytes == picture.bytes; };
            if (std::ranges::any_of(keeper.pictures, sameBytes)) {
                continue;
            }
            const auto known = std::ranges::find_if(
                takeover.pictures, [&](const OfferedPicture& each) { return sameBytes(each.picture); });
            if (known != takeover.pictures.end()) {
                known->from.push_back(at);
            } else {
                takeover.pictures.push_back({picture, {at}, {}});
            }
        }
    }
    return takeover;
}

TagChange agreedChange(const TagTakeover& takeover) {
    TagChange change;
    for (const auto& offer : takeover.fields) {
        if (!offer.isConflict()) {
            change.fields[offer.field] = offer.offered.front().values;
        }
    }
    if (!takeover.keeperHasPicture && takeover.pictures.size() == 1) {
        change.picture = takeover.pictures.front().picture;
    }
    return change;
}

TagChange keptTags(const TagFields& old, const TagFields& fresh, bool takeFresh) {
    const auto takeover = takeoverOf(fresh, std::span(&old, 1));
    auto change = agreedChange(takeover);
    for (const auto& offer : takeover.fields) {
        if (!takeFresh) {
            change.fields[offer.field] = offer.offered.front().values;
        }
    }
    return change;
}

std::optional<std::size_t> stayingMember(const SetDetail& detail) {
    for (std::size_t at = 0; at < detail.members.size(); ++at) {
        const auto id = detail.members[at].id;
        const bool stays =
            detail.decision.keeper ? *detail.decision.keeper == id : detail.advice[at].advice == Advice::keep;
        if (stays && std::ranges::find(detail.onDocket, id) == detail.onDocket.end()) {
            return at;
        }
    }
    return std::nullopt;
}

Result<SetTags> readSetTags(const SetDetail& detail, std::size_t keeper, std::span<const Volume> volumes) {
    EvidenceWorker worker;
    const auto own = fieldsOf(detail.members[keeper], volumes, worker);
    RETURN_IF_FAILED(own);
    SetTags tags{keeper, {}, {}};
    std::vector<TagFields> read;
    for (std::size_t at = 0; at < detail.members.size(); ++at) {
        if (at == keeper) {
            continue;
        }
        if (auto theirs = fieldsOf(detail.members[at], volumes, worker)) {
            tags.others.push_back(at);
            read.push_back(std::move(*theirs));
        }
    }
    tags.takeover = withSmallPictures(takeoverOf(*own, read), worker);
    return tags;
}

TagTakeover takeoverOfFiles(const BytePath& keeper, const BytePath& other) {
    EvidenceWorker worker;
    const auto own = worker.readTags(keeper);
    const auto theirs = worker.readTags(other);
    return own && theirs ? withSmallPictures(takeoverOf(*own, std::span(&*theirs, 1)), worker)
                         : TagTakeover();
}

Outcome planRetag(const Catalogue& catalogue, HoldingId keeper, const TagChange& change,
                  const std::string& from) {
    if (change.isEmpty()) {
        return Error{Cause::invalid, {}, "Nothing was chosen to be taken over."};
    }
    const std::vector<HoldingId> one{keeper};
    const DocketStore docket(catalogue);
    const auto retired = docket.standing(one, ActionKind::retire);
    RETURN_IF_FAILED(retired);
    if (!retired->empty()) {
        return Error{Cause::refused, {}, "It stands on the docket to be retired: take it off first."};
    }
    const std::vector<DocketAction> action{{0, ActionKind::retag, keeper,
                                            changeWords(change) + (from.empty() ? "" : "; from " + from),
                                            timeNow(), packTagChange(change)}};
    return docket.add(action);
}

} // namespace sober
