#include "cli/answers.h"
#include "cli/command_line.h"
#include "cli/words/words.h"

#include <cerrno>
#include <clocale>
#include <cstdio>
#include <cstring>

using namespace sober::cli;

int main(int argc, char** argv) {
    // Letters as the terminal has them; figures, dates and what the system says of errors as scripts read
    // them.
    std::setlocale(LC_CTYPE, "");
    CommandLine line;
    // As the help names them.
    for (const auto add :
         {addExamine, addSurvey,   addFind,     addBrowse,    addCondition, addCopies,  addClaims,
          addVerify,  addSchedule, addSeek,     addList,      addBag,       addPlayers, addRelink,
          addVolumes, addExcerpts, addCarry,    addCatalogue, addReport,    addDisc,    addIntake,
          addReplace, addSalvage,  addTransfer, addDocket,    addLedger,    addUndo}) {
        add(line);
    }
    const int code = line.run(argc, argv);
    // What could not be written out was not done, whatever came before.
    if (std::fflush(stdout) != 0 || std::ferror(stdout) != 0) {
        std::fprintf(stderr, "The output could not be written: %s.\n", std::strerror(errno));
        return exitCouldNot;
    }
    return code;
}
