#include "core/media/file_systems.h"

#include "core/evidence/worker/serving.h"

// Of the programs that parse foreign bytes the one that knows file systems.
int main() {
    return sober::serveAsEvidenceWorker(sober::readFileSystems);
}
