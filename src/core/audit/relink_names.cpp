#include "core/audit/relink_names.h"

#include "core/base/text.h"

#include <algorithm>
#include <array>

namespace sober {
namespace {

constexpr std::size_t mostNamings = 12;
constexpr std::size_t mostParts = 4;

struct Spelling {
    std::string_view letter;
    std::string_view written;
};

/// Composed and, as some file systems write names, decomposed. Common practice, no source.
constexpr std::array<Spelling, 18> expansions{{{"ä", "ae"},
                                               {"ö", "oe"},
                                               {"ü", "ue"},
                                               {"Ä", "Ae"},
                                               {"Ö", "Oe"},
                                               {"Ü", "Ue"},
                                               {"å", "aa"},
                                               {"Å", "Aa"},
                                               {"ø", "oe"},
                                               {"Ø", "Oe"},
                                               {"a\u0308", "ae"},
                                               {"o\u0308", "oe"},
                                               {"u\u0308", "ue"},
                                               {"A\u0308", "Ae"},
                                               {"O\u0308", "Oe"},
                                               {"U\u0308", "Ue"},
                                               {"a\u030A", "aa"},
                                               {"A\u030A", "Aa"}}};

/// Lower-case Cyrillic as passports write it (ICAO Doc 9303, part 3, section 6, table B), from memory.
constexpr std::array<Spelling, 34> latinLetters{
    {{"а", "a"},  {"б", "b"},  {"в", "v"},  {"г", "g"},  {"д", "d"},  {"е", "e"},    {"ё", "e"},
     {"ж", "zh"}, {"з", "z"},  {"и", "i"},  {"й", "i"},  {"к", "k"},  {"л", "l"},    {"м", "m"},
     {"н", "n"},  {"о", "o"},  {"п", "p"},  {"р", "r"},  {"с", "s"},  {"т", "t"},    {"у", "u"},
     {"ф", "f"},  {"х", "kh"}, {"ц", "ts"}, {"ч", "ch"}, {"ш", "sh"}, {"щ", "shch"}, {"ъ", "ie"},
     {"ы", "y"},  {"ь", ""},   {"э", "e"},  {"ю", "iu"}, {"я", "ia"}, {"і", "i"}}};

template <std::size_t Count>
std::string respelled(std::string text, const std::array<Spelling, Count>& spellings) {
    for (const auto& [letter, written] : spellings) {
        for (auto at = text.find(letter); at != std::string::npos;
             at = text.find(letter, at + written.size())) {
            text.replace(at, letter.size(), written);
        }
    }
    return text;
}

bool isDigits(std::string_view word) {
    return !word.empty() && std::ranges::all_of(word, [](char c) { return c >= '0' && c <= '9'; });
}

std::string_view firstWord(std::string_view words) {
    return words.substr(0, words.find(' '));
}

std::string_view digitsFrom(std::string_view digits) {
    const auto first = digits.find_first_not_of('0');
    return first == std::string_view::npos ? digits.substr(digits.size() - 1) : digits.substr(first);
}

/// Tools add zeros and take them away.
std::string keyOfWords(std::string_view text, LetterForm letters = LetterForm::plain) {
    return withoutZeros(plainWords(text, letters));
}

/// What each part says of one lost place, in plain words; "" for nothing.
class KnownParts {
  public:
    KnownParts(const LostPlace& lost, LetterForm letters) {
        const auto known = lost.former.empty() ? FormerHolding() : lost.former.front();
        const auto tag = [&](const std::string& catalogued, const std::string& listed) {
            return keyOfWords(catalogued.empty() ? listed : catalogued, letters);
        };
        const auto folder = parentOf(lost.path);
        of(NamePart::name) = keyOfWords(stemOf(nameOf(lost.path)), letters);
        const auto first = firstWord(of(NamePart::name));
        if (isDigits(first) && first.size() < of(NamePart::name).size()) {
            of(NamePart::number) = first;
            of(NamePart::unnumbered) = of(NamePart::name).substr(first.size() + 1);
        }
        of(NamePart::folder) = keyOfWords(nameOf(folder), letters);
        of(NamePart::folderAbove) = keyOfWords(nameOf(parentOf(folder)), letters);
        of(NamePart::title) = tag(known.title, lost.title);
        of(NamePart::performer) = tag(known.artist, lost.artist);
        of(NamePart::album) = tag(known.album, lost.album);
    }

    const std::string& operator[](NamePart part) const { return words_[static_cast<std::size_t>(part)]; }

  private:
    std::string& of(NamePart part) { return words_[static_cast<std::size_t>(part)]; }

    std::array<std::string, 9> words_;
};

/// Lays the parts end to end over a name.
class NamingSearch {
  public:
    NamingSearch(const KnownParts& known, std::string_view name, LetterForm letters)
        : known_(known), name_(name), letters_(letters) {}

    std::vector<Naming> all() {
        goOn(0);
        // What needs fewer parts is the likelier story.
        std::ranges::stable_sort(found_, {}, [](const Naming& naming) { return naming.parts.size(); });
        found_.resize(std::min(found_.size(), mostNamings));
        return std::move(found_);
    }

  private:
    void goOn(std::size_t at) {
        if (at >= name_.size()) {
            if (tellsOfIt()) {
                found_.push_back({parts_, letters_});
            }
            return;
        }
        if (parts_.size() == mostParts) {
            return;
        }
        constexpr std::array order{NamePart::name,   NamePart::unnumbered,  NamePart::folder,
                                   NamePart::number, NamePart::title,       NamePart::performer,
                                   NamePart::album,  NamePart::folderAbove, NamePart::anotherNumber};
        for (const auto part : order) {
            const auto length = lengthOf(part, name_.substr(at));
            if (length > 0 && std::ranges::find(parts_, part) == parts_.end()) {
                parts_.push_back(part);
                goOn(at + length + 1);
                parts_.pop_back();
            }
        }
    }

