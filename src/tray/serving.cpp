#include "tray/serving.h"

#include "core/base/text.h"
#include "core/disc/disc_positions.h"
#include "core/disc/tray.h"
#include "core/disc/tray_messages.h"
#include "core/evidence/worker/cage.h"
#include "core/evidence/worker/messages.h"
#include "core/evidence/worker/serving.h"
#include "tray/cue_image.h"

#include <cdio/cdio.h>
#include <cdio/cdtext.h>
#include <cdio/logging.h>
#include <cdio/mmc_ll_cmds.h>
#include <cdio/paranoia/cdda.h>
#include <cdio/paranoia/paranoia.h>
#include <fmt/format.h>

#include <array>
#include <csignal>
#include <cstdlib>
#include <cstring>
#include <memory>
#include <unistd.h>

namespace sober {
namespace {

struct CloseDrive {
    void operator()(cdrom_drive_t* drive) const { cdio_cddap_close_no_free_cdio(drive); }
};
struct CloseDisc {
    void operator()(CdIo_t* disc) const { cdio_destroy(disc); }
};
struct FreeParanoia {
    void operator()(cdrom_paranoia_t* paranoia) const { cdio_paranoia_free(paranoia); }
};

std::string textOf(char* owned) {
    const std::unique_ptr<char, decltype(&cdio_free)> text(owned, &cdio_free);
    return text ? repairedUtf8(text.get()) : std::string();
}

std::string cdText(const cdtext_t* texts, cdtext_field_t field, int track) {
    const char* text =
        texts != nullptr ? cdtext_get_const(texts, field, static_cast<track_t>(track)) : nullptr;
    return text != nullptr ? repairedUtf8(text) : std::string();
}

/// The library for careful reading calls back without saying whom: one process reads one disc, on one thread.
bool hasSkipped = false;
void onCare(long /*sample*/, paranoia_cb_mode_t what) {
    hasSkipped = hasSkipped || what == PARANOIA_CB_SKIP || what == PARANOIA_CB_READERR;
}

class Drive {
  public:
    Result<DiscContents> open(const BytePath& path) {
        path_ = path;
        const bool isSheet = lowerAscii(path).ends_with(".cue");
        isDevice_ = !isSheet && path.starts_with("/dev/");
        if (!isSheet && !isDevice_) {
            return Error{Cause::wrongKind, path,
                         displayPath(path) + " is neither a drive nor the cue sheet of a disc's image."};
        }
        CueImage image;
        if (isSheet) {
            auto read = cueImageAt(path);
            RETURN_IF_FAILED(read);
            image = std::move(*read);
        }
        disc_.reset(cdio_open(path.c_str(), isSheet ? DRIVER_BINCUE : DRIVER_DEVICE));
        if (!disc_) {
            return isSheet ? Error{Cause::damaged, path,
                                   "The cue sheet " + displayPath(path) + " describes no disc."}
                           : Error{Cause::unreadable, path,
                                   displayPath(path) + " cannot be opened as a drive with a disc in it."};
        }
        return contents(image);
    }

    Result<std::string> read(int first, int count) {
        std::string bytes(static_cast<std::size_t>(count) * discSectorBytes, '\0');
        const auto code =
            cdio_read_audio_sectors(disc_.get(), bytes.data(), first, static_cast<unsigned>(count));
        if (code == DRIVER_OP_SUCCESS) {
            return bytes;
        }
        const bool isThere = code == DRIVER_OP_ERROR || code == DRIVER_OP_MMC_SENSE_DATA;
        const bool isReady =
            isThere && (!isDevice_ || mmc_test_unit_ready(disc_.get(), 1000) == DRIVER_OP_SUCCESS);
        return isReady ? Error{Cause::unreadable, path_, "These sectors cannot be read."}
                       : Error{Cause::notFound, path_,
                               "The disc in " + displayPath(path_) + " is not there any more."};
    }

    Result<std::string> readWithCare(int first, int count) {
        if (!careful_) {
            careful_.reset(cdio_cddap_identify_cdio(disc_.get(), CDDA_MESSAGE_FORGETIT, nullptr));
            if (!careful_ || cdio_cddap_open(careful_.get()) != 0) {
                careful_.reset();
                return read(first, count);
            }
            careful_->bigendianp = 0; // it guesses by the sound; what cdio_read_audio_sectors gives is little
        }
        const std::unique_ptr<cdrom_paranoia_t, FreeParanoia> paranoia(cdio_paranoia_init(careful_.get()));
        cdio_paranoia_modeset(paranoia.get(), PARANOIA_MODE_FULL ^ PARANOIA_MODE_NEVERSKIP);
        cdio_paranoia_seek(paranoia.get(), first, SEEK_SET);
        constexpr int retries = 3;
        hasSkipped = false;
        std::string bytes;
        for (int i = 0; i < count; ++i) {
            const auto* samples = cdio_paranoia_read_limited(paranoia.get(), &onCare, retries);
            if (samples == nullptr || hasSkipped) {
                return Error{Cause::unreadable, path_, "These sectors cannot be read."};
            }
            bytes.append(reinterpret_cast<const char*>(samples), discSectorBytes);
        }
        return bytes;
    }

