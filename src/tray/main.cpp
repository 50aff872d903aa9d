#include "tray/serving.h"

// The only program that opens discs.
int main() {
    return sober::serveAsTray();
}
