#pragma once

#include "core/catalogue/records.h"
#include "core/media/tag_fields.h"

#include <map>
#include <set>
#include <span>

namespace sober {

/// What a field is proposed to be otherwise for.
enum class ProposedFor {
    encoding,     ///< it was read in another encoding than it was written in
    spaces,       ///< spaces and characters that cannot be seen
    advertising,  ///< it advertises
    number,       ///< it is no plain number
    fromName,     ///< it is missing, and the file's name or folder tells it
    spelling,     ///< the collection spells that artist otherwise
    albumArtist,  ///< an album of several artists names none of its own
    genre,        ///< it is missing, and the collection files that artist under one
    picture,      ///< it is missing, and a picture lies beside the file
    largePicture, ///< it is far larger than it is ever shown
};
std::string_view word(ProposedFor reason);

struct TagProposal {
    std::string field; ///< as in TagFields; "PICTURE" for one
    std::string now;   ///< "" where it is missing
    std::string shall; ///< "" where it is to go
    ProposedFor reason = ProposedFor::spaces;
    std::string why; ///< the evidence, a sentence
    std::optional<Picture> picture;
};

/// How a collection calls its artists and files them.
class CollectionNames {
  public:
    void add(const std::string& artist, const std::string& genre);

    /// The spelling that most holdings of an artist have, where it is another and three times as usual (no
    /// source).
    struct Usual {
        std::string spelling;
        std::size_t holdings = 0;
    };
    std::optional<Usual> usualSpelling(const std::string& artist) const;
    /// The genre of nearly all holdings of an artist.
    std::optional<Usual> usualGenre(const std::string& artist) const;

  private:
    static std::string keyOf(const std::string& artist);
    std::map<std::string, std::map<std::string, std::size_t>> spellings_;
    std::map<std::string, std::map<std::string, std::size_t>> genres_;
};

/// A file whose tags are looked at.
struct TaggedFile {
    BytePath path; ///< absolute
    TagFields tags;
};

/// What is proposed for each file, in their order; files of one folder and album are looked at together.
/// `pictures` are cover pictures by the folder in which they lie. Clean tags get none. All of it is by rules
/// of the trade; no source.
std::vector<std::vector<TagProposal>> proposeTags(std::span<const TaggedFile> files,
                                                  const CollectionNames& names,
                                                  const std::map<BytePath, Picture>& pictures);

/// What is written if all of them are taken.
TagChange changeOf(std::span<const TagProposal> proposals);

} // namespace sober
