#pragma once

#include "core/audit/set_choice.h"
#include "core/media/small_picture.h"
#include "core/media/tag_fields.h"

#include <span>

namespace sober {

/// A value that others have for a field.
struct OfferedValue {
    std::vector<std::string> values;
    std::vector<std::size_t> from; ///< into the others
};

/// A field of which others know more than the keeper, or something else.
struct FieldOffer {
    std::string field;
    std::vector<std::string> kept; ///< the keeper's; empty where it lacks the field
    std::vector<OfferedValue> offered;

    /// The keeper says something else, or the others do not agree.
    bool isConflict() const { return !kept.empty() || offered.size() > 1; }
};

struct OfferedPicture {
    Picture picture;
    std::vector<std::size_t> from;
    SmallPicture small = {}; ///< to be shown; empty where it is of no kind that we know
};

/// What the other copies know that the one that stays does not.
struct TagTakeover {
    std::vector<FieldOffer> fields; ///< by name
    std::vector<OfferedPicture> pictures;
    bool keeperHasPicture = false;

    bool isEmpty() const { return fields.empty() && pictures.empty(); }
};

/// Fields that tell of the file itself (its encoder, length, playback gain) are not offered.
TagTakeover takeoverOf(const TagFields& keeper, std::span<const TagFields> others);

/// Everything that the keeper lacks and on which the others agree.
TagChange agreedChange(const TagTakeover& takeover);

/// What is written into a better file so that a recording keeps its tags: all that the old one says or, where
/// the new one's are taken, only what that lacks. A picture comes along where the new one has none.
TagChange keptTags(const TagFields& old, const TagFields& fresh, bool takeFresh);

/// The member that stays: the one decided on, else the one advised. Nothing where there is none, or where it
/// is told to be retired.
std::optional<std::size_t> stayingMember(const SetDetail& detail);

/// Reads the tags of a set's members that are at hand, the keeper's first; what cannot be read says nothing.
struct SetTags {
    std::size_t keeper = 0;          ///< among the members
    std::vector<std::size_t> others; ///< likewise
    TagTakeover takeover;            ///< `from` are places in `others`
};
Result<SetTags> readSetTags(const SetDetail& detail, std::size_t keeper, std::span<const Volume> volumes);

/// What another file says that this one does not, or says otherwise, with small pictures; nothing where the
/// tags of one cannot be read.
TagTakeover takeoverOfFiles(const BytePath& keeper, const BytePath& other);

/// Puts the change on the docket. Cause::refused where the keeper stands there to be retired.
Outcome planRetag(const Catalogue& catalogue, HoldingId keeper, const TagChange& change,
                  const std::string& from);

} // namespace sober
