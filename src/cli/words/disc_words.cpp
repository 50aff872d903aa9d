// Audio discs.
#include "cli/command_line.h"
#include "cli/disc_command.h"
#include "cli/words/words.h"

namespace sober::cli {

void addDisc(CommandLine& line) {
    auto* disc = line.app().add_subcommand("disc", "audio discs: what is on one, and reading it");
    disc->require_subcommand(1);
    auto* discShow = disc->add_subcommand("show", "what a disc says of itself, and what is known of it");
    auto& shownDisc = line.keep<BytePath>();
    discShow->add_option("DISC", shownDisc, "a drive, or the cue sheet of an image")->required();
    auto& shownLookup = line.keep<std::string>();
    discShow->add_option("--lookup", shownLookup, "the address of a service that names discs");
    auto* discServices = disc->add_subcommand("services", "which services the windows may ask about discs");
    auto& setRegister = line.keep<std::string>();
    auto* saysRegister =
        discServices->add_option("--register", setRegister, "what others read; empty for none");
    auto& setLookup = line.keep<std::string>();
    auto* saysLookup =
        discServices->add_option("--lookup", setLookup, "what discs are called; empty for none");
    auto* discRead = disc->add_subcommand("read", "read one until its readings agree, and write its tracks");
    auto& ripping = line.keep<DiscReadOptions>();
    discRead->add_option("DISC", ripping.disc, "a drive, or the cue sheet of an image")->required();
    discRead->add_option("--to", ripping.to, "the folder into which it is written")->required();
    discRead->add_option("--form", ripping.forms,
                         "flac, wav, mp3:V0, aac:192, opus:96, vorbis:q6, or several");
    discRead->add_option("--tracks", ripping.tracks, "as 1,3-5; 0 is what is hidden before the first");
    discRead->add_option("--layout", ripping.layout, "folders and names there, by fields and quoted text");
    discRead->add_option("--retries", ripping.retries, "further readings of what does not agree");
    discRead->add_option("--offset", ripping.offset, "samples that the drive is known to read late");
    discRead->add_option("--register", ripping.registerAddress,
                         "the address of a service that knows what others read");
    discRead->add_option("--lookup", ripping.lookup, "the address of a service that names discs");
    discRead->add_option("--answer", ripping.answer, "which of the names that \"disc show\" numbers");
    discRead->add_flag("--one-file", ripping.oneFile,
                       "all tracks in one file, with the cue sheet in it and beside it");
    discRead->add_flag("--plain-tags", ripping.plainTags, "title, artist, album and numbers alone");

    line.add(discShow, [&shownDisc, &shownLookup](const CommonOptions& common, RunControl& control) {
        return runDiscShow(common, shownDisc, shownLookup, control);
    });
    line.add(discServices, [&setRegister, &setLookup, saysRegister, saysLookup](const CommonOptions& common,
                                                                                RunControl&) {
        return runDiscServices(common, saysRegister->count() > 0 ? std::optional(setRegister) : std::nullopt,
                               saysLookup->count() > 0 ? std::optional(setLookup) : std::nullopt);
    });
    line.add(discRead, [&ripping](const CommonOptions& common, RunControl& control) {
        return runDiscRead(common, ripping, control);
    });
}

} // namespace sober::cli
