// unsteady-tray: what `sober-tray` is, with a drive that misreads. Named by SOBER_TRAY, it reads a disc as
// the table beside its cue sheet says (x.faults beside x.cue; tray_faults.h): libcdio's call for sectors is
// this program's own.
#include "standins/tray_faults.h"
#include "tray/serving.h"

#include <cdio/cdio.h>

#include <dlfcn.h>
#include <fstream>
#include <memory>
#include <sstream>

namespace {

using Read = driver_return_code_t (*)(const CdIo_t*, void*, lsn_t, std::uint32_t);

std::unique_ptr<standins::FaultyDrive> driveFor(const CdIo_t* disc, Read real) {
    std::string path = cdio_get_arg(disc, "source") != nullptr ? cdio_get_arg(disc, "source") : "";
    const char* sheet = cdio_get_arg(disc, "cue");
    path = sheet != nullptr ? sheet : path;
    std::ostringstream table;
    table << std::ifstream(path.substr(0, path.rfind('.')) + ".faults").rdbuf();
    const auto end = static_cast<std::int64_t>(cdio_get_track_lsn(disc, CDIO_CDROM_LEADOUT_TRACK)) * 588;
    auto right = [disc, real, end](std::int64_t first, std::size_t samples, std::int16_t* into) {
        std::vector<std::int16_t> sector(2 * 588);
        lsn_t held = -1;
        for (std::size_t i = 0; i < samples; ++i) {
            const auto at = first + static_cast<std::int64_t>(i);
            const auto wanted = static_cast<lsn_t>(at / 588);
            if (at >= 0 && at < end && wanted != held) {
                real(disc, sector.data(), wanted, 1);
                held = wanted;
            }
            const auto within = static_cast<std::size_t>(at >= 0 ? at % 588 : 0);
            into[2 * i] = at < 0 || at >= end ? std::int16_t{0} : sector[2 * within];
            into[2 * i + 1] = at < 0 || at >= end ? std::int16_t{0} : sector[2 * within + 1];
        }
    };
    return std::make_unique<standins::FaultyDrive>(standins::TrayFaults::parse(table.str()),
                                                   std::move(right));
}

} // namespace

extern "C" driver_return_code_t cdio_read_audio_sectors(const CdIo_t* disc, void* into, lsn_t first,
                                                        std::uint32_t count) {
    static const auto real = reinterpret_cast<Read>(dlsym(RTLD_NEXT, "cdio_read_audio_sectors")); // NOLINT
    static const auto drive = driveFor(disc, real);
    switch (drive->read(first, static_cast<int>(count), static_cast<std::int16_t*>(into))) {
    case standins::FaultyDrive::Came::sectors:
        return DRIVER_OP_SUCCESS;
    case standins::FaultyDrive::Came::unreadable:
        return DRIVER_OP_ERROR;
    case standins::FaultyDrive::Came::gone:
        break;
    }
    return DRIVER_OP_NO_DRIVER;
}

int main() {
    return sober::serveAsTray();
}
