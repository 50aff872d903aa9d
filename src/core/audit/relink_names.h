#pragma once

#include "core/audit/relink_candidates.h"

namespace sober {

/// What a file's new name is put together from: all of it was known of the place that was lost.
enum class NamePart {
    name,          ///< the old name
    unnumbered,    ///< the old name without the number that it begins with
    number,        ///< that number, however many zeros stand before it
    folder,        ///< the folder it lay in
    folderAbove,   ///< the folder above that
    title,         ///< of its tags, as the catalogue or a list knows them
    performer,     ///<
    album,         ///<
    anotherNumber, ///< digits of which nothing is known
};

/// How letters that are not plain ones were written.
enum class LetterForm {
    plain,    ///< without their marks
    expanded, ///< "ü" as "ue", "å" as "aa"
    latin,    ///< Cyrillic letters in Latin ones
};

/// How the names of files follow from what they were called before, whatever stands between the parts and in
/// whatever case. No parts: they are called as they were.
struct Naming {
    std::vector<NamePart> parts;
    LetterForm letters = LetterForm::plain;

    /// How many folders went into the name.
    std::size_t foldersUsed() const;
    bool isKept() const { return parts.empty(); }
    bool hasAnotherNumber() const;
    auto operator<=>(const Naming&) const = default;
};

/// The words of a name: letters and digits in lower case without accents, parted by single blanks.
std::string plainWords(std::string_view text, LetterForm letters = LetterForm::plain);
/// The same with those that are only digits left out, or without the zeros before them.
std::string withoutNumbers(std::string_view words);
std::string withoutZeros(std::string_view words);

/// Every way in which a file may have got its name from what is known of a lost place, the plainest first;
/// none where its name tells of something else. A dozen at most.
std::vector<Naming> namingsOf(const LostPlace& lost, const RelinkCandidate& target);

/// The words of the name that a lost place's file has now, without its ending, without zeros and without
/// numbers of which nothing is known; nothing where a part is not known of this place.
std::optional<std::string> nameBy(const Naming& naming, const LostPlace& lost);
/// "named by folder and old name, in plain letters"; "" where names are kept.
std::string wordsOf(const Naming& naming);

} // namespace sober
