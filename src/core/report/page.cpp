#include "core/report/page.h"

#include "core/base/text.h"
#include "core/exchange/playlist.h"

#include <fmt/format.h>

namespace sober {
namespace {

constexpr std::string_view style =
    "body{font-family:'Noto Sans',sans-serif;background:#FCFAF4;color:#1F2328;max-width:70em;margin:2em auto;"
    "padding:0 1em}h1,h2{font-family:'Noto Serif',serif;font-weight:normal;break-after:avoid}"
    "table{border-collapse:collapse;width:100%}thead{display:table-header-group}tr,svg{break-inside:avoid}"
    "td,th{text-align:left;padding:.3em .6em;border-bottom:1px solid #D9D2C2;vertical-align:top}"
    "td.n,th.n{text-align:right;font-variant-numeric:tabular-nums;white-space:nowrap}"
    "th.p{min-width:18em;width:40%}tr.first td{border-top:2px solid #D9D2C2}"
    "code{font-family:'Noto Sans Mono',monospace;overflow-wrap:anywhere}"
    "svg{display:block;width:100%;height:auto;margin:1em 0;print-color-adjust:exact}"
    "svg text{font-family:'Noto Sans',sans-serif;font-size:13px;fill:#1F2328}svg text.quiet{fill:#5E6167}"
    ".quiet{color:#5E6167}@media print{body{background:#FFF;max-width:none;margin:0;font-size:9.5pt}"
    "h2{margin-top:1.2em}}@page{margin:16mm 14mm}";

} // namespace

std::string pageText(std::string_view text) {
    return escapedXml(displayPath(text));
}

std::string pageBegin(std::string_view title) {
    return fmt::format(
        "<!DOCTYPE html>\n<html lang=\"en\"><head><meta charset=\"utf-8\"><meta name=\"viewport\" "
        "content=\"width=device-width\"><title>{0}</title>\n<style>{1}</style></head><body>\n"
        "<h1>{0}</h1>\n",
        pageText(title), style);
}

std::string pageEnd() {
    return "</body></html>\n";
}

} // namespace sober
