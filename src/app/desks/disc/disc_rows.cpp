#include "app/desks/disc/disc_rows.h"

#include "app/words.h"

#include <QStringList>

#include <fmt/format.h>

namespace sober::app {
namespace {

Mark markOfRead(const DiscLine& line) {
    return !line.track.isAudio     ? Mark::none
           : !line.read            ? Mark::undetermined
           : line.read->agreed()   ? Mark::sound
           : line.read->unread > 0 ? Mark::damaged
                                   : Mark::doubtful;
}

std::uint64_t doubtfulSectors(const RippedTrack& track) {
    std::uint64_t count = 0;
    for (const auto& [first, last] : track.doubtful) {
        count += static_cast<std::uint64_t>(last - first + 1);
    }
    return count;
}

QString stateWords(const DiscLine& line) {
    if (!line.track.isAudio) {
        return QObject::tr("data, left out");
    }
    if (!line.read) {
        return QObject::tr("not read yet");
    }
    return line.read->agreed()
               ? QObject::tr("agreed")
               : QObject::tr("doubtful in %1").arg(told(counted(doubtfulSectors(*line.read), "sector")));
}

} // namespace

std::vector<Column<DiscLine>> discColumns() {
    return {
        {QObject::tr("Track"),
         [](const DiscLine& line) {
             return Cell{QString::number(line.track.number), {}, {}, {}, {}};
         },
         true},
        {QObject::tr("Title"),
         [](const DiscLine& line) {
             return Cell{shown(line.name.title), {}, {}, {}, {}};
         }},
        {QObject::tr("Artist"),
         [](const DiscLine& line) {
             return Cell{shown(line.name.artist), {}, {}, true, {}};
         }},
        {QObject::tr("Length"),
         [](const DiscLine& line) {
             return Cell{shown(sectorTime(line.track.sectors)),
                         {},
                         {},
                         {},
                         QObject::tr("minutes, seconds and sectors of a seventy-fifth")};
         },
         true},
        {QObject::tr("As read"),
         [](const DiscLine& line) {
             return Cell{stateWords(line), markOfRead(line), {}, {}, {}};
         }},
        {QObject::tr("Readings"),
         [](const DiscLine& line) {
             return Cell{line.read ? QString::number(line.read->readings) : QString(),
                         {},
                         {},
                         {},
                         QObject::tr("of the sector that was read most often")};
         },
         true},
        {QObject::tr("Register"),
         [](const DiscLine& line) {
             const auto* word = line.read && line.read->word ? &*line.read->word : nullptr;
             return Cell{word != nullptr ? told(registerWords(*word)) : QString(), {}, {}, true, {}};
         }},
        {QObject::tr("Held already"),
         [](const DiscLine& line) {
             const auto held = line.read ? line.read->heldAs : std::string();
             return Cell{shownPath(BytePath(nameOf(held))), {}, true, {}, shownPath(held)};
         }},
    };
}

QString evidenceOf(const DiscLine& line) {
    QStringList lines;
    if (!line.read) {
        lines << (line.track.isAudio ? QObject::tr("Not read yet.")
                                     : QObject::tr("This track holds data; only audio is read."));
    } else {
        const auto& read = *line.read;
        lines << QObject::tr("CRC-32 of all its samples %1 · peak %2 of full scale · read up to %3 times")
                     .arg(shown(fmt::format("{:08x}", read.crc)), figure(read.peak, 3))
                     .arg(read.readings);
        QStringList places;
        for (const auto& [first, last] : read.doubtful) {
            places << QObject::tr("%1 to %2")
                          .arg(shown(sectorTime(first - line.track.firstSector)),
                               shown(sectorTime(last + 1 - line.track.firstSector)));
        }
        if (!places.isEmpty()) {
            lines << QObject::tr("Doubtful at %1.").arg(places.join(QObject::tr(", ")));
        }
        if (read.late > 0) {
            lines << QObject::tr("%1 agreed only after readings that differed.")
                         .arg(told(counted(static_cast<std::uint64_t>(read.late), "sector")));
        }
        if (!read.heldAs.empty()) {
            lines << QObject::tr("Sounds like %1.").arg(shownPath(read.heldAs));
        }
    }
    if (line.track.preEmphasis) {
        lines << QObject::tr("Recorded with pre-emphasis; that is kept as a mark and not taken out.");
    }
    if (!line.track.isrc.empty()) {
        lines << QObject::tr("ISRC %1").arg(shown(line.track.isrc));
    }
    return lines.join(QLatin1Char('\n'));
}

} // namespace sober::app
