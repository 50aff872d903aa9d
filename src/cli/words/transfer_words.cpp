// Another drive, player or order.
#include "cli/command_line.h"
#include "cli/transfer_command.h"
#include "cli/words/words.h"

namespace sober::cli {

void addTransfer(CommandLine& line) {
    auto* transferCommand = line.app().add_subcommand(
        "transfer", "holdings and lists to another drive, player or order, proven there");
    transferCommand->require_subcommand(1);
    auto* transferPlan =
        transferCommand->add_subcommand("plan", "say what would come where; nothing changes");
    auto& transfer = line.keep<TransferOptions>();
    transferPlan->add_option("--to", transfer.to, "the folder or drive that it goes to")->required();
    transferPlan->add_option("--list", transfer.lists, "what this list of any player refers to");
    transferPlan->add_option("--player", transfer.players, "all that this player refers to");
    transferPlan->add_option("--volume", transfer.volumes, "all that is on this volume");
    transferPlan->add_option("--folder", transfer.folders, "all that is in this folder of a volume");
    transferPlan->add_option("--standing", transfer.standing, "what this standing list means");
    transferPlan->add_flag("--and-unlisted", transfer.andUnlisted,
                           "and what no list names, of the same volumes");
    transferPlan->add_flag("--keepers", transfer.keepersOnly,
                           "of copies only the keeper, in place of those that \"sober copies\" would retire");
    transferPlan->add_flag(
        "--retire-rest", transfer.letRestGo,
        "put on the docket what earlier transfers brought there and is no longer among what comes");
    transferPlan
        ->add_option("--rules", transfer.rules, "auto, fat32, fat16, exfat, ntfs, ext4 or iso9660 (auto)")
        ->check(CLI::IsMember({"auto", "fat32", "fat16", "exfat", "ntfs", "ext4", "iso9660"}));
    transferPlan
        ->add_option("--longest-path", transfer.longestPath,
                     "the longest path that the player reads, in characters and with its --prefix")
        ->check(CLI::PositiveNumber);
    transferPlan->add_option("--room", transfer.room, "bytes that are free, of a device that is not here");
    transferPlan->add_option(
        "--layout", transfer.layout,
        "keep, flat, or an order as 'albumartist|artist / album / track.2 \" \" title' (keep)");
    transferPlan->add_option("--mode", transfer.mode, "copy, reorder (by renames) or steps (copy)")
        ->check(CLI::IsMember({"copy", "reorder", "steps"}));
    transferPlan
        ->add_option("--lists", transfer.listForm, "the lists' form there: m3u8, xspf or pls (their own)")
        ->check(CLI::IsMember({"m3u8", "xspf", "pls"}));
    auto* relativeFlag =
        transferPlan->add_flag("--relative", transfer.relative, "the lists' entries are relative to them");
    transferPlan
        ->add_option("--prefix", transfer.prefix,
                     "what the lists' entries begin with, as the device sees its folder")
        ->excludes(relativeFlag);
    transferPlan->add_option(
        "--replace", transfer.replacements,
        "CHARACTER=TEXT: what stands for a character that names there cannot hold, as ':=-'");
    transferPlan->add_option(
        "--form", transfer.forms,
        "SOURCE=TARGET:QUALITY, as lossless=mp3:V0, all=opus:96, flac=aac:160, lossless=mp3:V2@30 (an "
        "excerpt of 30 s), @20% or '@30 loudest'");
    auto& transferNumber = line.keep<std::string>();
    const auto numbered = [&](const char* name, const char* what) {
        auto* command = transferCommand->add_subcommand(name, what);
        command->add_option("TRANSFER", transferNumber, "its number")->required();
        return command;
    };
    auto* transferRun = numbered("run", "carry it out, or go on with it");
    auto* transferProve = numbered("prove", "read everything back and open every list at the new place");
    auto* transferRelease =
        numbered("release", "put the old on the docket, to be retired; only of what is proven");
    auto& releaseNow = line.keep<bool>(false);
    transferRelease->add_flag("--carry-out", releaseNow, "and carry that out");
    auto* transferForget =
        numbered("forget", "forget a plan, or a transfer that has ended; nothing else changes");
    auto* transferList = transferCommand->add_subcommand("list", "the transfers, or one of them");
    transferList->add_option("TRANSFER", transferNumber, "its number");

    line.add(transferPlan, [&transfer](const CommonOptions& common, RunControl& control) {
        return runTransferPlan(common, transfer, control);
    });
    line.add(transferRun, [&transferNumber](const CommonOptions& common, RunControl& control) {
        return runTransferRun(common, transferNumber, control);
    });
    line.add(transferProve, [&transferNumber](const CommonOptions& common, RunControl& control) {
        return runTransferProve(common, transferNumber, control);
    });
    line.add(transferRelease,
             [&transferNumber, &releaseNow](const CommonOptions& common, RunControl& control) {
                 return runTransferRelease(common, transferNumber, releaseNow, control);
             });
    line.add(transferForget, [&transferNumber](const CommonOptions& common, RunControl&) {
        return runTransferForget(common, transferNumber);
    });
    line.add(transferList, [&transferNumber](const CommonOptions& common, RunControl&) {
        return runTransferList(common, transferNumber);
    });
}

} // namespace sober::cli
