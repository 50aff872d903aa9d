// What is kept: volumes, excerpts, the catalogue itself, reports of it.
#include "cli/catalogue_command.h"
#include "cli/command_line.h"
#include "cli/excerpts_command.h"
#include "cli/report_command.h"
#include "cli/volumes_command.h"
#include "cli/words/words.h"

namespace sober::cli {

void addVolumes(CommandLine& line) {
    auto* volumesCommand =
        line.app().add_subcommand("volumes", "the volumes; renaming, forgetting and succeeding them");
    auto* volumesRename = volumesCommand->add_subcommand("rename", "give one another label");
    auto* volumesForget = volumesCommand->add_subcommand(
        "forget", "what is lost if one leaves the catalogue, and let it leave");
    auto* volumesSucceed =
        volumesCommand->add_subcommand("succeed", "another drive, made as a copy, has taken one's place");
    auto* volumesLabels = volumesCommand->add_subcommand("labels", "a page of labels for the drives (HTML)");
    auto& labelsTo = line.keep<std::optional<BytePath>>();
    volumesLabels->add_option("--to", labelsTo, "a new file; else it is printed");
    auto& volumeLabel = line.keep<std::string>();
    for (auto* each : {volumesRename, volumesForget, volumesSucceed}) {
        each->add_option("LABEL", volumeLabel, "the volume")->required();
    }
    auto& newLabel = line.keep<std::string>();
    volumesRename->add_option("NEW", newLabel, "its new label")->required();
    auto& forgetNow = line.keep<bool>(false);
    volumesForget->add_flag("--carry-out", forgetNow, "forget it; without this it is only said what is lost");
    auto& volumeFolder = line.keep<BytePath>();
    volumesSucceed->add_option("FOLDER", volumeFolder, "where the copy is")->required();

    line.add(volumesRename, [&volumeLabel, &newLabel](const CommonOptions& common, RunControl&) {
        return runVolumesRename(common, volumeLabel, newLabel);
    });
    line.add(volumesLabels, [&labelsTo](const CommonOptions& common, RunControl&) {
        return runVolumesLabels(common, labelsTo);
    });
    line.add(volumesForget, [&volumeLabel, &forgetNow](const CommonOptions& common, RunControl&) {
        return runVolumesForget(common, volumeLabel, forgetNow);
    });
    line.add(volumesSucceed, [&volumeLabel, &volumeFolder](const CommonOptions& common, RunControl& control) {
        return runVolumesSucceed(common, volumeLabel, volumeFolder, control);
    });
    line.add(volumesCommand, [](const CommonOptions& common, RunControl&) { return runVolumes(common); });
}

void addExcerpts(CommandLine& line) {
    auto* excerptsCommand = line.app().add_subcommand(
        "excerpts", "what is kept of recordings to listen to while their drives are away");
    auto* excerptsTake = excerptsCommand->add_subcommand("take", "write one out, as Ogg Opus");
    auto& excerptOf = line.keep<BytePath>();
    excerptsTake->add_option("PATH", excerptOf, "a holding, at hand or away")->required();
    auto& excerptTo = line.keep<BytePath>();
    excerptsTake->add_option("--to", excerptTo, "a new file")->required();

    line.add(excerptsTake, [&excerptOf, &excerptTo](const CommonOptions& common, RunControl&) {
        return runExcerptsTake(common, excerptOf, excerptTo);
    });
    line.add(excerptsCommand, [](const CommonOptions& common, RunControl&) { return runExcerpts(common); });
}

void addCarry(CommandLine& line) {
    auto* carryAlongCommand = line.app().add_subcommand(
        "carry", "write the catalogue into a folder on a stick, to be opened from there on another machine");
    auto& carryPlace = line.keep<BytePath>();
    carryAlongCommand->add_option("PLACE", carryPlace, "where the folder \"Sober Archivist\" is made")
        ->required();
    auto& means = line.keep<CarriedMeans>();
    carryAlongCommand->add_flag("--program", means.program,
                                "the program goes along with what it needs, to run without being installed");
    carryAlongCommand->add_option("--package", means.package, "the program's Debian package, to go along");

    line.add(carryAlongCommand, [&carryPlace, &means](const CommonOptions& common, RunControl& control) {
        return runCarry(common, carryPlace, means, control);
    });
}

void addCatalogue(CommandLine& line) {
    auto* catalogueCommand =
        line.app().add_subcommand("catalogue", "saving the catalogue itself, and bringing it back");
    catalogueCommand->require_subcommand(1);
    auto* catalogueSave =
        catalogueCommand->add_subcommand("save", "write it into another file, while it is in use");
    auto* catalogueBack = catalogueCommand->add_subcommand("bring-back", "make it what a saved one was");
    auto* catalogueCompare =
        catalogueCommand->add_subcommand("compare", "what another catalogue knows that this one does not");
    auto* catalogueTakeIn = catalogueCommand->add_subcommand(
        "take-in", "take what another catalogue knows into this one; what was seen last wins");
    auto& catalogueFile = line.keep<BytePath>();
    for (auto* each : {catalogueSave, catalogueBack, catalogueCompare, catalogueTakeIn}) {
        each->add_option("FILE", catalogueFile, "the saved catalogue")->required();
    }

    line.add(catalogueCompare, [&catalogueFile](const CommonOptions& common, RunControl& control) {
        return runCatalogueCompare(common, catalogueFile, control);
    });
    line.add(catalogueTakeIn, [&catalogueFile](const CommonOptions& common, RunControl& control) {
        return runCatalogueTakeIn(common, catalogueFile, control);
    });
    line.add(catalogueSave, [&catalogueFile](const CommonOptions& common, RunControl& control) {
        return runCatalogueSave(common, catalogueFile, control);
    });
    line.add(catalogueBack, [&catalogueFile](const CommonOptions& common, RunControl& control) {
        return runCatalogueBringBack(common, catalogueFile, control);
    });
}

void addReport(CommandLine& line) {
    auto* reportCommand =
        line.app().add_subcommand("report", "what is known of the collection, to keep or to give away");
    auto& reporting = line.keep<ReportOptions>();
    reportCommand->add_option("--form", reporting.form, "html (a page that prints), csv or json");
    reportCommand->add_option("--to", reporting.to, "a new file; else it is printed");
    reportCommand
        ->add_option("--about", reporting.about,
                     "only these: condition, copies, claims, damage, fixity, missing, proofs")
        ->delimiter(',');
    reportCommand->add_flag("--no-paths", reporting.leavePathsOut,
                            "leave paths and names out; each holding has a number instead");

    line.add(reportCommand, [&reporting](const CommonOptions& common, RunControl& control) {
        return runReport(common, reporting, control);
    });
}

} // namespace sober::cli
