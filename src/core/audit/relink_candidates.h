#pragma once

#include "core/catalogue/catalogue.h"
#include "core/catalogue/former_places.h"

#include <span>
#include <unordered_map>

namespace sober {

/// A place where references lead and nothing is, with all that is known of what they mean.
struct LostPlace {
    BytePath path;     ///< absolute, or as another machine wrote it
    BytePath nearly;   ///< a file that is there under nearly that name; "" for none
    std::string title; ///< as the lists say, "" and negative where they do not
    std::string artist;
    std::string album;
    double seconds = -1;
    std::vector<FormerHolding> former; ///< what was catalogued there, or was what the references led to
    BytePath within;                   ///< a volume's root that the target must not leave; "" for anywhere
    std::uint64_t references = 0;
};

/// A file that may be what a lost place meant.
struct RelinkCandidate {
    HoldingId holding = 0; ///< 0: met in a folder that was shown, not catalogued
    BytePath path;         ///< absolute
    std::uint64_t size = 0;
    double seconds = 0;
    std::string title;
    std::string artist;
    std::string album;
    std::optional<Checksum128> content;
};

/// All files that are there, to be found by path, name or content.
class RelinkCandidates {
  public:
    /// The present holdings on volumes at hand.
    static Result<RelinkCandidates> of(const Catalogue& catalogue);

    /// Adds a file that is not among them yet.
    std::size_t add(RelinkCandidate candidate);

    const RelinkCandidate& operator[](std::size_t at) const { return all_[at]; }
    std::size_t size() const { return all_.size(); }
    std::optional<std::size_t> at(const BytePath& path) const;
    std::optional<std::size_t> holding(HoldingId id) const;
    /// Under this name without its ending, letter case and normalisation ignored.
    std::span<const std::size_t> named(std::string_view foldedStem) const;
    /// With these words as title and performer; none where one of both is empty.
    std::span<const std::size_t> titled(const std::string& title, const std::string& artist) const;
    std::span<const std::size_t> carrying(const Checksum128& content) const;
    /// Those of which the names make these words (`withoutZeros`, `withoutNumbers` in relink_names.h).
    std::span<const std::size_t> calledLike(const std::string& words);
    std::span<const std::size_t> calledLikeButForNumbers(const std::string& words);

  private:
    void indexWords();
    void indexWordsOf(std::size_t at);

    std::vector<RelinkCandidate> all_;
    std::unordered_map<BytePath, std::size_t> byPath_;
    std::unordered_map<HoldingId, std::size_t> byHolding_;
    std::unordered_map<std::string, std::vector<std::size_t>> byStem_;
    std::unordered_map<std::string, std::vector<std::size_t>> byTags_;
    std::unordered_map<std::string, std::vector<std::size_t>> byContent_;
    /// Only once they are asked for: few libraries need them.
    std::unordered_map<std::string, std::vector<std::size_t>> byWords_;
    std::unordered_map<std::string, std::vector<std::size_t>> byWordsAlone_;
    bool wordsIndexed_ = false;
};

/// The folded name without its ending.
std::string foldedStem(std::string_view path);

/// How what is known of a lost place and of a file agree.
enum class Agreement {
    contradicts = 0, ///< another recording: other length, other content under the same kind of file
    doubtful = 1,    ///< may be it, and something differs: to be asked
    silent = 2,      ///< nothing but the name is known
    partly = 3,      ///< length or tags agree
    agrees = 4,      ///< length and tags agree
    sameContent = 5,
};

struct Judgement {
    Agreement agreement = Agreement::silent;
    std::vector<std::string> evidence; ///< in words
};

Judgement judge(const LostPlace& lost, const RelinkCandidate& candidate);

} // namespace sober
