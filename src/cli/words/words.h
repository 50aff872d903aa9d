#pragma once

namespace sober::cli {

class CommandLine;

// Each adds a command, and those below it, to the line.

void addExamine(CommandLine& line);
void addSurvey(CommandLine& line);
void addFind(CommandLine& line);
void addBrowse(CommandLine& line);
void addCondition(CommandLine& line);
void addCopies(CommandLine& line);
void addClaims(CommandLine& line);
void addVerify(CommandLine& line);
void addSchedule(CommandLine& line);
void addSeek(CommandLine& line);
void addList(CommandLine& line);
void addBag(CommandLine& line);
void addPlayers(CommandLine& line);
void addRelink(CommandLine& line);
void addVolumes(CommandLine& line);
void addExcerpts(CommandLine& line);
void addCarry(CommandLine& line);
void addCatalogue(CommandLine& line);
void addReport(CommandLine& line);
void addDisc(CommandLine& line);
void addIntake(CommandLine& line);
void addReplace(CommandLine& line);
void addSalvage(CommandLine& line);
void addTransfer(CommandLine& line);
void addDocket(CommandLine& line);
void addLedger(CommandLine& line);
void addUndo(CommandLine& line);

} // namespace sober::cli
