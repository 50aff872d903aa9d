#include "app/language/sentence_book.h"

#include "app/language/local_form.h"

#include <algorithm>

namespace sober::app {
namespace {

/// Sentences within sentences within sentences: no more are made by the core.
constexpr int deepest = 6;

SentenceBook::Pattern patternFrom(std::string_view kinds, std::string_view text) {
    SentenceBook::Pattern pattern;
    pattern.key.assign(text);
    std::string literal;
    const auto hole = [&](bool words) {
        pattern.letters += literal.size();
        pattern.between.push_back(std::move(literal));
        literal.clear();
        pattern.words.push_back(words);
    };
    pattern.before = !text.empty() && std::string_view(" ,;:(").find(text.front()) != std::string_view::npos;
    pattern.after = text.size() > 1 && text.back() == ' ';
    if (pattern.before) {
        hole(true);
    }
    for (std::size_t i = 0; i < text.size(); ++i) {
        if (text[i] == '%' && i + 1 < text.size() && text[i + 1] >= '1' && text[i + 1] <= '9') {
            const auto number = static_cast<std::size_t>(text[i + 1] - '1');
            hole(number < kinds.size() && kinds[number] == 'w');
            ++i;
        } else {
            literal += text[i];
        }
    }
    if (pattern.after) {
        hole(true);
    }
    pattern.letters += literal.size();
    pattern.between.push_back(std::move(literal));
    return pattern;
}

/// The text of the holes where the sentence was made by the pattern. The literal parts are found from left to
/// right, the last one at the end.
bool fits(const SentenceBook::Pattern& pattern, const std::string& sentence,
          std::vector<std::string>& holes) {
    const auto& between = pattern.between;
    holes.clear();
    if (sentence.size() < pattern.letters ||
        sentence.compare(0, between.front().size(), between.front()) != 0) {
        return false;
    }
    if (between.size() == 1) {
        return sentence.size() == between.front().size();
    }
    const auto& last = between.back();
    const std::size_t end = sentence.size() - last.size();
    if (sentence.compare(end, last.size(), last) != 0) {
        return false;
    }
    std::size_t from = between.front().size();
    for (std::size_t i = 1; i + 1 < between.size(); ++i) {
        const auto at = between[i].empty() ? from : sentence.find(between[i], from);
        if (at == std::string::npos || at + between[i].size() > end) {
            return false;
        }
        holes.push_back(sentence.substr(from, at - from));
        from = at + between[i].size();
    }
    if (from > end) {
        return false;
    }
    holes.push_back(sentence.substr(from, end - from));
    return true;
}

} // namespace

SentenceBook::SentenceBook(std::string_view lines) {
    while (!lines.empty()) {
        const auto end = std::min(lines.find('\n'), lines.size());
        const auto line = lines.substr(0, end);
        lines.remove_prefix(std::min(end + 1, lines.size()));
        const auto tab = line.find('\t');
        if (tab == std::string_view::npos) {
            continue;
        }
        const auto first = line.substr(0, tab);
        const auto second = line.substr(tab + 1);
        if (first.starts_with('+')) {
            const auto one = QString::fromUtf8(first.data() + 1, static_cast<qsizetype>(first.size() - 1));
            ones_.insert(one, one);
            ones_.insert(QString::fromUtf8(second.data(), static_cast<qsizetype>(second.size())), one);
            continue;
        }
        std::string text(second);
        for (auto at = text.find("\\n"); at != std::string::npos; at = text.find("\\n", at)) {
            text.replace(at, 2, "\n");
        }
        patterns_.push_back(patternFrom(first, text));
    }
    // What says most comes first; of those that say as much, the one that asks least of its surroundings.
    std::stable_sort(patterns_.begin(), patterns_.end(), [](const Pattern& a, const Pattern& b) {
        const bool bound = a.before || a.after;
        const bool otherBound = b.before || b.after;
        return bound != otherBound ? otherBound : a.letters > b.letters;
    });
    for (std::size_t i = 0; i < patterns_.size(); ++i) {
        const auto& first = patterns_[i].between.front();
        byFirst_[first.empty() ? 0 : static_cast<unsigned char>(first.front())].push_back(i);
    }
}

std::vector<std::string> SentenceBook::counted() const {
    std::vector<std::string> all;
    for (auto each = ones_.begin(); each != ones_.end(); ++each) {
        if (each.key() == each.value()) {
            all.push_back(each.key().toStdString());
        }
    }
    std::sort(all.begin(), all.end());
    return all;
}

SentenceBook::Found SentenceBook::patternOf(const std::string& sentence) const {
    // Those that begin as it does, and those that begin with a hole.
    Found found;
    std::size_t best = patterns_.size();
    std::vector<std::string> holes;
    for (const auto first : {static_cast<unsigned char>(sentence.empty() ? 0 : sentence.front()),
                             static_cast<unsigned char>(0)}) {
        for (const auto at : byFirst_[first]) {
            if (at >= best) {
                break;
            }
            if (fits(patterns_[at], sentence, holes)) {
                best = at;
                found = {&patterns_[at], holes};
                break;
            }
        }
    }
    return found;
}

QString SentenceBook::numberOf(const std::string& text, const Count& count) const {
    const auto blank = text.find(' ');
    if (blank == std::string::npos || blank == 0 || text[0] < '0' || text[0] > '9') {
        return {};
    }
    const auto one = ones_.value(QString::fromStdString(text.substr(blank + 1)));
    if (one.isEmpty()) {
        return {};
    }
    std::string digits = text.substr(0, blank);
    std::erase(digits, ',');
    bool whole = false;
    const auto number = QString::fromStdString(digits).toLongLong(&whole);
    if (!whole) {
        return {};
    }
    // A number beyond an int takes the form of one that ends alike.
    const auto form = number <= 1'000'000'000 ? number : 1'000'000 + number % 1'000'000;
    const auto said = count(("%n " + one.toStdString()).c_str(), static_cast<int>(form));
    if (said.isEmpty()) {
        return {};
    }
    return QString(said).replace(QStringLiteral("%n"),
                                 inLocalForm(QString::fromStdString(text.substr(0, blank))));
}

QString SentenceBook::part(const std::string& text, bool words, const Translate& translate,
                           const Count& count, int depth) const {
    const auto asItIs = [&] { return QString::fromStdString(text); };
    if (!words || text.empty() || depth > deepest) {
        return asItIs();
    }
    const auto isLetter = [](char each) { return (each | 0x20) >= 'a' && (each | 0x20) <= 'z'; };
    if (std::none_of(text.begin(), text.end(), isLetter)) {
        return inLocalForm(asItIs());
    }
    if (const auto number = numberOf(text, count); !number.isEmpty()) {
        return number;
    }
    const auto found = patternOf(text);
    // Several sentences, one after the other, or several parts of one: where a pattern says as little as "%1
    // dB", it is of one part only.
    constexpr std::size_t littleSaid = 8;
    if (found.pattern == nullptr || found.pattern->letters < littleSaid) {
        for (const std::string_view end : {". ", "; ", ", ", ": "}) {
            const auto stop = text.find(end);
            if (stop != std::string::npos && stop + 2 < text.size() &&
                (found.pattern == nullptr || end == ". " || end == "; ")) {
                const auto first = text.substr(0, end == ". " ? stop + 1 : stop);
                return part(first, true, translate, count, depth + 1) +
                       QString::fromLatin1(end == ". " ? " " : end.data()) +
                       part(text.substr(stop + 2), true, translate, count, depth);
            }
        }
    }
    if (found.pattern == nullptr && text.size() > 1 && text.back() == '.') {
        return part(text.substr(0, text.size() - 1), true, translate, count, depth + 1) + QLatin1Char('.');
    }
    if (found.pattern == nullptr) {
        return inLocalForm(asItIs());
    }
    const auto& pattern = *found.pattern;
    QString result = translate(pattern.key.c_str());
    const std::size_t first = pattern.before ? 1 : 0;
    const std::size_t past = found.holes.size() - (pattern.after ? 1 : 0);
    QString filled;
    for (qsizetype i = 0; i < result.size(); ++i) {
        if (result[i] == QLatin1Char('%') && i + 1 < result.size() && result[i + 1].isDigit()) {
            const auto hole = first + static_cast<std::size_t>(result[i + 1].digitValue() - 1);
            if (hole >= first && hole < past) {
                filled += part(found.holes[hole], pattern.words[hole], translate, count, depth + 1);
                ++i;
                continue;
            }
        }
        filled += result[i];
    }
    if (pattern.before) {
        filled.prepend(part(found.holes.front(), true, translate, count, depth + 1));
    }
    if (pattern.after) {
        filled += part(found.holes.back(), true, translate, count, depth + 1);
    }
    return filled;
}

QString SentenceBook::told(const std::string& sentence, const Translate& translate,
                           const Count& count) const {
    return part(sentence, true, translate, count, 0);
}

} // namespace sober::app
