#include "core/audit/sameness.h"
#include "core/base/text.h"
#include "core/report/page.h"
#include "core/report/report_forms.h"
#include "core/report/report_pictures.h"

#include <fmt/format.h>

namespace sober {
namespace {

/// A table of which only the first rows are written.
class Table {
  public:
    /// Columns by their heads; one that begins with '#' holds figures.
    Table(std::initializer_list<std::string_view> heads, std::size_t mostRows) : left_(mostRows) {
        html_ = "<table>\n<thead><tr>";
        for (const auto head : heads) {
            const bool isFigure = head.starts_with('#');
            isFigure_.push_back(isFigure);
            html_ += fmt::format("<th{}>{}</th>",
                                 isFigure            ? " class=\"n\""
                                 : head == "Holding" ? " class=\"p\""
                                                     : "",
                                 pageText(head.substr(isFigure ? 1 : 0)));
        }
        html_ += "</tr></thead>\n<tbody>\n";
    }
    /// Cells as HTML. A row that begins something is set off from those above.
    void row(std::initializer_list<std::string> cells, bool begins = false) {
        if (left_ == 0) {
            ++more_;
            return;
        }
        --left_;
        html_ += begins ? "<tr class=\"first\">" : "<tr>";
        std::size_t column = 0;
        for (const auto& cell : cells) {
            html_ += fmt::format("<td{}>{}</td>", isFigure_[column++] ? " class=\"n\"" : "", cell);
        }
        html_ += "</tr>\n";
    }
    std::string html() const {
        return html_ + "</tbody></table>\n" +
               (more_ > 0 ? fmt::format("<p class=\"quiet\">And {}: the forms CSV and JSON list all.</p>\n",
                                        counted(more_, "more line"))
                          : std::string());
    }

