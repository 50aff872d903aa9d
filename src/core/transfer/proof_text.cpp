// A proof as it is kept: the other half of proof.h.
#include "core/base/text.h"
#include "core/exchange/checksum_list.h"
#include "core/exchange/playlist.h"
#include "core/transfer/proof.h"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

namespace sober {
namespace {

std::string escaped(std::string_view text) {
    return escapedXml(displayPath(text));
}

constexpr std::string_view style =
    "body{font-family:'Noto Sans',sans-serif;background:#FCFAF4;color:#1F2328;max-width:70em;margin:2em auto;"
    "padding:0 1em}h1,h2{font-family:'Noto "
    "Serif',serif;font-weight:normal}table{border-collapse:collapse;width:100%}"
    "td,th{text-align:left;padding:.3em .6em;border-bottom:1px solid #D9D2C2;vertical-align:top}"
    "td.n{text-align:right;font-variant-numeric:tabular-nums}code{font-family:'Noto Sans Mono',monospace;"
    "overflow-wrap:anywhere}";

std::string verdictOf(const TransferProof& proof) {
    const auto wrong = proof.wrong().size();
    return proof.interrupted ? "Stopped before everything was looked at: this proves nothing yet."
           : wrong == 0      ? "Everything is at its new place, byte for byte, and plays from there."
                             : counted(wrong, "thing is", "things are") + " not as it has to be.";
}

} // namespace

std::string htmlOf(const TransferProof& proof) {
    std::string html = fmt::format(
        "<!DOCTYPE html>\n<html lang=\"en\"><head><meta charset=\"utf-8\"><title>Proof of transfer "
        "{0}</title>"
        "<style>{1}</style></head><body>\n<h1>Proof of transfer {0}</h1>\n<p>{2}</p>\n<table>\n"
        "<tr><td>What came along</td><td>{3}</td></tr>\n<tr><td>Where to</td><td><code>{4}</code></td></tr>\n"
        "<tr><td>Proven</td><td>{5}</td></tr>\n<tr><td>Files read back</td><td>{6}, {7}</td></tr>\n"
        "<tr><td>Entries of lists</td><td>{8} of {9} begin to play</td></tr>\n"
        "<tr><td>In no list, left behind</td><td>{10}</td></tr>\n</table>\n",
        proof.transfer.id, style, verdictOf(proof), escaped(proof.transfer.choice),
        escaped(proof.transfer.folder), isoUtc(proof.time), humanCount(proof.files.size()),
        humanBytes(proof.bytes()), humanCount(proof.playable()), humanCount(proof.entries()),
        humanCount(proof.transfer.inNoList));
    if (const auto wrong = proof.wrong(); !wrong.empty()) {
        html += "<h2>Not as it has to be</h2>\n<table>\n";
        for (const auto& [path, sentence] : wrong) {
            html += fmt::format("<tr><td><code>{}</code></td><td>{}</td></tr>\n", escaped(path),
                                escaped(sentence));
        }
        html += "</table>\n";
    }
    html += "<h2>Lists</h2>\n<table>\n<tr><th>List</th><th>From</th><th>Entries before</th><th>That come</th>"
            "<th>Now</th><th>Play</th></tr>\n";
    for (const auto& list : proof.lists) {
        html += fmt::format("<tr><td><code>{}</code></td><td><code>{}</code></td><td class=\"n\">{}</td>"
                            "<td class=\"n\">{}</td><td class=\"n\">{}</td><td class=\"n\">{}</td></tr>\n",
                            escaped(list.path),
                            list.source.empty() ? "made by the transfer" : escaped(list.source), list.before,
                            list.coming, list.entries, list.playable);
    }
    html += "</table>\n";
    if (!proof.left.empty()) {
        html += "<h2>What did not come</h2>\n<table>\n";
        for (const auto& each : proof.left) {
            html += fmt::format("<tr><td><code>{}</code></td><td>{}</td></tr>\n", escaped(each.reference),
                                sentenceOf(each.why));
        }
        html += "</table>\n";
    }
    html += "<h2>Files</h2>\n<table>\n<tr><th>File</th><th>Bytes</th><th>SHA-256</th></tr>\n";
    for (const auto& file : proof.files) {
        html +=
            fmt::format("<tr><td><code>{}</code></td><td class=\"n\">{}</td><td><code>{}</code></td></tr>\n",
                        escaped(file.path), file.bytes, file.sha256);
    }
    return html + "</table>\n</body></html>\n";
}

std::string jsonOf(const TransferProof& proof) {
    using Json = nlohmann::ordered_json;
    const auto text = [](std::string_view path) { return percentEncodeOffending(path); };
    Json json{{"schema", "sober.proof/1"},
              {"transfer", proof.transfer.id},
              {"time", isoUtc(proof.time)},
              {"folder", text(proof.transfer.folder)},
              {"holds", proof.holds()},
              {"files", Json::array()},
              {"lists", Json::array()},
              {"not_coming", Json::array()},
              {"in_no_list", proof.transfer.inNoList},
              {"wrong", Json::array()}};
    for (const auto& file : proof.files) {
        json["files"].push_back({{"path", text(file.path)}, {"bytes", file.bytes}, {"sha256", file.sha256}});
    }
    for (const auto& list : proof.lists) {
        json["lists"].push_back({{"path", text(list.path)},
                                 {"source", list.source.empty() ? Json() : Json(text(list.source))},
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
