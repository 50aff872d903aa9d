#include "core/report/report_pictures.h"

#include "core/audit/sameness.h"
#include "core/base/text.h"
#include "core/report/page.h"

#include <fmt/format.h>

namespace sober {
namespace {

constexpr double width = 900;
constexpr double left = 150;  // of what is drawn, beside its labels
constexpr double right = 640; // of what is drawn, beside its figures
constexpr double rowHeight = 30;

std::string svg(double height, std::string_view title, const std::string& content) {
    return fmt::format("<svg viewBox=\"0 0 {:.0f} {:.0f}\" role=\"img\"><title>{}</title>\n{}</svg>\n", width,
                       height, pageText(title), content);
}

std::string text(double x, double y, std::string_view what, std::string_view more = {}) {
    return fmt::format("<text x=\"{:.1f}\" y=\"{:.1f}\"{}>{}</text>\n", x, y, more, pageText(what));
}

struct Share {
    std::uint64_t count = 0;
    std::string_view fill;
};

/// One bar of shares, `whole` as long as there is room for.
std::string bar(double y, std::span<const Share> shares, std::uint64_t whole) {
    std::string drawn;
    double at = left;
    for (const auto& share : shares) {
        const double length =
            whole == 0 ? 0 : (right - left) * static_cast<double>(share.count) / static_cast<double>(whole);
        if (share.count > 0) {
            drawn += fmt::format("<rect x=\"{:.1f}\" y=\"{:.1f}\" width=\"{:.1f}\" height=\"16\" fill=\"{}\" "
                                 "stroke=\"#1F2328\" stroke-width=\"0.7\"/>\n",
                                 at, y, std::max(length, 1.0), share.fill);
        }
        at += length;
    }
    return drawn;
}

/// What the shares' looks mean, in a row.
std::string legend(double y, std::span<const std::pair<std::string_view, std::string_view>> looks) {
    std::string drawn;
    double at = left;
    for (const auto& [fill, meaning] : looks) {
        drawn += fmt::format("<rect x=\"{:.1f}\" y=\"{:.1f}\" width=\"16\" height=\"12\" fill=\"{}\" "
                             "stroke=\"#1F2328\" stroke-width=\"0.7\"/>\n",
                             at, y - 10, fill);
        drawn += text(at + 22, y, meaning, " class=\"quiet\"");
        at += 40 + 7.2 * static_cast<double>(meaning.size());
    }
    return drawn;
}

/// Told apart on black and white paper too.
constexpr std::string_view hatches =
    "<defs><pattern id=\"lines\" width=\"6\" height=\"6\" patternUnits=\"userSpaceOnUse\"><rect width=\"6\" "
    "height=\"6\" fill=\"#DCE8E6\"/><path d=\"M0 6 6 0\" stroke=\"#1D5C63\"/></pattern><pattern id=\"dots\" "
    "width=\"6\" height=\"6\" patternUnits=\"userSpaceOnUse\"><rect width=\"6\" height=\"6\" "
    "fill=\"#F4F0E6\"/>"
    "<circle cx=\"3\" cy=\"3\" r=\"1.2\" fill=\"#7E5F10\"/></pattern></defs>\n";

constexpr std::string_view solid = "#1D5C63";
constexpr std::string_view lined = "url(#lines)";
constexpr std::string_view dotted = "url(#dots)";
constexpr std::string_view empty = "#FFFFFF";

} // namespace

std::string volumesPicture(const Report& report) {
    const auto& condition = report.condition;
    std::uint64_t most = 1;
    for (const auto& figures : condition.figures) {
        most = std::max(most, figures.holdings + figures.missing);
    }
    std::string drawn(hatches);
    double y = 10;
    for (std::size_t i = 0; i < condition.volumes.size(); ++i) {
        const auto& figures = condition.figures[i];
        drawn += text(left - 10, y + 13, condition.volumes[i].label, " text-anchor=\"end\"");
        const std::array shares{Share{figures.heldOnce, lined},
                                Share{figures.holdings - figures.heldOnce, solid},
                                Share{figures.missing, empty}};
        drawn += bar(y, shares, most);
        drawn += text(right + 12, y + 13,
                      fmt::format("{}, {}{}", counted(figures.holdings, "holding"), humanBytes(figures.bytes),
                                  condition.volumes[i].atHand ? "" : ", away"));
        y += rowHeight;
    }
    constexpr std::array<std::pair<std::string_view, std::string_view>, 3> looks{
        {{lined, "held once"}, {solid, "held more than once"}, {empty, "missing"}}};
    return svg(y + 26, "Holdings of each volume: held once, held more than once, missing",
               drawn + legend(y + 12, looks));
}

std::string copiesPicture(const Report& report) {
    std::map<Sameness, std::pair<std::uint64_t, std::uint64_t>> kinds; // sets, bytes
    std::uint64_t most = 1;
    for (const auto& set : report.sets) {
        auto& [sets, bytes] = kinds[set.sameness];
        ++sets;
        bytes += set.reclaimable;
        most = std::max(most, bytes);
    }
    std::string drawn(hatches);
    double y = 10;
    for (const auto& [sameness, figures] : kinds) {
        drawn += text(left, y + 11, samenessWords(sameness));
        const std::array shares{Share{figures.second, solid}};
        drawn += bar(y + 18, shares, most);
        drawn += text(right + 12, y + 31,
                      fmt::format("{}, {}", counted(figures.first, "set"), humanBytes(figures.second)));
        y += rowHeight + 16;
    }
    return svg(y + 6, "What following the advice frees, by how the copies are the same", drawn);
}

std::string claimsPicture(const Report& report) {
    constexpr double top = 16;
    constexpr double bottom = 260;
    static constexpr double highest = 24'000;   // Hz
    static constexpr double mostRate = 360'000; // bit/s, of lossy claims
    constexpr double lossyRight = 600;          // lossless claims stand beside the lossy ones
    constexpr double losslessAt = 720;
    const auto yOf = [](double hertz) {
        return bottom - (bottom - top) * std::min(hertz, highest) / highest;
    };
    const auto xOf = [](double rate) {
        return left + (lossyRight - left) * std::min(rate, mostRate) / mostRate;
    };
    std::string drawn;
    for (const int kilohertz : {0, 4, 8, 12, 16, 20, 24}) {
        const double y = yOf(1000.0 * kilohertz);
        drawn += fmt::format("<path d=\"M{} {:.1f}H{}\" stroke=\"#D9D2C2\"/>\n", left, y, losslessAt + 80);
        drawn +=
            text(left - 10, y + 4, fmt::format("{} kHz", kilohertz), " text-anchor=\"end\" class=\"quiet\"");
    }
    for (const int kilobits : {64, 128, 192, 256, 320}) {
        drawn += text(xOf(1000.0 * kilobits), bottom + 20, fmt::format("{} kbit/s", kilobits),
                      " text-anchor=\"middle\" class=\"quiet\"");
    }
    drawn += text(losslessAt, bottom + 20, "lossless", " text-anchor=\"middle\" class=\"quiet\"");
    std::size_t lossless = 0;
    for (const auto& claim : report.claims) {
        if (claim.cutoff <= 0) {
            continue;
        }
        // Side by side where they would cover each other.
        const double x = claim.claims.lossless ? losslessAt - 60 + 8 * static_cast<double>(lossless++ % 16)
                                               : xOf(static_cast<double>(claim.claims.bitrate));
        drawn += claim.verdict.verdict == VerdictClass::transcoded
                     ? fmt::format("<circle cx=\"{:.1f}\" cy=\"{:.1f}\" r=\"4.5\" fill=\"#9B2F2A\"/>\n", x,
                                   yOf(claim.cutoff))
                     : fmt::format("<circle cx=\"{:.1f}\" cy=\"{:.1f}\" r=\"4\" fill=\"none\" "
                                   "stroke=\"#7E5F10\" stroke-width=\"2\"/>\n",
                                   x, yOf(claim.cutoff));
    }
    drawn += "<circle cx=\"156\" cy=\"300\" r=\"4.5\" fill=\"#9B2F2A\"/>\n";
    drawn += text(168, 304, "transcoded", " class=\"quiet\"");
    drawn += "<circle cx=\"266\" cy=\"300\" r=\"4\" fill=\"none\" stroke=\"#7E5F10\" stroke-width=\"2\"/>\n";
    drawn += text(278, 304, "doubtful", " class=\"quiet\"");
    return svg(316, "What the files state against the frequency up to which there is sound", drawn);
}

std::string lastReadPicture(const Report& report) {
    std::string drawn(hatches);
    double y = 10;
    for (const auto& read : report.lastRead) {
        std::uint64_t all = 0;
        for (const auto count : read.holdings) {
            all += count;
        }
        drawn += text(left - 10, y + 13, read.volume, " text-anchor=\"end\"");
        const std::array shares{Share{read.holdings[0], solid}, Share{read.holdings[1], lined},
                                Share{read.holdings[2], dotted}, Share{read.holdings[3], empty}};
        drawn += bar(y, shares, all);
        drawn += text(
            right + 12, y + 13,
            fmt::format("{} of {} read within a year", humanCount(all - read.holdings[3]), humanCount(all)));
        y += rowHeight;
    }
    constexpr std::array<std::pair<std::string_view, std::string_view>, 4> looks{
        {{solid, "30 days"}, {lined, "180 days"}, {dotted, "a year"}, {empty, "longer ago"}}};
    return svg(y + 26, "How long ago the holdings of each volume were last read from end to end",
               drawn + legend(y + 12, looks));
}

} // namespace sober
