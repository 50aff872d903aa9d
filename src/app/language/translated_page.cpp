#include "app/language/translated_page.h"

#include "app/language/language.h"

#include <algorithm>
#include <array>
#include <string_view>

namespace sober::app {
namespace {

/// As base/text escapes them; the ampersand last.
constexpr std::array<std::pair<std::string_view, std::string_view>, 5> entities{
    {{"&lt;", "<"}, {"&gt;", ">"}, {"&quot;", "\""}, {"&apos;", "'"}, {"&amp;", "&"}}};

/// Words between tags, with the blanks around them as they were.
QString translatedText(const std::string& text) {
    const auto first = text.find_first_not_of(" \n");
    if (first == std::string::npos) {
        return QString::fromStdString(text);
    }
    const auto past = text.find_last_not_of(" \n") + 1;
    auto plain = text.substr(first, past - first);
    for (const auto& [written, meant] : entities) {
        for (auto at = plain.find(written); at != std::string::npos; at = plain.find(written, at + 1)) {
            plain.replace(at, written.size(), meant);
        }
    }
    return QString::fromStdString(text.substr(0, first)) + told(plain).toHtmlEscaped() +
           QString::fromStdString(text.substr(past));
}

} // namespace

std::string translatedPage(const std::string& html) {
    QString page;
    std::size_t at = 0;
    std::string_view leftAlone; // the tag that ends what is left alone
    while (at < html.size()) {
        const auto tag = std::min(html.find('<', at), html.size());
        const auto text = html.substr(at, tag - at);
        page += leftAlone.empty() ? translatedText(text) : QString::fromStdString(text);
        if (tag == html.size()) {
            break;
        }
        const auto past = std::min(html.find('>', tag), html.size() - 1) + 1;
        const std::string_view whole(html.data() + tag, past - tag);
        if (whole == "<code>" || whole == "<style>") {
            leftAlone = whole == "<code>" ? "</code>" : "</style>";
        } else if (whole == leftAlone) {
            leftAlone = {};
        }
        page += QString::fromUtf8(whole.data(), static_cast<qsizetype>(whole.size()));
        at = past;
    }
    return page
        .replace(QStringLiteral("<html lang=\"en\">"), QStringLiteral("<html lang=\"%1\">").arg(languageOn()))
        .toStdString();
}

} // namespace sober::app