  private:
    DiscContents contents(const CueImage& image) {
        DiscContents contents;
        cdio_hwinfo_t hardware{};
        contents.device = isDevice_ && cdio_get_hwinfo(disc_.get(), &hardware)
                              ? repairedUtf8(fmt::format("{} {}", hardware.psz_vendor, hardware.psz_model))
                              : "image";
        contents.mediaNumber = textOf(cdio_get_mcn(disc_.get()));
        const auto* texts = cdio_get_cdtext(disc_.get());
        contents.title = cdText(texts, CDTEXT_FIELD_TITLE, 0);
        contents.artist = cdText(texts, CDTEXT_FIELD_PERFORMER, 0);
        const int first = cdio_get_first_track_num(disc_.get());
        const int count = cdio_get_num_tracks(disc_.get());
        if (first > mostTracks || count > mostTracks) {
            return contents; // what libcdio says where there is none
        }
        contents.leadOut = cdio_get_track_lsn(disc_.get(), CDIO_CDROM_LEADOUT_TRACK);
        for (int number = first; number < first + count; ++number) {
            contents.tracks.push_back(track(number, number + 1 < first + count, contents.leadOut));
            const auto& texted = contents.tracks.back();
            contents.tracks.back().title = cdText(texts, CDTEXT_FIELD_TITLE, texted.number);
            contents.tracks.back().artist = cdText(texts, CDTEXT_FIELD_PERFORMER, texted.number);
            if (const auto marks = image.marks.find(number); marks != image.marks.end()) {
                contents.tracks.back().marks = marks->second;
            }
        }
        if (isDevice_) {
            findPositions(contents, [this](int sector) { return position(sector); });
        }
        return contents;
    }

    /// By READ CD with its formatted Q channel (MMC): what lies there is given with the sound, which is not wanted.
    std::optional<DiscPosition> position(int sector) {
        constexpr std::size_t subcodeBytes = 16;
        constexpr std::uint8_t formattedSubcode = 2;
        std::array<std::uint8_t, discSectorBytes + subcodeBytes> block{};
        const auto code =
            mmc_read_cd(disc_.get(), block.data(), sector, CDIO_MMC_READ_TYPE_CDDA, false, false, 0, true, false,
                        0, formattedSubcode, static_cast<std::uint16_t>(block.size()), 1);
        return code == DRIVER_OP_SUCCESS ? positionFrom(std::span(block).subspan(discSectorBytes), sector)
                                         : std::nullopt;
    }

    DiscTrack track(int number, bool hasNext, int leadOut) {
        const auto id = static_cast<track_t>(number);
        DiscTrack track;
        track.number = number;
        track.firstSector = cdio_get_track_lsn(disc_.get(), id);
        const int end = hasNext ? cdio_get_track_lsn(disc_.get(), static_cast<track_t>(number + 1)) : leadOut;
        track.sectors = end - track.firstSector;
        const int gap = cdio_get_track_pregap_lsn(disc_.get(), id);
        track.gap = gap >= 0 && gap < track.firstSector ? track.firstSector - gap : 0;
        track.isAudio = cdio_get_track_format(disc_.get(), id) == TRACK_FORMAT_AUDIO;
        track.preEmphasis = cdio_get_track_preemphasis(disc_.get(), id) == CDIO_TRACK_FLAG_TRUE;
        track.mayCopy = cdio_get_track_copy_permit(disc_.get(), id) == CDIO_TRACK_FLAG_TRUE;
        track.isrc = textOf(cdio_get_track_isrc(disc_.get(), id));
        return track;
    }

    BytePath path_;
    bool isDevice_ = false;
    std::unique_ptr<CdIo_t, CloseDisc> disc_;
    std::unique_ptr<cdrom_drive_t, CloseDrive> careful_;
};

std::string answer(Drive& drive, const Message& message) {
    const auto question = message.bytes.substr(8);
    if (message.letter == openQuestion) {
        return packAnswer(drive.open(question));
    }
    int first = 0;
    int count = 0;
    constexpr int mostAtOnce = 1'000;
    const bool isAsked = std::sscanf(question.c_str(), "%d %d", &first, &count) == 2 &&
                         first >= 0 && // NOLINT
                         count > 0 && count <= mostAtOnce;
    if (!isAsked) {
        return packAnswer(Result<std::string>(Error{Cause::invalid, {}, "The question was not understood."}));
    }
    return packAnswer(message.letter == sectorsQuestion ? drive.read(first, count)
                                                        : drive.readWithCare(first, count));
}

} // namespace

int serveAsTray() {
    std::signal(SIGINT, SIG_IGN); // the one who asks decides when to stop
    cdio_log_set_handler([](cdio_log_level_t /*level*/, const char* /*message*/) {});
    if (!enterDiscCage()) {
        return noCage;
    }
    Drive drive;
    while (const auto message = receiveMessage(STDIN_FILENO)) {
        if (message->bytes.size() < 8 || !sendMessage(STDIN_FILENO, 'a', answer(drive, *message))) {
            break;
        }
    }
    return 0;
}

} // namespace sober
