#include "app/desks/salvage/salvage_bands.h"

#include "app/words.h"

namespace sober::app {

void layTrash(SalvageStrip::Band& band, const std::vector<Find>& finds) {
    std::uint64_t at = 0;
    for (std::size_t i = 0; i < finds.size(); ++i) {
        band.pieces[i].extents = {{at, at + finds[i].bytes}};
        at += finds[i].bytes;
    }
    band.size = at;
    band.reached = at;
    band.isTrash = true;
    const auto day = [](const Find& find) {
        return find.deleted != 0 ? told(localDay(find.deleted)) : SalvageStrip::tr("nobody knows when");
    };
    band.caption = SalvageStrip::tr("What was thrown away, the newest first");
    band.first = finds.empty() ? QString() : day(finds.front());
    band.last = finds.empty() ? QString() : day(finds.back());
}

void layImage(SalvageStrip::Band& band, const SalvageSource& source) {
    band.size = source.size;
    band.reached = source.reached;
    band.first = QStringLiteral("0");
    band.last = told(humanBytes(source.size));
    const auto systems = source.fileSystems.empty() ? SalvageStrip::tr("no file system that is known")
                                                    : told(source.fileSystems);
    const auto state =
        source.state == SalvageState::done
            ? QString()
            : SalvageStrip::tr(", looked through as far as %1").arg(told(humanBytes(source.reached)));
    const auto passed = source.passedOver.empty()
                            ? QString()
                            : SalvageStrip::tr(", %1 passed over: what looks for audio broke there")
                                  .arg(told(humanBytes(lengthOf(source.passedOver))));
    band.caption = SalvageStrip::tr("%1: %2, %3%4%5")
                       .arg(shownPath(BytePath(nameOf(source.path))), told(humanBytes(source.size)), systems,
                            state, passed);
}

SalvageStrip::Band bandOf(const ImageMap& map) {
    SalvageStrip::Band band;
    band.size = map.bytes();
    band.reached = map.bytes();
    band.ahead = map.ranges(Reading::ahead);
    std::uint64_t failed = 0;
    for (const auto reading : {Reading::step, Reading::sector, Reading::bad}) {
        const auto ranges = map.ranges(reading);
        band.unread.insert(band.unread.end(), ranges.begin(), ranges.end());
        failed += map.count(reading);
    }
    band.caption = SalvageStrip::tr("Image of %1: %2 of %3 are read, %4 could not be read so far")
                       .arg(shownPath(map.sources.empty() ? BytePath() : map.sources.back()),
                            told(humanBytes(map.count(Reading::read))), told(humanBytes(map.bytes())),
                            told(humanBytes(failed)));
    band.first = QStringLiteral("0");
    band.last = told(humanBytes(map.bytes()));
    return band;
}

} // namespace sober::app
