/* promised-baseline FROM TO COUNT [STAYS]: renames FROM/D/N.wav to TO/D/N.wav, D = N / 500, as
 * rename-baseline does, with no more added than a move that can be taken back after any interruption cannot
 * do without: before each 256 a row for each in a ledger (TO.sqlite), flushed; of each file a look just
 * before its rename, which overwrites nothing; after the folders were flushed, each row settled and the
 * file's new place written down, flushed. With STAYS, what retiring adds: the file and STAYS/D/N.wav are read
 * and compared, and a note of where it was is written beside it and flushed before it goes.
 */
#include <sys/stat.h>

#include <fcntl.h>
#include <sqlite3.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <unistd.h>

enum { batch_size = 256, files_in_folder = 500, longest_path = 4096, longest_file = 65536 };

static void fail(const char* what) {
    perror(what);
    exit(1);
}

static void flush(const char* path, int flags) {
    const int file = open(path, flags);
    if (file < 0 || fsync(file) != 0) {
        fail(path);
    }
    close(file);
}

static void place(char* path, const char* folder, int number, const char* ending) {
    snprintf(path, longest_path, "%s/%d/%d.%s", folder, number / files_in_folder, number, ending);
}

static void flush_folders(const char* folder, int first, int past) {
    char path[longest_path];
    for (int part = first / files_in_folder; part <= (past - 1) / files_in_folder; ++part) {
        snprintf(path, sizeof path, "%s/%d", folder, part);
        flush(path, O_RDONLY | O_DIRECTORY);
    }
}

static ssize_t read_whole(const char* path, char* bytes) {
    const int file = open(path, O_RDONLY);
    const ssize_t length = file < 0 ? -1 : read(file, bytes, longest_file);
    if (length < 0) {
        fail(path);
    }
    close(file);
    return length;
}

static void compare(const char* one, const char* other) {
    static char bytes[2][longest_file];
    const ssize_t length = read_whole(one, bytes[0]);
    if (length != read_whole(other, bytes[1]) || memcmp(bytes[0], bytes[1], (size_t)length) != 0) {
        fprintf(stderr, "%s is not %s\n", one, other);
        exit(1);
    }
}

static void note(const char* path, const char* from) {
    const int file = open(path, O_WRONLY | O_CREAT | O_EXCL, 0600);
    if (file < 0 || write(file, from, strlen(from)) < 0) {
        fail(path);
    }
    close(file);
}

static void step(sqlite3_stmt* statement, int number, const char* from, const char* to) {
    sqlite3_bind_int(statement, 1, number);
    sqlite3_bind_text(statement, 2, from, -1, SQLITE_TRANSIENT);
    sqlite3_bind_text(statement, 3, to, -1, SQLITE_TRANSIENT);
    if (sqlite3_step(statement) != SQLITE_DONE) {
        fprintf(stderr, "%s\n", sqlite3_errmsg(sqlite3_db_handle(statement)));
        exit(1);
    }
    sqlite3_reset(statement);
}

static void tell(sqlite3* ledger, const char* statement) {
    if (sqlite3_exec(ledger, statement, NULL, NULL, NULL) != SQLITE_OK) {
        fprintf(stderr, "%s: %s\n", statement, sqlite3_errmsg(ledger));
        exit(1);
    }
}

static sqlite3_stmt* prepared(sqlite3* ledger, const char* text) {
    sqlite3_stmt* statement = NULL;
    if (sqlite3_prepare_v2(ledger, text, -1, &statement, NULL) != SQLITE_OK) {
        fprintf(stderr, "%s: %s\n", text, sqlite3_errmsg(ledger));
        exit(1);
    }
    return statement;
}

int main(int argc, char** argv) {
    if (argc != 4 && argc != 5) {
        return 2;
    }
    const char* const from = argv[1];
    const char* const to = argv[2];
    const int count = atoi(argv[3]);
    const char* const stays = argc == 5 ? argv[4] : NULL;
    char path[longest_path];
    char other[longest_path];
    sqlite3* ledger = NULL;
    snprintf(path, sizeof path, "%s.sqlite", to);
    if (sqlite3_open(path, &ledger) != SQLITE_OK) {
        fail(path);
    }
    tell(ledger, "PRAGMA journal_mode = WAL");
    tell(ledger, "PRAGMA synchronous = FULL");
    tell(ledger,
         "CREATE TABLE IF NOT EXISTS ledger(id INTEGER PRIMARY KEY, place BLOB, target BLOB, step INTEGER)");
    tell(ledger, "CREATE TABLE IF NOT EXISTS holdings(id INTEGER PRIMARY KEY, place BLOB)");
    tell(ledger, "CREATE INDEX IF NOT EXISTS by_place ON holdings(place)");
    sqlite3_stmt* const begin = prepared(ledger, "INSERT OR REPLACE INTO ledger VALUES(?, ?, ?, 0)");
    sqlite3_stmt* const settle =
        prepared(ledger, "UPDATE ledger SET step = 1, place = ?2, target = ?3 WHERE id = ?1");
    sqlite3_stmt* const know = prepared(ledger, "INSERT OR REPLACE INTO holdings VALUES(?1, ?3)");
    for (int first = 0; first < count; first += batch_size) {
        const int past = first + batch_size < count ? first + batch_size : count;
        tell(ledger, "BEGIN IMMEDIATE");
        for (int i = first; i < past; ++i) {
            place(path, from, i, "wav");
            place(other, to, i, "wav");
            if (stays != NULL) {
                char kept[longest_path];
                place(kept, stays, i, "wav");
                compare(path, kept);
            }
            if (i % files_in_folder == 0) {
                char folder[longest_path];
                snprintf(folder, sizeof folder, "%s/%d", to, i / files_in_folder);
                mkdir(folder, 0777);
            }
            step(begin, i, path, other);
        }
        tell(ledger, "COMMIT");
        for (int i = first; stays != NULL && i < past; ++i) {
            place(path, from, i, "wav");
            place(other, to, i, "note");
            note(other, path);
        }
        if (stays != NULL) {
            place(other, to, first, "note");
            const int any = open(other, O_RDONLY);
            if (any < 0 || syncfs(any) != 0) {
                fail(other);
            }
            close(any);
        }
        for (int i = first; i < past; ++i) {
            struct stat status;
            place(path, from, i, "wav");
            place(other, to, i, "wav");
            if (lstat(path, &status) != 0 ||
                renameat2(AT_FDCWD, path, AT_FDCWD, other, RENAME_NOREPLACE) != 0) {
                fail(path);
            }
        }
        flush_folders(from, first, past);
        flush_folders(to, first, past);
        tell(ledger, "BEGIN IMMEDIATE");
        for (int i = first; i < past; ++i) {
            place(path, from, i, "wav");
            place(other, to, i, "wav");
            step(settle, i, path, other);
            step(know, i, path, other);
        }
        tell(ledger, "COMMIT");
    }
    sqlite3_finalize(begin);
    sqlite3_finalize(settle);
    sqlite3_finalize(know);
    return sqlite3_close(ledger) == SQLITE_OK ? 0 : 1;
}
