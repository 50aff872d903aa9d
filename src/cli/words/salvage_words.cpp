// What is found in the trash, in images and on drives.
#include "cli/command_line.h"
#include "cli/salvage_command.h"
#include "cli/words/words.h"

namespace sober::cli {

void addSalvage(CommandLine& line) {
    auto* salvageCommand =
        line.app().add_subcommand("salvage", "audio out of the trash, of images of cards and of drives");
    salvageCommand->require_subcommand(1);
    auto* salvageImaging = salvageCommand->add_subcommand(
        "image", "read a drive into an image, around what cannot be read; called again it goes on");
    auto& imaging = line.keep<ImageOptions>();
    salvageImaging->add_option("SOURCE", imaging.source, "a drive or a file, which is only read")->required();
    salvageImaging->add_option("--to", imaging.to, "the image")->required();
    salvageImaging->add_option("--map", imaging.map,
                               "where it is written down what is in the image (beside it)");
    salvageImaging->add_option("--retries", imaging.retries, "how often what failed is tried again (1)");
    auto* salvageTrash =
        salvageCommand->add_subcommand("trash", "what lies in the trash of all that is at hand");
    auto& salvageVolume = line.keep<std::string>();
    salvageTrash->add_option("--volume", salvageVolume, "only what is or was on this volume");
    auto* salvageScan = salvageCommand->add_subcommand(
        "scan", "look through an image or a drive for audio; nothing changes there");
    auto& scanning = line.keep<ScanOptions>();
    salvageScan->add_option("IMAGE", scanning.image, "an image, or a drive")->required();
    salvageScan->add_option("--kinds", scanning.kinds, "formats, parted by commas, as flac,mp3 (all)");
    salvageScan->add_flag("--everywhere", scanning.everywhere,
                          "also where a file system gives out files that are there");
    salvageScan->add_flag("--anew", scanning.anew,
                          "from the beginning, even where an earlier scan could go on");
    auto* salvageList = salvageCommand->add_subcommand("list", "what a scan has found");
    auto& salvageImage = line.keep<BytePath>();
    salvageList->add_option("IMAGE", salvageImage, "the image or drive")->required();
    auto* salvageBytes = salvageCommand->add_subcommand("bytes", "the bytes of an image, and what they are");
    auto& salvageLook = line.keep<BytesOptions>();
    salvageBytes->add_option("IMAGE", salvageLook.image, "the image or drive")->required();
    salvageBytes->add_option("--find", salvageLook.find, "where the find of this number begins");
    salvageBytes->add_option("--at", salvageLook.at, "from this byte on (0)");
    salvageBytes->add_option("--length", salvageLook.length, "so many bytes, 1 MiB at most (512)");
    salvageBytes->add_option("--text", salvageLook.text, "where this text stands from there on");
    salvageBytes->add_option("--hex", salvageLook.hex, "where these bytes stand, as hexadecimal digits");
    auto* salvageWrite = salvageCommand->add_subcommand(
        "write", "write an image over a drive that nobody uses, and compare it afterwards");
    auto& salvageWriting = line.keep<WriteOptions>();
    salvageWrite->add_option("IMAGE", salvageWriting.image, "the image")->required();
    salvageWrite->add_option("--to", salvageWriting.to, "the drive, or a file in its place")->required();
    salvageWrite->add_option("--label", salvageWriting.label, "its label, to say that it is the right one");
    salvageWrite->add_option("--size", salvageWriting.size, "its size in bytes, for the same");
    auto* salvageTidy = salvageCommand->add_subcommand(
        "tidy", "put on the docket what was salvaged or lies in the trash and is held elsewhere");
    auto* salvageForget =
        salvageCommand->add_subcommand("forget", "forget what a scan has found; the image stays as it is");
    salvageForget->add_option("IMAGE", salvageImage, "the image or drive")->required();
    auto* salvageTake = salvageCommand->add_subcommand(
        "take", "put finds back in their place, or into a folder, by the docket");
    auto& taking = line.keep<TakeOptions>();
    salvageTake->add_option("SOURCE", taking.source, "the image or drive, or trash")->required();
    salvageTake->add_option("FIND", taking.finds, "numbers, as they are listed");
    salvageTake->add_flag("--all", taking.all, "all that were not taken yet");
    salvageTake->add_flag(
        "--home", taking.home,
        "to the places of the missing holdings that they are or, out of the trash, where they were");
    salvageTake->add_option("--to", taking.to, "into this folder");
    salvageTake->add_option("--layout", taking.layout, "folders and names there, by fields and quoted text");
    salvageTake->add_option("--on-conflict", taking.onConflict, "where a name is taken: name or skip (name)")
        ->check(CLI::IsMember({"name", "skip"}));

    line.add(salvageImaging, [&imaging](const CommonOptions& common, RunControl& control) {
        return runSalvageImage(common, imaging, control);
    });
    line.add(salvageTrash, [&salvageVolume](const CommonOptions& common, RunControl& control) {
        return runSalvageTrash(common, salvageVolume, control);
    });
    line.add(salvageScan, [&scanning](const CommonOptions& common, RunControl& control) {
        return runSalvageScan(common, scanning, control);
    });
    line.add(salvageList, [&salvageImage](const CommonOptions& common, RunControl&) {
        return runSalvageList(common, salvageImage);
    });
    line.add(salvageBytes, [&salvageLook](const CommonOptions& common, RunControl& control) {
        return runSalvageBytes(common, salvageLook, control);
    });
    line.add(salvageWrite, [&salvageWriting](const CommonOptions& common, RunControl& control) {
        return runSalvageWrite(common, salvageWriting, control);
    });
    line.add(salvageTidy, [](const CommonOptions& common, RunControl&) { return runSalvageTidy(common); });
    line.add(salvageForget, [&salvageImage](const CommonOptions& common, RunControl&) {
        return runSalvageForget(common, salvageImage);
    });
    line.add(salvageTake, [&taking](const CommonOptions& common, RunControl& control) {
        return runSalvageTake(common, taking, control);
    });
}

} // namespace sober::cli
