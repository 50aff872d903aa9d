#include "cli/answers.h"
#include "cli/bag_command.h"
#include "cli/catalogue_command.h"
#include "cli/commands.h"
#include "cli/describe.h"
#include "cli/disc_command.h"
#include "cli/docket_command.h"
#include "cli/examine_command.h"
#include "cli/excerpts_command.h"
#include "cli/find_command.h"
#include "cli/intake_command.h"
#include "cli/ledger_command.h"
#include "cli/list_command.h"
#include "cli/manual.h"
#include "cli/players_command.h"
#include "cli/replace_command.h"
#include "cli/report_command.h"
#include "cli/salvage_command.h"
#include "cli/schedule_command.h"
#include "cli/seek_command.h"
#include "cli/transfer_command.h"
#include "cli/verify_command.h"
#include "cli/volumes_command.h"
#include "core/base/file_handle.h"
#include "core/base/user_folders.h"
#include "core/remedy/docket/review.h"

#include <CLI/CLI.hpp>

#include <algorithm>
#include <cerrno>
#include <clocale>
#include <csignal>
#include <cstring>
#include <pthread.h>
#include <thread>

namespace {

using namespace sober;
using namespace sober::cli;

/// What can be said after "docket add".
std::vector<std::string> kindsToAdd() {
    std::vector<std::string> words;
    for (const auto kind : everyKind) {
        if (kind != ActionKind::acceptChange && kind != ActionKind::bringBack &&
            kind != ActionKind::salvage && kind != ActionKind::discard && kind != ActionKind::rip &&
            !isTransfers(kind)) {
            words.emplace_back(word(kind));
        }
    }
    words.emplace_back("suggested");
    return words;
}

std::vector<std::string> verdictWords() {
    std::vector<std::string> words;
    for (const auto verdict : everyVerdict) {
        words.emplace_back(wordFor(verdict));
    }
    return words;
}

/// Turns the interrupt and terminate signals into a cancelled run, so that what was done is kept.
/// All threads started later inherit the mask and leave the signals to this one.
class SignalWatch {
  public:
    explicit SignalWatch(RunControl& control) {
        sigemptyset(&watched_);
        for (const int signal : {SIGINT, SIGTERM, SIGHUP, SIGUSR1}) {
            sigaddset(&watched_, signal);
        }
        pthread_sigmask(SIG_BLOCK, &watched_, nullptr);
        thread_ = std::thread([this, &control] {
            int signal = 0;
            while (sigwait(&watched_, &signal) == 0 && signal != SIGUSR1) {
                control.cancel();
            }
        });
    }
    ~SignalWatch() {
        pthread_kill(thread_.native_handle(), SIGUSR1);
        thread_.join();
    }
    SignalWatch(const SignalWatch&) = delete;
    SignalWatch& operator=(const SignalWatch&) = delete;

