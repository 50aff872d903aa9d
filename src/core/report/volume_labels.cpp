#include "core/report/volume_labels.h"

#include "core/base/text.h"
#include "core/base/times.h"
#include "core/catalogue/findings.h"
#include "core/catalogue/volumes.h"
#include "core/report/page.h"

#include <fmt/format.h>

#include <algorithm>

namespace sober {

Result<std::string> volumeLabels(const Catalogue& catalogue) {
    auto volumes = Volumes(catalogue).all();
    const auto figures = Findings(catalogue).volumeFigures();
    if (!volumes || !figures) {
        return volumes ? figures.error() : volumes.error();
    }
    std::ranges::sort(*volumes, {}, &Volume::id);
    std::string html = pageBegin("Labels for the drives");
    html += "<p class=\"quiet\">Cut along the lines. The number is the volume's own and is never given to "
            "another.</p>\n"
            "<table class=\"labels\"><tbody>\n";
    for (const auto& volume : *volumes) {
        const auto found = std::ranges::find(*figures, volume.id, &VolumeFigures::volume);
        std::string drive = volume.identity.filesystemType;
        if (volume.capacity > 0) {
            drive = humanBytes(volume.capacity) + (drive.empty() ? "" : ", " + drive);
        }
        html += fmt::format(
            "<tr><td class=\"n\"><span style=\"font:2.6em 'Noto Serif',serif\">{}</span></td><td><b "
            "style=\"font-size:1.4em\">{}</b><br>{}<br><span class=\"quiet\">{}</span></td></tr>\n",
            volume.id, pageText(volume.label), pageText(drive),
            pageText(fmt::format("{}{}", counted(found != figures->end() ? found->holdings : 0, "holding"),
                                 volume.surveyedAt > 0 ? ", surveyed " + localDay(volume.surveyedAt) : "")));
    }
    return html + "</tbody></table>\n" + pageEnd();
}

} // namespace sober
