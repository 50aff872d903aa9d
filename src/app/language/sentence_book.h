#pragma once

#include <QHash>
#include <QString>

#include <array>
#include <functional>
#include <string>
#include <string_view>
#include <vector>

namespace sober::app {

/// The core's sentences in the custodian's language.
///
/// The core speaks English alone: what it says is printed by the headless command and kept in the catalogue,
/// where it outlives a change of language. The window knows the patterns of those sentences
/// (translations/sentences.txt, read off the core's sources by scripts/collect-sentences), finds the one that
/// a sentence was made by, and puts what was put in into the pattern's translation. A hole that holds words
/// is told in the same way; one that holds a name or a path is left alone. What no pattern fits stays as it
/// is.
class SentenceBook {
  public:
    /// The translation of a pattern, with its %1, %2, …; what it is given where there is none.
    using Translate = std::function<QString(const char* pattern)>;
    /// The translation of "%n holding" and the like for a number.
    using Count = std::function<QString(const char* pattern, int number)>;

    /// From the text of sentences.txt. Lines that make no sense are left out.
    explicit SentenceBook(std::string_view lines);

    /// The sentence, translated; nothing where no pattern fits it.
    QString told(const std::string& sentence, const Translate& translate, const Count& count) const;

    struct Pattern {
        std::string key; ///< what is translated
        std::vector<std::string>
            between;             ///< the literal text around the holes: one more than there are holes
        std::vector<bool> words; ///< of each hole, whether it holds words
        bool before = false;     ///< follows something: its first hole stands in no key
        bool after = false;      ///< something follows it: its last hole stands in no key
        std::size_t letters = 0; ///< how much of it is not hole
    };
    const std::vector<Pattern>& patterns() const { return patterns_; }
    /// What is counted, in the singular.
    std::vector<std::string> counted() const;

  private:
    struct Found {
        const Pattern* pattern = nullptr;
        std::vector<std::string> holes;
    };
    Found patternOf(const std::string& sentence) const;
    QString part(const std::string& text, bool words, const Translate& translate, const Count& count,
                 int depth) const;
    QString numberOf(const std::string& text, const Count& count) const;

    std::vector<Pattern> patterns_; ///< the most telling first
    std::array<std::vector<std::size_t>, 256>
        byFirst_;                  ///< by their first byte; those that begin with a hole at 0
    QHash<QString, QString> ones_; ///< plural and singular → singular, of what is counted
};

} // namespace sober::app