  private:
    std::string html_;
    std::vector<bool> isFigure_;
    std::size_t left_;
    std::size_t more_ = 0;
};

std::string named(const ReportedHolding& holding) {
    return holding.path.empty()
               ? fmt::format("holding {} of {}", humanCount(holding.number), pageText(holding.volume))
               : "<code>" + pageText(holding.path) + "</code>";
}

std::string heading(std::string_view text) {
    return fmt::format("<h2>{}</h2>\n", pageText(text));
}

std::string paragraph(std::string_view text) {
    return fmt::format("<p>{}</p>\n", pageText(text));
}

std::string claimed(const Claims& claims) {
    return fmt::format("{}{}", pageText(claims.codec),
                       claims.lossless ? std::string(", lossless")
                                       : fmt::format(", {} kbit/s", (claims.bitrate + 500) / 1000));
}

std::string_view adviceWord(Advice advice) {
    return advice == Advice::keep ? "keep" : advice == Advice::retire ? "retire" : "yours to decide";
}

std::string conditionSection(const Report& report) {
    const auto& condition = report.condition;
    const auto& total = condition.total;
    std::string html = heading("Condition");
    html += paragraph(fmt::format("{}, {}, {} of audio on {}; {} held once only, {} examined.",
                                  counted(total.holdings, "holding"), humanBytes(total.bytes),
                                  humanSeconds(total.duration), counted(condition.volumes.size(), "volume"),
                                  humanCount(total.heldOnce), humanCount(total.examined)));
    html += volumesPicture(report);
    Table table({"What was found", "#How many"}, 20);
    const auto figure = [&](std::string_view what, std::uint64_t count) {
        table.row({std::string(what), humanCount(count)});
    };
    figure("sets of copies", condition.copySets);
    figure("claims that the evidence contradicts", total.claims);
    figure("holdings that do not decode whole or cannot be opened", total.troubled);
    figure("holdings that are no longer what was recorded", condition.drift);
    figure("missing holdings", total.missing);
    figure("references of players that lead nowhere", condition.brokenReferences);
    return html + table.html();
}

std::string copiesSection(const Report& report, std::size_t mostRows) {
    std::string html = heading("Copies");
    std::uint64_t frees = 0;
    for (const auto& set : report.sets) {
        frees += set.reclaimable;
    }
    html +=
        paragraph(report.sets.empty() ? "No recording was found twice."
                                      : fmt::format("{} of copies; following the advice frees {}.",
                                                    counted(report.sets.size(), "set"), humanBytes(frees)));
    if (report.sets.empty()) {
        return html;
    }
    html += copiesPicture(report);
    Table table({"#Set", "Holding", "#Size", "Advice", "Why"}, mostRows);
    for (std::size_t i = 0; i < report.sets.size(); ++i) {
        const auto& set = report.sets[i];
        for (std::size_t member = 0; member < set.members.size(); ++member) {
            const auto& each = set.members[member];
            const auto why = member == 0 ? pageText(samenessWords(set.sameness)) + "<br>" : std::string();
            table.row({humanCount(i + 1), named(each.holding), humanBytes(each.holding.size),
                       std::string(adviceWord(each.advice)), why + pageText(joined(each.reasons))},
                      member == 0);
        }
    }
    return html + table.html();
}

std::string claimsSection(const Report& report, std::size_t mostRows) {
    std::string html = heading("Claims");
    html += paragraph(report.claims.empty() ? "Nothing that was examined contradicts what its file states."
                                            : counted(report.claims.size(), "holding is", "holdings are") +
                                                  " not, or perhaps not, what the file states.");
    if (report.claims.empty()) {
        return html;
    }
    html += claimsPicture(report);
    Table table({"Holding", "States", "#Sound up to", "Verdict", "#Sure", "Why"}, mostRows);
    for (const auto& claim : report.claims) {
        const auto& verdict = claim.verdict;
        table.row({named(claim.holding), claimed(claim.claims),
                   claim.cutoff > 0 ? fmt::format("{:.1f} kHz", claim.cutoff / 1000) : "not known",
                   std::string(wordFor(verdict.verdict)) + (claim.accepted ? ", kept as it is" : ""),
                   fmt::format("{:.0f} %", 100 * verdict.confidence), pageText(joined(verdict.reasons))});
    }
    return html + table.html();
}

std::string damageSection(const Report& report, std::size_t mostRows) {
    std::string html = heading("Damage");
    html += paragraph(report.damage.empty() ? "All that was examined decodes whole."
                                            : counted(report.damage.size(), "holding does", "holdings do") +
                                                  " not decode whole, or cannot be opened as audio.");
    if (report.damage.empty()) {
        return html;
    }
    Table table({"Holding", "#At", "What"}, mostRows);
    for (const auto& damage : report.damage) {
        if (damage.problems.empty()) {
            table.row({named(damage.holding), "", "cannot be opened as audio"}, true);
        }
        for (const auto& problem : damage.problems) {
            table.row({named(damage.holding), humanSeconds(problem.at),
                       pageText(problem.kind + ": " + problem.detail)},
                      &problem == &damage.problems.front());
        }
    }
    return html + table.html();
}

std::string fixitySection(const Report& report, std::size_t mostRows) {
    std::string html = heading("Fixity");
    html += paragraph(report.drift.empty() ? "All that was read again is what was recorded."
                                           : counted(report.drift.size(), "holding is", "holdings are") +
                                                 " no longer what was recorded.");
    html += lastReadPicture(report);
    if (!report.drift.empty()) {
        Table table({"Holding", "How", "Found"}, mostRows);
        for (const auto& drift : report.drift) {
            std::string how(driftWord(drift.kind));
            std::ranges::replace(how, '-', ' ');
            table.row({named(drift.holding), how, localDay(drift.found)});
        }
        html += table.html();
    }
    if (!report.checks.empty()) {
        Table table({"Check", "Volume", "#Read", "#Drifted"}, mostRows);
        for (const auto& check : report.checks) {
            const auto volume = std::ranges::find(report.condition.volumes, check.volume, &Volume::id);
            table.row({localMinute(check.began) + (check.ended == 0 ? ", not ended" : ""),
                       volume != report.condition.volumes.end() ? pageText(volume->label) : std::string(),
                       fmt::format("{} of {}", humanCount(check.checked), humanCount(check.planned)),
                       humanCount(check.drifted)});
        }
        html += table.html();
    }
    return html;
}

std::string missingSection(const Report& report, std::size_t mostRows) {
    std::string html = heading("Missing");
    const auto lost = std::ranges::count(report.missing, 0U, &ReportedMissing::elsewhere);
    html += paragraph(report.missing.empty()
                          ? "Nothing that is recorded is missing."
                          : fmt::format("{} missing, {} of them held nowhere else.",
                                        counted(report.missing.size(), "holding is", "holdings are"),
                                        humanCount(static_cast<std::uint64_t>(lost))));
    if (report.missing.empty()) {
        return html;
    }
    Table table({"Holding", "#Size", "Last there", "#Held elsewhere"}, mostRows);
    for (const auto& missing : report.missing) {
        table.row({named(missing.holding), humanBytes(missing.holding.size),
                   missing.lastSeen != 0 ? localDay(missing.lastSeen) : "not known",
                   humanCount(missing.elsewhere)});
    }
    return html + table.html();
}

std::string proofsSection(const Report& report, std::size_t mostRows) {
    if (report.proofs.empty()) {
        return heading("Proven transfers") + paragraph("No transfer was proven.");
    }
    Table table({"#Transfer", "Where to", "Proven"}, mostRows);
    for (const auto& proof : report.proofs) {
        table.row({std::to_string(proof.transfer),
                   proof.folder.empty() ? "left out" : "<code>" + pageText(proof.folder) + "</code>",
                   localMinute(proof.proven)});
    }
    return heading("Proven transfers") + table.html();
}

} // namespace

std::string reportPage(const Report& report, std::size_t mostRows) {
    std::string html = pageBegin("What is known of the collection");
    html +=
        fmt::format("<p class=\"quiet\">Made by Sober Archivist on {}, from what was last read of each "
                    "volume.{}</p>\n",
                    localMinute(report.made),
                    report.choices.paths ? "" : " Paths and names are left out; a holding keeps its number.");
    const auto& parts = report.choices.parts;
    html += parts.contains(ReportPart::condition) ? conditionSection(report) : "";
    html += parts.contains(ReportPart::copies) ? copiesSection(report, mostRows) : "";
    html += parts.contains(ReportPart::claims) ? claimsSection(report, mostRows) : "";
    html += parts.contains(ReportPart::damage) ? damageSection(report, mostRows) : "";
    html += parts.contains(ReportPart::fixity) ? fixitySection(report, mostRows) : "";
    html += parts.contains(ReportPart::missing) ? missingSection(report, mostRows) : "";
    html += parts.contains(ReportPart::proofs) ? proofsSection(report, mostRows) : "";
    return html + pageEnd();
}

} // namespace sober
