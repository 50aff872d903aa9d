// Lists of checksums and bags, as other tools write them.
#include "cli/bag_command.h"
#include "cli/command_line.h"
#include "cli/list_command.h"
#include "cli/words/words.h"

namespace sober::cli {

void addList(CommandLine& line) {
    auto* listCommand = line.app().add_subcommand(
        "list", "checksum lists as md5sum, sha256sum, b2sum and SFV tools write them");
    listCommand->require_subcommand(1);
    auto* listCheck = listCommand->add_subcommand("check", "hold the files of a list against the disk");
    auto& listed = line.keep<BytePath>();
    listCheck->add_option("LIST", listed, "the list")->required();
    auto& listFolder = line.keep<BytePath>();
    listCheck->add_option("--in", listFolder,
                          "where its files are; the list's own folder where this is not said");
    auto* listWrite =
        listCommand->add_subcommand("write", "a list of a folder's holdings, to standard output");
    listWrite->add_option("FOLDER", listed, "a volume or a folder of one")->required();
    auto& listKind = line.keep<std::string>("sha256");
    listWrite->add_option("--kind", listKind, "md5, sha1, sha256, sha512, blake2b or sfv")
        ->check(CLI::IsMember({"md5", "sha1", "sha256", "sha512", "blake2b", "sfv"}));
    auto* listTake = listCommand->add_subcommand(
        "take",
        "take a list made earlier for what a folder's holdings should be, and say what has drifted since");
    listTake->add_option("LIST", listed, "the list")->required();
    listTake->add_option("--in", listFolder,
                         "where its files are; the list's own folder where this is not said");

    line.add(listCheck, [&listed, &listFolder](const CommonOptions& common, RunControl& control) {
        return runListCheck(common, listed, listFolder, control);
    });
    line.add(listTake, [&listed, &listFolder](const CommonOptions& common, RunControl& control) {
        return runListTake(common, listed, listFolder, control);
    });
    line.add(listWrite, [&listed, &listKind](const CommonOptions& common, RunControl& control) {
        return runListWrite(common, listed, listKind, control);
    });
}

void addBag(CommandLine& line) {
    auto* bagCommand =
        line.app().add_subcommand("bag", "bags by RFC 8493: folders with manifests of their checksums");
    bagCommand->require_subcommand(1);
    auto* bagCheck = bagCommand->add_subcommand("check", "say whether a bag is complete and valid");
    auto& bagFolder = line.keep<BytePath>();
    bagCheck->add_option("BAG", bagFolder, "the bag")->required();
    auto* bagWrite = bagCommand->add_subcommand("write", "copy a folder into a new bag, every copy proven");
    bagWrite->add_option("FOLDER", bagFolder, "what to copy")->required();
    auto& bagTo = line.keep<BytePath>();
    bagWrite->add_option("--to", bagTo, "where the bag will be; on no catalogued volume")->required();

    line.add(bagCheck, [&bagFolder](const CommonOptions& common, RunControl& control) {
        return runBagCheck(common, bagFolder, control);
    });
    line.add(bagWrite, [&bagFolder, &bagTo](const CommonOptions& common, RunControl& control) {
        return runBagWrite(common, bagFolder, bagTo, control);
    });
}

} // namespace sober::cli
