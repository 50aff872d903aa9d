#include "core/audit/relink_candidates.h"

#include "core/audit/relink_names.h"
#include "core/base/inner_path.h"
#include "core/base/text.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/volumes.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace sober {
namespace {

constexpr double agreeing = 1.5; // seconds: lists round, encoders pad
constexpr double differing = 2.5;

std::string keyOf(const Checksum128& content) {
    return {reinterpret_cast<const char*>(content.bytes.data()), content.bytes.size()};
}

/// "" where title or performer says nothing.
std::string tagKey(const std::string& title, const std::string& artist) {
    const auto words = lettersAndDigits(title);
    const auto who = lettersAndDigits(artist);
    return words.empty() || who.empty() ? std::string() : fmt::format("{}/{}", words, who);
}

/// Whether two titles (or names) are the same words; a list may put the performer before the title.
bool sameWords(std::string_view listed, std::string_view tagged) {
    const auto one = lettersAndDigits(listed);
    const auto other = lettersAndDigits(tagged);
    if (one.empty() || other.empty()) {
        return foldedName(listed) == foldedName(tagged);
    }
    const auto dash = listed.find(" - ");
    return one == other ||
           (dash != std::string_view::npos && lettersAndDigits(listed.substr(dash + 3)) == other);
}

/// Says how `known` and `stated` agree, where both say something.
void compareWords(Judgement& judgement, std::string_view what, const std::string& known,
                  const std::string& stated, std::string_view name, bool& agreed) {
    if (known.empty() || stated.empty()) {
        return;
    }
    if (sameWords(known, stated)) {
        agreed = true;
        judgement.evidence.push_back(fmt::format("the same {}", what));
    } else if (!sameWords(name, known)) {
        // A title that a player made of the file's name says nothing of the recording.
        judgement.agreement = std::min(judgement.agreement, Agreement::doubtful);
        judgement.evidence.push_back(fmt::format("the {} was \"{}\" and is \"{}\"", what, known, stated));
    }
}

} // namespace

std::string foldedStem(std::string_view path) {
    return foldedName(stemOf(nameOf(path)));
}

Result<RelinkCandidates> RelinkCandidates::of(const Catalogue& catalogue) {
    const auto volumes = Volumes(catalogue).all();
    RETURN_IF_FAILED(volumes);
    std::unordered_map<VolumeId, BytePath> roots;
    for (const auto& volume : *volumes) {
        if (volume.atHand) {
            roots.emplace(volume.id, volume.root);
        }
    }
    RelinkCandidates candidates;
    const auto walked = Holdings(catalogue).eachPresent([&](PresentHolding&& holding) {
        const auto root = roots.find(holding.volume);
        if (root != roots.end() && !isInsideArchive(holding.path)) { // where no player opens it
            candidates.add({holding.id, joinPath(root->second, holding.path), holding.size, holding.seconds,
                            std::move(holding.title), std::move(holding.artist), std::move(holding.album),
                            holding.checksum});
        }
    });
    return walked ? Result<RelinkCandidates>(std::move(candidates)) : walked.error();
}

std::size_t RelinkCandidates::add(RelinkCandidate candidate) {
    const auto [place, isNew] = byPath_.emplace(candidate.path, all_.size());
    if (!isNew) {
        return place->second;
    }
    const auto at = all_.size();
    if (candidate.holding != 0) {
        byHolding_.emplace(candidate.holding, at);
    }
    byStem_[foldedStem(candidate.path)].push_back(at);
    if (const auto tags = tagKey(candidate.title, candidate.artist); !tags.empty()) {
        byTags_[tags].push_back(at);
    }
    if (candidate.content) {
        byContent_[keyOf(*candidate.content)].push_back(at);
    }
    all_.push_back(std::move(candidate));
    if (wordsIndexed_) {
        indexWordsOf(at);
    }
    return at;
}

std::optional<std::size_t> RelinkCandidates::at(const BytePath& path) const {
    const auto found = byPath_.find(path);
    return found != byPath_.end() ? std::optional(found->second) : std::nullopt;
}

std::optional<std::size_t> RelinkCandidates::holding(HoldingId id) const {
    const auto found = byHolding_.find(id);
    return found != byHolding_.end() ? std::optional(found->second) : std::nullopt;
}

