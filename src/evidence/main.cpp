#include "core/evidence/worker/serving.h"

// The only program that parses foreign bytes.
int main() {
    return sober::serveAsEvidenceWorker();
}
