/* rename-baseline FROM TO COUNT: renames FROM/D/N to TO/D/N, D = N / 500, and flushes each folder that it
 * touched once for each 256 of them: the least that moving files so that it lasts can cost. */
#include <fcntl.h>
#include <stdio.h>
#include <stdlib.h>
#include <sys/stat.h>
#include <unistd.h>

static void flush_folder(const char* path) {
    const int folder = open(path, O_RDONLY | O_DIRECTORY);
    if (folder < 0 || fsync(folder) != 0) {
        perror(path);
        exit(1);
    }
    close(folder);
}

static void flush_both(const char* from, const char* to, int part) {
    char path[4096];
    snprintf(path, sizeof path, "%s/%d", from, part);
    flush_folder(path);
    snprintf(path, sizeof path, "%s/%d", to, part);
    flush_folder(path);
}

int main(int argc, char** argv) {
    if (argc != 4) {
        return 2;
    }
    const int count = atoi(argv[3]);
    char from[4096];
    char to[4096];
    for (int i = 0; i < count; ++i) {
        const int part = i / 500;
        snprintf(to, sizeof to, "%s/%d", argv[2], part);
        if (i % 500 == 0) {
            mkdir(to, 0777);
        }
        snprintf(from, sizeof from, "%s/%d/%d.wav", argv[1], part, i);
        snprintf(to, sizeof to, "%s/%d/%d.wav", argv[2], part, i);
        if (rename(from, to) != 0) {
            perror(from);
            return 1;
        }
        const int last = i + 1 == count;
        if ((i + 1) % 256 == 0 || last) {
            const int first = (i / 256) * 256 / 500;
            for (int each = first; each <= part; ++each) {
                flush_both(argv[1], argv[2], each);
            }
        }
    }
    return 0;
}