    /// Of what stands at the beginning of `rest`; 0 where the part does not stand there.
    std::size_t lengthOf(NamePart part, std::string_view rest) const {
        const auto word = firstWord(rest);
        const auto& said = known_[part];
        if (part == NamePart::anotherNumber) {
            return isDigits(word) && word != known_[NamePart::number] ? word.size() : 0;
        }
        const bool stands = !said.empty() && rest.starts_with(said) &&
                            (rest.size() == said.size() || rest[said.size()] == ' ');
        return stands ? said.size() : 0;
    }

    /// A folder or a performer alone is what many files have in common.
    bool tellsOfIt() const {
        const auto has = [&](NamePart part) { return std::ranges::find(parts_, part) != parts_.end(); };
        return has(NamePart::name) || has(NamePart::unnumbered) || has(NamePart::title) ||
               (has(NamePart::number) && (has(NamePart::folder) || has(NamePart::album)));
    }

    const KnownParts& known_;
    std::string_view name_;
    LetterForm letters_;
    std::vector<NamePart> parts_;
    std::vector<Naming> found_;
};

/// Words with what `put` makes of those that are only digits.
template <typename Put>
std::string eachNumber(std::string_view words, Put put) {
    std::string all;
    while (!words.empty()) {
        const auto word = firstWord(words);
        const auto kept = isDigits(word) ? put(word) : word;
        all += all.empty() || kept.empty() ? "" : " ";
        all += kept;
        words.remove_prefix(std::min(words.size(), word.size() + 1));
    }
    return all;
}

bool isAsciiText(std::string_view text) {
    return std::ranges::all_of(text, [](char c) { return static_cast<unsigned char>(c) < 0x80; });
}

std::string_view wordOf(NamePart part) {
    switch (part) {
    case NamePart::name:
        return "old name";
    case NamePart::unnumbered:
        return "old name without its number";
    case NamePart::number:
        return "number";
    case NamePart::folder:
        return "folder";
    case NamePart::folderAbove:
        return "the folder above";
    case NamePart::title:
        return "title";
    case NamePart::performer:
        return "performer";
    case NamePart::album:
        return "album";
    case NamePart::anotherNumber:
        return "another number";
    }
    return {};
}

} // namespace

bool Naming::hasAnotherNumber() const {
    return std::ranges::find(parts, NamePart::anotherNumber) != parts.end();
}

std::size_t Naming::foldersUsed() const {
    const auto has = [&](NamePart part) { return std::ranges::find(parts, part) != parts.end(); };
    return has(NamePart::folderAbove) ? 2 : has(NamePart::folder) ? 1 : 0;
}

std::string plainWords(std::string_view text, LetterForm letters) {
    std::string folded;
    if (letters == LetterForm::expanded) {
        folded = foldedForSearch(respelled(std::string(text), expansions));
    } else {
        folded = foldedForSearch(text);
        if (letters == LetterForm::latin) {
            folded = respelled(std::move(folded), latinLetters);
        }
    }
    std::string words;
    bool parted = false;
    for (const char c : folded) {
        const bool isWord =
            (c >= 'a' && c <= 'z') || (c >= '0' && c <= '9') || static_cast<unsigned char>(c) >= 0x80;
        if (isWord) {
            words += parted && !words.empty() ? " " : "";
            words += c;
        }
        parted = !isWord && (parted || c != '\'');
    }
    return words;
}

std::string withoutNumbers(std::string_view words) {
    return eachNumber(words, [](std::string_view) { return std::string_view(); });
}

std::string withoutZeros(std::string_view words) {
    return eachNumber(words, digitsFrom);
}

std::vector<Naming> namingsOf(const LostPlace& lost, const RelinkCandidate& target) {
    const auto name = keyOfWords(stemOf(nameOf(target.path)));
    std::vector<Naming> all;
    for (const auto letters : {LetterForm::plain, LetterForm::expanded, LetterForm::latin}) {
        if (letters != LetterForm::plain && (!all.empty() || isAsciiText(lost.path))) {
            break;
        }
        const KnownParts known(lost, letters);
        all = NamingSearch(known, name, letters).all();
    }
    return all;
}

std::optional<std::string> nameBy(const Naming& naming, const LostPlace& lost) {
    const KnownParts known(lost, naming.letters);
    std::string name;
    for (const auto part : naming.parts) {
        if (part == NamePart::anotherNumber) {
            continue;
        }
        const auto& words = known[part];
        if (words.empty()) {
            return std::nullopt;
        }
        name += name.empty() ? "" : " ";
        name += words;
    }
    return naming.hasAnotherNumber() ? withoutNumbers(name) : name;
}

std::string wordsOf(const Naming& naming) {
    if (naming.isKept()) {
        return {};
    }
    std::string words;
    const auto only = naming.parts.size() == 1 ? std::optional(naming.parts.front()) : std::nullopt;
    if (only == NamePart::name) {
        words = "the names written otherwise";
    } else if (only == NamePart::unnumbered) {
        words = "the number left out";
    } else {
        words = "named by ";
        for (std::size_t at = 0; at < naming.parts.size(); ++at) {
            words += at == 0 ? "" : at + 1 == naming.parts.size() ? " and " : ", ";
            words += wordOf(naming.parts[at]);
        }
    }
    words += naming.letters == LetterForm::expanded ? ", \"ü\" as \"ue\" and the like"
             : naming.letters == LetterForm::latin  ? ", in Latin letters"
                                                    : "";
    return words;
}

} // namespace sober
