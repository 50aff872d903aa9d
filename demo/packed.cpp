#include "demo/packed.h"

#include "demo/encode.h"
#include "demo/synth.h"
#include "demo/whole_file.h"

#include <archive.h>
#include <archive_entry.h>
#include <array>
#include <ctime>

namespace sober::demo {
namespace {

namespace fs = std::filesystem;

constexpr std::time_t packedOn = 1247400000; // a day in July 2009

bool addTo(archive* zip, const std::string& name, const std::string& content) {
    archive_entry* entry = archive_entry_new();
    archive_entry_set_pathname_utf8(entry, name.c_str());
    archive_entry_set_size(entry, static_cast<la_int64_t>(content.size()));
    archive_entry_set_filetype(entry, AE_IFREG);
    archive_entry_set_perm(entry, 0644);
    archive_entry_set_mtime(entry, packedOn, 0);
    const bool added =
        archive_write_header(zip, entry) == ARCHIVE_OK &&
        archive_write_data(zip, content.data(), content.size()) == static_cast<la_ssize_t>(content.size());
    archive_entry_free(entry);
    return added;
}

} // namespace

bool makePacked(const BytePath& folder) {
    const auto place = joinPath(folder, "PETREL/Packed away");
    fs::create_directories(place);
    const auto only = joinPath(place, "only here.flac");
    if (!encode(synthesise({Voice::bells, 981, 13, 84}),
                {"Regatta Day, a rehearsal", "Pell Harbour Ringers", "", 0, 2009}, only)) {
        return false;
    }
    archive* zip = archive_write_new();
    bool packed =
        archive_write_set_format_zip(zip) == ARCHIVE_OK &&
        archive_write_open_filename(zip, joinPath(place, "Attic box 2009.zip").c_str()) == ARCHIVE_OK;
    for (const auto& [from, name] : std::array<std::pair<BytePath, const char*>, 3>{
             {{only, "Attic box/Regatta Day, a rehearsal.flac"},
              {joinPath(folder, "GANNET/Best of/Diaphone, Test Blast.flac"), "Attic box/diaphone.flac"},
              {joinPath(folder, "PETREL/Archive/Choral Union/Tide Carol.flac"), "Attic box/carol.flac"}}}) {
        packed = packed && addTo(zip, name, contentOf(from));
    }
    packed = archive_write_free(zip) == ARCHIVE_OK && packed;
    fs::remove(only);
    return packed;
}

} // namespace sober::demo