  private:
    sigset_t watched_{};
    std::thread thread_;
};

/// Says what is right; yields the exit code.
int wrongUsage(const std::string& sentence) {
    sayOn(stderr, "{}\n", sentence);
    return exitUsage;
}

/// A command that nobody knows, said before anything else is found wrong.
std::optional<std::string> unknownCommand(const CLI::App& app, int argc, char** argv) {
    for (int at = 1; at < argc; ++at) {
        const std::string word = argv[at];
        if (word == "--catalogue") {
            ++at;
        } else if (!word.starts_with('-')) {
            const auto commands = app.get_subcommands([](const CLI::App*) { return true; });
            const bool known =
                std::ranges::any_of(commands, [&](const CLI::App* each) { return each->get_name() == word; });
            return known ? std::nullopt : std::optional(word);
        }
    }
    return std::nullopt;
}

int runCommand(int argc, char** argv) {
    CLI::App app{
        "Sober Archivist without windows: audits a collection of audio files and carries out decisions.",
        "sober"};
    app.require_subcommand(1);
    app.fallthrough();
    app.set_version_flag("--version", "Sober Archivist " SOBER_VERSION, "the version");
    CommonOptions common;
    common.catalogue = defaultCatalogue();
    app.add_option("--catalogue", common.catalogue, "the catalogue file");
    app.add_flag("--json", common.json, "print one JSON document");
    app.add_flag("--quiet", common.quiet, "no progress");

    std::vector<BytePath> examined;
    auto* examineCommand = app.add_subcommand("examine", "evidence and verdict for single files");
    examineCommand->add_option("FILE", examined, "the files")->required();

    SurveyOptions survey;
    std::string label;
    std::string effort;
    SurveyChoices choices;
    std::int64_t minSize = 0;
    std::int64_t maxSize = 0;
    bool takeAll = false;
    auto* surveyCommand = app.add_subcommand("survey", "read folders and drives into the catalogue");
    surveyCommand->add_option("PATH", survey.paths, "folders or drives")->required();
    surveyCommand->add_option("--label", label, "the volume's name");
    surveyCommand->add_option("--effort", effort, "index (default) or full")
        ->check(CLI::IsMember({"index", "full"}));
    auto* hiddenOption =
        surveyCommand->add_flag("--leave-hidden", choices.leaveHidden, "leave out hidden files and folders");
    auto* leaveOption = surveyCommand->add_option("--leave", choices.leavePatterns,
                                                  "leave out what matches this shell pattern");
    auto* minOption =
        surveyCommand->add_option("--min-size", minSize, "leave out files below this many bytes");
    auto* maxOption = surveyCommand->add_option("--max-size", maxSize,
                                                "leave out files above this many bytes (0: no limit)");
    auto* depthOption =
        surveyCommand->add_option("--depth", choices.maxDepth, "how many folders deep (0: all)");
    auto* linksOption =
        surveyCommand->add_flag("--follow-links", choices.followLinks, "follow symbolic links");
    auto* insideOption = surveyCommand->add_flag(
        "--look-inside", choices.lookInside,
        "take in the audio inside archives (zip, tar, 7z, rar, iso) and images of drives (img, dd)");
    auto* excerptOption = surveyCommand->add_flag(
        "--keep-excerpts", choices.keepExcerpts,
        "at full effort, keep 20 seconds of each to listen to while its drive is away (about 86 kB each)");
    surveyCommand->add_flag("--take-all", takeAll,
                            "forget the choices kept with the volume; those said beside it are kept then");

    FindOptions find;
    bool unlisted = false;
    auto* findCommand =
        app.add_subcommand("find", "look for holdings by words in their tags, names, paths and lists");
    findCommand->add_option("WORDS", find.words, "all of them have to be found; parts of words too");
    findCommand->add_option("--volume", find.volume, "only on this volume");
    findCommand->add_option("--codec", find.filter.codec, "only of this codec, as \"flac\"");
    findCommand->add_option("--verdict", find.verdict, "genuine, doubtful, transcoded or undetermined")
        ->check(CLI::IsMember(verdictWords()));
    findCommand->add_flag("--unlisted", unlisted, "only what no list leads to");
    findCommand->add_option("--bitrate", find.bitrate, "FROM-TO in kbit/s, either may be left out");
    findCommand->add_option("--length", find.length, "FROM-TO in seconds, likewise");
    findCommand->add_option("--years", find.years, "FROM-TO, likewise");
    findCommand->add_option("--limit", find.limit, "show at most so many");
    findCommand->add_option("--keep-as", find.keepAs,
                            "keep what was looked for as a standing list of this name");
    BytePath browsed;
    auto* browseCommand =
        app.add_subcommand("browse", "the folders of a volume, at hand or away, and what they hold");
    browseCommand->add_option("VOLUME", browsed, "its label, or label/folder")->required();

    auto* conditionCommand = app.add_subcommand("condition", "the collection's state in figures");
    auto* copiesCommand = app.add_subcommand("copies", "the copy sets with a reasoned suggestion");

    auto* claimsCommand =
        app.add_subcommand("claims", "the holdings whose evidence contradicts their claim, worst first");

    auto* verifyCommand = app.add_subcommand("verify", "re-read and compare with what was recorded");
    VerifyRequest verify;
    bool due = false;
    double sample = 0;
    double risk = 5;
    double slowly = 0;
    bool fromMemory = false;
    verifyCommand->add_option("PATH", verify.paths,
                              "volumes, folders or files; all volumes where none is named");
    auto* dueFlag =
        verifyCommand->add_flag("--due", due, "only what was not read for longer than its volume's period");
    verifyCommand
        ->add_option("--sample", sample,
                     "read as many by chance as find damage of this share of the holdings, in percent")
        ->check(CLI::Range(0.0001, 100.0))
        ->excludes(dueFlag);
    verifyCommand->add_option("--risk", risk, "with --sample: probability of missing it, in percent (5)")
        ->check(CLI::Range(0.0001, 99.0));
    verifyCommand->add_flag("--strong", verify.reading.strong, "compare SHA-256 too, where it was recorded");
    auto* slowlyOption =
        verifyCommand->add_option("--slowly", slowly, "read at most so many megabytes a second");
    verifyCommand->add_flag("--from-memory", fromMemory,
                            "take what the system still holds in memory for read");

    bool notify = false;
    verifyCommand->add_flag("--notify", notify, "tell the desktop when something is found");

    auto* scheduleCommand =
        app.add_subcommand("schedule", "a check of what is due by systemd, with a desktop notification");
    std::string scheduled = "show";
    std::string every = "week";
    scheduleCommand->add_option("WHAT", scheduled, "show, install or remove")
        ->check(CLI::IsMember({"show", "install", "remove"}));
    scheduleCommand->add_option("--every", every, "day, week or month (week)")
        ->check(CLI::IsMember({"day", "week", "month"}));

    std::vector<BytePath> seekFolders;
    auto* seekCommand =
        app.add_subcommand("seek", "look in other folders (a backup, a bag) for what drifted or is missing");
    seekCommand->add_option("FOLDER", seekFolders, "where to look")->required();

    auto* listCommand =
        app.add_subcommand("list", "checksum lists as md5sum, sha256sum, b2sum and SFV tools write them");
    listCommand->require_subcommand(1);
    BytePath listed;
    BytePath listFolder;
    std::string listKind = "sha256";
    auto* listCheck = listCommand->add_subcommand("check", "hold the files of a list against the disk");
    listCheck->add_option("LIST", listed, "the list")->required();
    listCheck->add_option("--in", listFolder,
                          "where its files are; the list's own folder where this is not said");
    auto* listWrite =
        listCommand->add_subcommand("write", "a list of a folder's holdings, to standard output");
    listWrite->add_option("FOLDER", listed, "a volume or a folder of one")->required();
    listWrite->add_option("--kind", listKind, "md5, sha1, sha256, sha512, blake2b or sfv")
        ->check(CLI::IsMember({"md5", "sha1", "sha256", "sha512", "blake2b", "sfv"}));

    auto* listTake = listCommand->add_subcommand(
        "take",
        "take a list made earlier for what a folder's holdings should be, and say what has drifted since");
    listTake->add_option("LIST", listed, "the list")->required();
    listTake->add_option("--in", listFolder,
                         "where its files are; the list's own folder where this is not said");

    auto* bagCommand =
        app.add_subcommand("bag", "bags by RFC 8493: folders with manifests of their checksums");
    bagCommand->require_subcommand(1);
    BytePath bagFolder;
    BytePath bagTo;
    auto* bagCheck = bagCommand->add_subcommand("check", "say whether a bag is complete and valid");
    bagCheck->add_option("BAG", bagFolder, "the bag")->required();
    auto* bagWrite = bagCommand->add_subcommand("write", "copy a folder into a new bag, every copy proven");
    bagWrite->add_option("FOLDER", bagFolder, "what to copy")->required();
    bagWrite->add_option("--to", bagTo, "where the bag will be; on no catalogued volume")->required();

    auto* playersCommand = app.add_subcommand("players", "the players, their lists and what these lead to");
    playersCommand->require_subcommand(0, 1);
    Player player;
    auto* playersAdd = playersCommand->add_subcommand("add", "take lists of a player in");
    playersAdd->add_option("PLACE", player.places, "lists, or folders that hold some")->required();
    playersAdd->add_option("--name", player.name, "the player's name");
    playersAdd->add_flag("--ignores-case", player.ignoresCase,
                         "it finds files under names that differ in letter case only");
    auto* prefixOption = playersAdd->add_option(
        "--prefix", player.writtenPrefix, "what its absolute locations begin with, where it runs elsewhere");
    auto* standsOption =
        playersAdd->add_option("--stands-for", player.standsFor, "the folder here that means");
    prefixOption->needs(standsOption);
    standsOption->needs(prefixOption);
    std::string playerName;
    auto* playersRemove =
        playersCommand->add_subcommand("remove", "forget a player; its lists stay as they are");
    playersRemove->add_option("NAME", playerName, "the player")->required();

    RelinkOptions relinking;
    auto* relinkCommand = app.add_subcommand("relink", "find where the targets of broken references are now");
    relinkCommand->add_option("--near", relinking.request.near, "look in this folder too, the nearest first");
    std::vector<BytePath> examples;
    relinkCommand
        ->add_option("--example", examples,
                     "two paths: where a reference leads, and where that file is now; the rest of its folder "
                     "tree follows")
        ->type_size(2);
    relinkCommand->add_flag("--write", relinking.write,
                            "carry the links out by the docket, journalled and to be undone");

    BytePath shownDisc;
    std::string shownLookup;
    std::string volumeLabel;
    std::string newLabel;
    BytePath volumeFolder;
    bool forgetNow = false;
    auto* volumesCommand =
        app.add_subcommand("volumes", "the volumes; renaming, forgetting and succeeding them");
    auto* volumesRename = volumesCommand->add_subcommand("rename", "give one another label");
    auto* volumesForget = volumesCommand->add_subcommand(
        "forget", "what is lost if one leaves the catalogue, and let it leave");
    auto* volumesSucceed =
        volumesCommand->add_subcommand("succeed", "another drive, made as a copy, has taken one's place");
    std::optional<BytePath> labelsTo;
    auto* volumesLabels = volumesCommand->add_subcommand("labels", "a page of labels for the drives (HTML)");
    volumesLabels->add_option("--to", labelsTo, "a new file; else it is printed");
    for (auto* each : {volumesRename, volumesForget, volumesSucceed}) {
        each->add_option("LABEL", volumeLabel, "the volume")->required();
    }
    volumesRename->add_option("NEW", newLabel, "its new label")->required();
    volumesForget->add_flag("--carry-out", forgetNow, "forget it; without this it is only said what is lost");
    volumesSucceed->add_option("FOLDER", volumeFolder, "where the copy is")->required();

    BytePath excerptOf;
    BytePath excerptTo;
    auto* excerptsCommand =
        app.add_subcommand("excerpts", "what is kept of recordings to listen to while their drives are away");
    auto* excerptsTake = excerptsCommand->add_subcommand("take", "write one out, as Ogg Opus");
    excerptsTake->add_option("PATH", excerptOf, "a holding, at hand or away")->required();
    excerptsTake->add_option("--to", excerptTo, "a new file")->required();

    BytePath carryPlace;
    std::optional<BytePath> carryPackage;
    auto* carryAlongCommand = app.add_subcommand(
        "carry", "write the catalogue into a folder on a stick, to be opened from there on another machine");
    carryAlongCommand->add_option("PLACE", carryPlace, "where the folder \"Sober Archivist\" is made")
        ->required();
    carryAlongCommand->add_option("--package", carryPackage, "the program's Debian package, to go along");

    BytePath catalogueFile;
    auto* catalogueCommand =
        app.add_subcommand("catalogue", "saving the catalogue itself, and bringing it back");
    catalogueCommand->require_subcommand(1);
    auto* catalogueSave =
        catalogueCommand->add_subcommand("save", "write it into another file, while it is in use");
    auto* catalogueBack = catalogueCommand->add_subcommand("bring-back", "make it what a saved one was");
    auto* catalogueCompare =
        catalogueCommand->add_subcommand("compare", "what another catalogue knows that this one does not");
    auto* catalogueTakeIn = catalogueCommand->add_subcommand(
        "take-in", "take what another catalogue knows into this one; what was seen last wins");
    for (auto* each : {catalogueSave, catalogueBack, catalogueCompare, catalogueTakeIn}) {
        each->add_option("FILE", catalogueFile, "the saved catalogue")->required();
    }

    ReportOptions reporting;
    auto* reportCommand =
        app.add_subcommand("report", "what is known of the collection, to keep or to give away");
    reportCommand->add_option("--form", reporting.form, "html (a page that prints), csv or json");
    reportCommand->add_option("--to", reporting.to, "a new file; else it is printed");
    reportCommand
        ->add_option("--about", reporting.about,
                     "only these: condition, copies, claims, damage, fixity, missing, proofs")
        ->delimiter(',');
    reportCommand->add_flag("--no-paths", reporting.leavePathsOut,
                            "leave paths and names out; each holding has a number instead");

    auto* disc = app.add_subcommand("disc", "audio discs: what is on one, and reading it");
    disc->require_subcommand(1);
    auto* discShow = disc->add_subcommand("show", "what a disc says of itself, and what is known of it");
    discShow->add_option("DISC", shownDisc, "a drive, or the cue sheet of an image")->required();
    discShow->add_option("--lookup", shownLookup, "the address of a service that names discs");
    std::string setRegister;
    std::string setLookup;
    auto* discServices = disc->add_subcommand("services", "which services the windows may ask about discs");
    auto* saysRegister =
        discServices->add_option("--register", setRegister, "what others read; empty for none");
    auto* saysLookup =
        discServices->add_option("--lookup", setLookup, "what discs are called; empty for none");
    DiscReadOptions ripping;
    auto* discRead = disc->add_subcommand("read", "read one until its readings agree, and write its tracks");
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
    auto* intakeCommand =
        app.add_subcommand("intake", "what arrived in the inboxes, and what is to be done with it");
    InboxOptions inbox;
    auto* intakeAdd = intakeCommand->add_subcommand("add", "name an inbox, and where its arrivals are filed");
    intakeAdd->add_option("DIR", inbox.folder, "the folder where new audio lands")->required();
    intakeAdd->add_option("--into", inbox.into, "the folder into which it is filed")->required();
    intakeAdd->add_option("--layout", inbox.layout, "folders and names there, by fields and quoted text");
    intakeAdd->add_option("--latest", inbox.latest,
                          "a list of the latest arrivals that is kept for a player");
    auto* intakeRemove =
        intakeCommand->add_subcommand("remove", "name it no inbox any more; nothing of it changes");
    intakeRemove->add_option("DIR", inbox.folder, "the folder")->required();
    IntakeTakeOptions intaking;
    auto* intakeTake = intakeCommand->add_subcommand("take", "do what is advised with arrivals");
    intakeTake->add_option("PATH", intaking.arrivals, "arrivals");
    intakeTake->add_flag("--advised", intaking.advised, "all that are not to be left");
    intakeTake->add_option("--layout", intaking.layout, "folders and names, in place of the inbox's own");
    intakeTake->add_flag("--with-proposals", intaking.withProposals, "mend their tags first, as proposed");
    auto* replaceCommand = app.add_subcommand("replace", "what could be better, and what may take its place");
    ReplaceOptions replacing;
    std::string shelf;
    bool noShelf = false;
    replaceCommand->add_option("PATH", replacing.holding, "the holding that is to be replaced");
    replaceCommand->add_option("--by", replacing.by, "a file, or the address of an offer");
    replaceCommand
        ->add_option("--tags", replacing.tags, "keep those of the old file (default), or take the new's")
        ->check(CLI::IsMember({"keep", "take"}));
    replaceCommand->add_option("--layout", replacing.layout,
                               "folders and name of the new file, in place of the old one's");
    replaceCommand->add_flag("--advised", replacing.advised, "all for which something better is at hand");
    replaceCommand->add_option("--shelf", shelf,
                               "the address of an offer shelf that may be asked from now on");
    replaceCommand->add_flag("--no-shelf", noShelf, "ask none any more");
    auto* salvageCommand =
        app.add_subcommand("salvage", "audio out of the trash, of images of cards and of drives");
    salvageCommand->require_subcommand(1);
    std::string salvageVolume;
    BytePath salvageImage;
    ScanOptions scanning;
    TakeOptions taking;
    ImageOptions imaging;
    auto* salvageImaging = salvageCommand->add_subcommand(
        "image", "read a drive into an image, around what cannot be read; called again it goes on");
    salvageImaging->add_option("SOURCE", imaging.source, "a drive or a file, which is only read")->required();
    salvageImaging->add_option("--to", imaging.to, "the image")->required();
    salvageImaging->add_option("--map", imaging.map,
                               "where it is written down what is in the image (beside it)");
    salvageImaging->add_option("--retries", imaging.retries, "how often what failed is tried again (1)");
    auto* salvageTrash =
        salvageCommand->add_subcommand("trash", "what lies in the trash of all that is at hand");
    salvageTrash->add_option("--volume", salvageVolume, "only what is or was on this volume");
    auto* salvageScan = salvageCommand->add_subcommand(
        "scan", "look through an image or a drive for audio; nothing changes there");
    salvageScan->add_option("IMAGE", scanning.image, "an image, or a drive")->required();
    salvageScan->add_option("--kinds", scanning.kinds, "formats, parted by commas, as flac,mp3 (all)");
    salvageScan->add_flag("--everywhere", scanning.everywhere,
                          "also where a file system gives out files that are there");
    salvageScan->add_flag("--anew", scanning.anew,
                          "from the beginning, even where an earlier scan could go on");
    auto* salvageList = salvageCommand->add_subcommand("list", "what a scan has found");
    salvageList->add_option("IMAGE", salvageImage, "the image or drive")->required();
    BytesOptions salvageLook;
    auto* salvageBytes = salvageCommand->add_subcommand("bytes", "the bytes of an image, and what they are");
    salvageBytes->add_option("IMAGE", salvageLook.image, "the image or drive")->required();
    salvageBytes->add_option("--find", salvageLook.find, "where the find of this number begins");
    salvageBytes->add_option("--at", salvageLook.at, "from this byte on (0)");
    salvageBytes->add_option("--length", salvageLook.length, "so many bytes, 1 MiB at most (512)");
    salvageBytes->add_option("--text", salvageLook.text, "where this text stands from there on");
    salvageBytes->add_option("--hex", salvageLook.hex, "where these bytes stand, as hexadecimal digits");
    WriteOptions salvageWriting;
    auto* salvageWrite = salvageCommand->add_subcommand(
        "write", "write an image over a drive that nobody uses, and compare it afterwards");
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

    auto* transferCommand =
        app.add_subcommand("transfer", "holdings and lists to another drive, player or order, proven there");
    transferCommand->require_subcommand(1);
    TransferOptions transfer;
    std::string transferNumber;
    bool releaseNow = false;
    auto* transferPlan =
        transferCommand->add_subcommand("plan", "say what would come where; nothing changes");
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
    transferPlan->add_option("--rules", transfer.rules, "auto, fat32, exfat, ntfs, ext4 or iso9660 (auto)")
        ->check(CLI::IsMember({"auto", "fat32", "exfat", "ntfs", "ext4", "iso9660"}));
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
    const auto numbered = [&](const char* name, const char* what) {
        auto* command = transferCommand->add_subcommand(name, what);
        command->add_option("TRANSFER", transferNumber, "its number")->required();
        return command;
    };
    auto* transferRun = numbered("run", "carry it out, or go on with it");
    auto* transferProve = numbered("prove", "read everything back and open every list at the new place");
    auto* transferRelease =
        numbered("release", "put the old on the docket, to be retired; only of what is proven");
    transferRelease->add_flag("--carry-out", releaseNow, "and carry that out");
    auto* transferForget =
        numbered("forget", "forget a plan, or a transfer that has ended; nothing else changes");
    auto* transferList = transferCommand->add_subcommand("list", "the transfers, or one of them");
    transferList->add_option("TRANSFER", transferNumber, "its number");

    auto* docketCommand = app.add_subcommand("docket", "what waits to be carried out");
    docketCommand->require_subcommand(0, 1);
    std::string asked;
    const auto kinds = kindsToAdd();
    std::vector<BytePath> paths;
    auto* addCommand = docketCommand->add_subcommand("add", "put actions on the docket");
    addCommand->add_option("KIND", asked, fmt::format("{}", fmt::join(kinds, ", ")))
        ->required()
        ->check(CLI::IsMember(kinds));
    addCommand->add_option("PATH", paths, "the files");
    std::string reason;
    addCommand->add_option("--reason", reason, "why, in your words");
    BytePath target;
    addCommand->add_option(
        "--to", target,
        "with move and copy: a folder or the new path; with repoint: where references are to lead");
    std::string layout;
    auto* layoutOption = addCommand->add_option("--layout", layout,
                                                "with move, for folders: put what is in them in this order, "
                                                "as 'albumartist|artist / album / track.2 \" \" title'");
    std::vector<BytePath> others;
    addCommand->add_option("--from", others, "with retag: the copies whose fields the file lacks");
    bool consent = false;
    addCommand->add_flag("--consent", consent,
                         "with retire, for one file: consent to the loss that the docket names for it");
    std::string policy;
    addCommand->add_option("--policy", policy, "with suggested: decide by the policy of this name");
    std::vector<std::string> taken;
    auto* removeCommand = docketCommand->add_subcommand("remove", "take actions off the docket");
    removeCommand->add_option("ACTION", taken, "their numbers, or the paths that they are about")->required();
    auto* clearCommand = docketCommand->add_subcommand("clear", "empty the docket");
    auto* carryCommand = docketCommand->add_subcommand("carry-out", "do what the docket says");

    auto* ledgerCommand = app.add_subcommand("ledger", "what was observed and done");
    bool premis = false;
    ledgerCommand->add_flag("--premis", premis, "as events of PREMIS 3.0, in XML");
    std::string shownEntry;
    ledgerCommand->add_option("ENTRY", shownEntry, "one entry's number: its files and reasons");
    std::string entry;
    auto* undoCommand = app.add_subcommand("undo", "take an entry back");
    undoCommand->add_option("ENTRY", entry, "its number in the ledger, or last")->required();

    if (const auto code = describe(app, argc, argv, manual)) {
        return *code;
    }
    if (const auto unknown = unknownCommand(app, argc, argv)) {
        return wrongUsage("There is no command \"" + *unknown +
                          "\". Run \"sober --help\" for those that there are.");
    }
    try {
        app.parse(argc, argv);
    } catch (const CLI::ParseError& error) {
        if (error.get_exit_code() == 0) {
            return app.exit(error);
        }
        return wrongUsage(std::string(error.what()) + "\nRun \"sober --help\" for what is right.");
    }
    if (common.catalogue.empty()) {
        return wrongUsage("--catalogue needs the name of a file.");
    }

    RunControl control;
    const SignalWatch signals(control);
    if (examineCommand->parsed()) {
        return runExamine(common, examined, control);
    }
    if (surveyCommand->parsed()) {
        if (!label.empty()) {
            survey.label = label;
        }
        if (!effort.empty()) {
            survey.effort = effort == "full" ? Effort::full : Effort::index;
        }
        if (choices.maxDepth < 0) {
            return wrongUsage("--depth counts folders: 0 for all of them, 1 for what lies directly in PATH.");
        }
        if (minSize < 0 || maxSize < 0) {
            return wrongUsage("--min-size and --max-size are numbers of bytes, 0 or more.");
        }
        if (maxSize > 0 && minSize > maxSize) {
            return wrongUsage("--min-size is above --max-size: everything would be left out.");
        }
        survey.changeChoices = [&](SurveyChoices& kept) {
            kept = takeAll ? SurveyChoices{} : kept;
            const auto said = [](const CLI::Option* option) { return option->count() > 0; };
            kept.leaveHidden = said(hiddenOption) ? choices.leaveHidden : kept.leaveHidden;
            kept.leavePatterns = said(leaveOption) ? choices.leavePatterns : kept.leavePatterns;
            kept.minSize = said(minOption) ? static_cast<std::uint64_t>(minSize) : kept.minSize;
            kept.maxSize = said(maxOption) ? static_cast<std::uint64_t>(maxSize) : kept.maxSize;
            kept.maxDepth = said(depthOption) ? choices.maxDepth : kept.maxDepth;
            kept.lookInside = said(insideOption) ? choices.lookInside : kept.lookInside;
            kept.keepExcerpts = said(excerptOption) ? choices.keepExcerpts : kept.keepExcerpts;
            kept.followLinks = said(linksOption) ? choices.followLinks : kept.followLinks;
        };
        if (survey.label && survey.paths.size() > 1) {
            return wrongUsage("--label names one volume: survey the folders one by one.");
        }
        return runSurvey(common, survey, control);
    }
    if (findCommand->parsed()) {
        find.filter.listed = unlisted ? HoldingFilter::Listed::inNoList : HoldingFilter::Listed::any;
        return runFind(common, find, control);
    }
    if (browseCommand->parsed()) {
        return runBrowse(common, browsed);
    }
    if (conditionCommand->parsed()) {
        return runCondition(common);
    }
    if (copiesCommand->parsed()) {
        return runCopies(common);
    }
    if (claimsCommand->parsed()) {
        return runClaims(common);
    }
    if (verifyCommand->parsed()) {
        if (slowlyOption->count() > 0 && !(slowly > 0)) {
            return wrongUsage("--slowly is a number of megabytes a second, above 0.");
        }
        verify.scope = due ? CheckScope::due : sample > 0 ? CheckScope::sample : CheckScope::whole;
        verify.extent = sample / 100;
        verify.missRisk = risk / 100;
        verify.reading.fromMedium = !fromMemory;
        verify.reading.mostPerSecond = static_cast<std::uint64_t>(slowly * 1e6);
        return runVerify(common, verify, notify, control);
    }
    if (scheduleCommand->parsed()) {
        return runSchedule(common, scheduled, every);
    }
    if (seekCommand->parsed()) {
        return runSeek(common, seekFolders, control);
    }
    if (listCheck->parsed()) {
        return runListCheck(common, listed, listFolder, control);
    }
    if (listTake->parsed()) {
        return runListTake(common, listed, listFolder, control);
    }
    if (bagCheck->parsed()) {
        return runBagCheck(common, bagFolder, control);
    }
    if (bagWrite->parsed()) {
        return runBagWrite(common, bagFolder, bagTo, control);
    }
    if (listWrite->parsed()) {
        return runListWrite(common, listed, listKind, control);
    }
    if (addCommand->parsed()) {
        if ((asked == "suggested") != paths.empty()) {
            return wrongUsage(paths.empty()
                                  ? "Name the files: sober docket add KIND PATH…"
                                  : "\"suggested\" takes no files: it adds what \"sober copies\" suggests.");
        }
        const auto kind = actionKindOf(asked);
        if (layoutOption->count() > 0) {
            if (kind != ActionKind::move || !target.empty()) {
                return wrongUsage("--layout orders folders: sober docket add move FOLDER… --layout LAYOUT");
            }
            return runDocketAddReorder(common, paths, layout, reason);
        }
        const bool goesSomewhere = kind && needsTarget(*kind);
        if (goesSomewhere != !target.empty()) {
            return wrongUsage(fmt::format("Say where to: sober docket add {} PATH… --to TARGET",
                                          word(goesSomewhere ? *kind : ActionKind::repoint)));
        }
        if (consent && (kind != ActionKind::retire || paths.size() != 1)) {
            return wrongUsage(
                "--consent is given for one file that is to be retired, never for many at once.");
        }
        if (!kind) {
            return runDocketAddSuggested(common, policy, control);
        }
        if ((kind == ActionKind::retag) != !others.empty() ||
            (kind == ActionKind::retag && paths.size() != 1)) {
            return wrongUsage(
                "Say which file gets tags from which: sober docket add retag FILE --from OTHER…");
        }
        if (kind == ActionKind::retag) {
            return runDocketAddRetag(common, paths.front(), others);
        }
        if (!policy.empty()) {
            return wrongUsage("--policy goes with \"suggested\".");
        }
        if (kind && isPlaced(*kind) && paths.size() > 1 && !target.ends_with('/') && !isFolder(target)) {
            return wrongUsage(
                displayPath(target) +
                " is no folder: several files cannot get one name. End it with \"/\" to have it made.");
        }
        if (reason.empty() && kind == ActionKind::accept) {
            reason = "accepted as it is";
        }
        return runDocketAdd(common, *kind, paths, target, reason, consent);
    }
    if (removeCommand->parsed()) {
        return runDocketRemove(common, taken);
    }
    if (playersAdd->parsed()) {
        player.standsFor = player.standsFor.empty() ? player.standsFor
                                                    : realPathOf(player.standsFor).value_or(player.standsFor);
        std::ranges::replace(player.writtenPrefix, '\\', '/');
        return runPlayersAdd(common, player, control);
    }
    if (playersRemove->parsed()) {
        return runPlayersRemove(common, playerName);
    }
    if (playersCommand->parsed()) {
        return runPlayers(common, control);
    }
    if (relinkCommand->parsed()) {
        for (std::size_t i = 0; i + 1 < examples.size(); i += 2) {
            relinking.request.examples.push_back(
                {examples[i], realPathOf(examples[i + 1]).value_or(examples[i + 1])});
        }
        return runRelink(common, relinking, control);
    }
    if (volumesRename->parsed()) {
        return runVolumesRename(common, volumeLabel, newLabel);
    }
    if (volumesLabels->parsed()) {
        return runVolumesLabels(common, labelsTo);
    }
    if (volumesForget->parsed()) {
        return runVolumesForget(common, volumeLabel, forgetNow);
    }
    if (volumesSucceed->parsed()) {
        return runVolumesSucceed(common, volumeLabel, volumeFolder, control);
    }
    if (volumesCommand->parsed()) {
        return runVolumes(common);
    }
    if (excerptsTake->parsed()) {
        return runExcerptsTake(common, excerptOf, excerptTo);
    }
    if (excerptsCommand->parsed()) {
        return runExcerpts(common);
    }
    if (reportCommand->parsed()) {
        return runReport(common, reporting, control);
    }
    if (carryAlongCommand->parsed()) {
        return runCarry(common, carryPlace, carryPackage, control);
    }
    if (catalogueCompare->parsed()) {
        return runCatalogueCompare(common, catalogueFile, control);
    }
    if (catalogueTakeIn->parsed()) {
        return runCatalogueTakeIn(common, catalogueFile, control);
    }
    if (catalogueSave->parsed()) {
        return runCatalogueSave(common, catalogueFile, control);
    }
    if (catalogueBack->parsed()) {
        return runCatalogueBringBack(common, catalogueFile, control);
    }
    if (discShow->parsed()) {
        return runDiscShow(common, shownDisc, shownLookup, control);
    }
    if (discServices->parsed()) {
        return runDiscServices(common, saysRegister->count() > 0 ? std::optional(setRegister) : std::nullopt,
                               saysLookup->count() > 0 ? std::optional(setLookup) : std::nullopt);
    }
    if (discRead->parsed()) {
        return runDiscRead(common, ripping, control);
    }
    if (intakeAdd->parsed()) {
        return runIntakeAdd(common, inbox);
    }
    if (intakeRemove->parsed()) {
        return runIntakeRemove(common, inbox.folder);
    }
    if (intakeTake->parsed()) {
        return runIntakeTake(common, intaking, control);
    }
    if (intakeCommand->parsed()) {
        return runIntake(common, control);
    }
    if (replaceCommand->parsed()) {
        if (noShelf || !shelf.empty()) {
            return runReplaceShelf(common, noShelf ? "" : shelf);
        }
        if (replacing.holding.empty() != replacing.by.empty() ||
            (replacing.advised && !replacing.by.empty())) {
            return wrongUsage(
                "Say a holding and, with --by, what replaces it; or --advised; or nothing to see "
                "what could be better.");
        }
        return replacing.advised || !replacing.by.empty() ? runReplace(common, replacing, control)
                                                          : runReplaceList(common, control);
    }
    if (salvageImaging->parsed()) {
        return runSalvageImage(common, imaging, control);
    }
    if (salvageTrash->parsed()) {
        return runSalvageTrash(common, salvageVolume, control);
    }
    if (salvageScan->parsed()) {
        return runSalvageScan(common, scanning, control);
    }
    if (salvageList->parsed()) {
        return runSalvageList(common, salvageImage);
    }
    if (salvageBytes->parsed()) {
        return runSalvageBytes(common, salvageLook, control);
    }
    if (salvageWrite->parsed()) {
        return runSalvageWrite(common, salvageWriting, control);
    }
    if (salvageTidy->parsed()) {
        return runSalvageTidy(common);
    }
    if (salvageForget->parsed()) {
        return runSalvageForget(common, salvageImage);
    }
    if (salvageTake->parsed()) {
        return runSalvageTake(common, taking, control);
    }
    if (transferPlan->parsed()) {
        return runTransferPlan(common, transfer, control);
    }
    if (transferRun->parsed()) {
        return runTransferRun(common, transferNumber, control);
    }
    if (transferProve->parsed()) {
        return runTransferProve(common, transferNumber, control);
    }
    if (transferRelease->parsed()) {
        return runTransferRelease(common, transferNumber, releaseNow, control);
    }
    if (transferForget->parsed()) {
        return runTransferForget(common, transferNumber);
    }
    if (transferList->parsed()) {
        return runTransferList(common, transferNumber);
    }
    if (clearCommand->parsed()) {
        return runDocketClear(common);
    }
    if (carryCommand->parsed()) {
        return runCarryOut(common, control);
    }
    if (docketCommand->parsed()) {
        return runDocket(common);
    }
    if (ledgerCommand->parsed()) {
        return premis                ? runLedgerPremis(common)
               : !shownEntry.empty() ? runLedgerEntry(common, shownEntry)
                                     : runLedger(common);
    }
    return undoCommand->parsed() ? runUndo(common, entry, control) : exitUsage;
}

} // namespace

int main(int argc, char** argv) {
    // Letters as the terminal has them; figures, dates and what the system says of errors as scripts read
    // them.
    std::setlocale(LC_CTYPE, "");
    const int code = runCommand(argc, argv);
    // What could not be written out was not done, whatever came before.
    if (std::fflush(stdout) != 0 || std::ferror(stdout) != 0) {
        std::fprintf(stderr, "The output could not be written: %s.\n", std::strerror(errno));
        return exitCouldNot;
    }
    return code;
}
