#include "core/evidence/worker/serving.h"

// Of the programs that parse foreign bytes the one that knows audio, tags and archives.
int main() {
    return sober::serveAsEvidenceWorker();
}
