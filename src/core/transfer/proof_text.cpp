// A proof as it is kept: the other half of proof.h.
#include "core/base/text.h"
#include "core/exchange/checksum_list.h"
#include "core/report/page.h"
#include "core/transfer/proof.h"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

namespace sober {
namespace {

std::string verdictOf(const TransferProof& proof) {
    const auto wrong = proof.wrong().size();
    return proof.interrupted ? "Stopped before everything was looked at: this proves nothing yet."
           : wrong == 0      ? "Everything is at its new place, byte for byte, and plays from there."
                             : counted(wrong, "thing is", "things are") + " not as it has to be.";
}

} // namespace

std::string htmlOf(const TransferProof& proof) {
    std::string html = pageBegin(fmt::format("Proof of transfer {}", proof.transfer.id));
    html += fmt::format(
        "<p>{}</p>\n<table>\n"
        "<tr><td>What came along</td><td>{}</td></tr>\n<tr><td>Where to</td><td><code>{}</code></td></tr>\n"
        "<tr><td>Proven</td><td>{}</td></tr>\n<tr><td>Files read back</td><td>{}, {}</td></tr>\n"
        "<tr><td>Entries of lists</td><td>{} of {} begin to play</td></tr>\n"
        "<tr><td>In no list, left behind</td><td>{}</td></tr>\n</table>\n",
        verdictOf(proof), pageText(proof.transfer.choice), pageText(proof.transfer.folder),
        isoUtc(proof.time), humanCount(proof.files.size()), humanBytes(proof.bytes()),
        humanCount(proof.playable()), humanCount(proof.entries()), humanCount(proof.transfer.inNoList));
    if (const auto wrong = proof.wrong(); !wrong.empty()) {
        html += "<h2>Not as it has to be</h2>\n<table>\n";
        for (const auto& [path, sentence] : wrong) {
            html += fmt::format("<tr><td><code>{}</code></td><td>{}</td></tr>\n", pageText(path),
                                pageText(sentence));
        }
        html += "</table>\n";
    }
    html += "<h2>Lists</h2>\n<table>\n<tr><th>List</th><th>From</th><th>Entries before</th><th>That come</th>"
            "<th>Now</th><th>Play</th></tr>\n";
    for (const auto& list : proof.lists) {
        html += fmt::format("<tr><td><code>{}</code></td><td><code>{}</code></td><td class=\"n\">{}</td>"
                            "<td class=\"n\">{}</td><td class=\"n\">{}</td><td class=\"n\">{}</td></tr>\n",
                            pageText(list.path),
                            list.source.empty() ? "made by the transfer" : pageText(list.source), list.before,
                            list.coming, list.entries, list.playable);
    }
    html += "</table>\n";
    if (!proof.left.empty()) {
        html += "<h2>What did not come</h2>\n<table>\n";
        for (const auto& each : proof.left) {
            html += fmt::format("<tr><td><code>{}</code></td><td>{}</td></tr>\n", pageText(each.reference),
                                sentenceOf(each.why));
        }
        html += "</table>\n";
    }
    html += "<h2>Files</h2>\n<table>\n<tr><th>File</th><th>Bytes</th><th>SHA-256</th></tr>\n";
    for (const auto& file : proof.files) {
        html +=
            fmt::format("<tr><td><code>{}</code></td><td class=\"n\">{}</td><td><code>{}</code></td></tr>\n",
                        pageText(file.path), file.bytes, file.sha256);
    }
    return html + "</table>\n" + pageEnd();
}

std::string jsonOf(const TransferProof& proof) {
    using OrderedJson = nlohmann::ordered_json;
    const auto text = [](std::string_view path) { return percentEncodeOffending(path); };
    OrderedJson json{{"schema", "sober.proof/1"},
                     {"transfer", proof.transfer.id},
                     {"time", isoUtc(proof.time)},
                     {"folder", text(proof.transfer.folder)},
                     {"holds", proof.holds()},
                     {"files", OrderedJson::array()},
                     {"lists", OrderedJson::array()},
                     {"not_coming", OrderedJson::array()},
                     {"in_no_list", proof.transfer.inNoList},
                     {"wrong", OrderedJson::array()}};
    for (const auto& file : proof.files) {
        json["files"].push_back({{"path", text(file.path)}, {"bytes", file.bytes}, {"sha256", file.sha256}});
    }
    for (const auto& list : proof.lists) {
        json["lists"].push_back(
            {{"path", text(list.path)},
             {"source", list.source.empty() ? OrderedJson() : OrderedJson(text(list.source))},
             {"entries_before", list.before},
             {"coming", list.coming},
             {"entries", list.entries},
             {"playable", list.playable}});
    }
    for (const auto& each : proof.left) {
        json["not_coming"].push_back({{"reference", text(each.reference)}, {"why", word(each.why)}});
    }
    for (const auto& [path, sentence] : proof.wrong()) {
        json["wrong"].push_back({{"path", text(path)}, {"error", text(sentence)}});
    }
    return json.dump(1) + "\n";
}

std::string checksumsOf(const TransferProof& proof) {
    std::vector<ListedFile> files;
    for (const auto& file : proof.files) {
        if (!file.sha256.empty()) {
            files.push_back({file.path, file.sha256});
        }
    }
    return checksumListText(ListedChecksum::sha256, files);
}

} // namespace sober