std::span<const std::size_t> RelinkCandidates::named(std::string_view foldedStem) const {
    const auto found = byStem_.find(std::string(foldedStem));
    return found != byStem_.end() ? std::span<const std::size_t>(found->second)
                                  : std::span<const std::size_t>();
}

std::span<const std::size_t> RelinkCandidates::titled(const std::string& title,
                                                      const std::string& artist) const {
    const auto found = byTags_.find(tagKey(title, artist));
    return found != byTags_.end() ? std::span<const std::size_t>(found->second)
                                  : std::span<const std::size_t>();
}

std::span<const std::size_t> RelinkCandidates::carrying(const Checksum128& content) const {
    const auto found = byContent_.find(keyOf(content));
    return found != byContent_.end() ? std::span<const std::size_t>(found->second)
                                     : std::span<const std::size_t>();
}

std::span<const std::size_t> RelinkCandidates::calledLike(const std::string& words) {
    indexWords();
    const auto found = byWords_.find(words);
    return found != byWords_.end() ? std::span<const std::size_t>(found->second)
                                   : std::span<const std::size_t>();
}

std::span<const std::size_t> RelinkCandidates::calledLikeButForNumbers(const std::string& words) {
    indexWords();
    const auto found = byWordsAlone_.find(words);
    return found != byWordsAlone_.end() ? std::span<const std::size_t>(found->second)
                                        : std::span<const std::size_t>();
}

void RelinkCandidates::indexWords() {
    if (!wordsIndexed_) {
        wordsIndexed_ = true;
        for (std::size_t at = 0; at < all_.size(); ++at) {
            indexWordsOf(at);
        }
    }
}

void RelinkCandidates::indexWordsOf(std::size_t at) {
    const auto words = plainWords(stemOf(nameOf(all_[at].path)));
    byWords_[withoutZeros(words)].push_back(at);
    byWordsAlone_[withoutNumbers(words)].push_back(at);
}

Judgement judge(const LostPlace& lost, const RelinkCandidate& candidate) {
    Judgement judgement;
    const bool sameKind = endingOf(lost.path) == endingOf(candidate.path);
    bool otherContent = false;
    double seconds = lost.seconds;
    for (const auto& former : lost.former) {
        if (candidate.content && former.content == *candidate.content) {
            return {Agreement::sameContent, {"the same bytes as what was catalogued there"}};
        }
        otherContent = otherContent || (sameKind && (candidate.content || former.size != candidate.size));
        seconds = former.seconds > 0 ? former.seconds : seconds;
    }
    bool lengthAgrees = false;
    if (seconds > 0 && candidate.seconds > 0) {
        const double apart = std::abs(seconds - candidate.seconds);
        if (apart > differing) {
            return {Agreement::contradicts,
                    {fmt::format("another recording: {} long, not {}", humanSeconds(candidate.seconds),
                                 humanSeconds(seconds))}};
        }
        lengthAgrees = apart <= agreeing;
        if (lengthAgrees) {
            judgement.evidence.emplace_back("the same length");
        }
    }
    const auto& known = lost.former.empty() ? FormerHolding{} : lost.former.front();
    bool wordsAgree = false;
    judgement.agreement = Agreement::agrees;
    const auto name = stemOf(nameOf(lost.path));
    compareWords(judgement, "title", known.title.empty() ? lost.title : known.title, candidate.title, name,
                 wordsAgree);
    compareWords(judgement, "performer", known.artist.empty() ? lost.artist : known.artist, candidate.artist,
                 {}, wordsAgree);
    if (otherContent) {
        // New tags change a file too; that its sound is the same has to be shown by its audio data.
        judgement.evidence.emplace_back("not the bytes that were catalogued there");
        const auto outcome = wordsAgree && lengthAgrees ? Agreement::doubtful : Agreement::contradicts;
        return {std::min(judgement.agreement, outcome), std::move(judgement.evidence)};
    }
    if (judgement.agreement != Agreement::doubtful) {
        judgement.agreement = lengthAgrees && wordsAgree   ? Agreement::agrees
                              : lengthAgrees || wordsAgree ? Agreement::partly
                                                           : Agreement::silent;
    }
    return judgement;
}

} // namespace sober
