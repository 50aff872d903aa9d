#include "core/intake/tag_proposals.h"

#include "core/base/text.h"
#include "core/intake/mended_text.h"

#include <fmt/format.h>

#include <algorithm>
#include <regex>

namespace sober {
namespace {

/// Bytes of a text that is looked at: what is longer is no name, and std::regex goes as deep as its text is
/// long.
constexpr std::size_t longestRead = 1'000;

std::string firstOf(const TagFields& tags, const std::string& field) {
    const auto found = tags.fields.find(field);
    return found == tags.fields.end() || found->second.empty() || found->second.front().size() > longestRead
               ? std::string()
               : found->second.front();
}

/// Fields that a person reads.
bool isRead(const std::string& field) {
    static const std::set<std::string> all{"TITLE",     "ARTIST",      "ALBUM",      "ALBUMARTIST",
                                           "GENRE",     "COMMENT",     "COMPOSER",   "LABEL",
                                           "PUBLISHER", "DESCRIPTION", "PERFORMER",  "CONDUCTOR",
                                           "SUBTITLE",  "TRACKNUMBER", "DISCNUMBER", "DATE"};
    return all.contains(field);
}

/// A name without its ending.
std::string stemOf(const BytePath& path) {
    const auto name = nameOf(path);
    return std::string(name.substr(0, std::min(name.rfind('.'), name.size())));
}

/// What a file's name tells: "03 - Artist - Title", "03 Title", "Artist - Title".
struct NameTells {
    std::string number;
    std::string artist;
    std::string title;
};
NameTells tellsOf(const BytePath& path) {
    NameTells tells;
    auto stem = stemOf(path);
    if (!isUtf8(stem)) {
        return tells;
    }
    std::ranges::replace(stem, '_', ' ');
    stem = tidiedText(stem);
    static const std::regex numbered(R"(^(?:\d{1,2}[-.])?(\d{1,3})(?:\s*[-.)]\s*|\s+)(\S.*)$)");
    std::smatch match;
    if (std::regex_match(stem, match, numbered)) {
        tells.number = std::to_string(std::stoi(match[1]));
        stem = match[2];
    }
    static const std::regex parted(R"(^(\S.*?)\s+[-–]\s+(\S.*)$)");
    if (std::regex_match(stem, match, parted)) {
        tells.artist = match[1];
        tells.title = match[2];
    } else {
        tells.title = stem;
    }
    return tells;
}

/// Names that tell nothing: "track 01", "audio", digits alone, or that lie in a folder where things only
/// pass.
bool saysNothing(const std::string& name) {
    static const std::regex empty(
        R"(^(track|title|audio|untitled|unknown|new recording|recording|file|download)?[\s\d._-]*$)",
        std::regex::icase);
    return std::regex_match(name, empty);
}

/// Whether a name in it is none: then nothing of it is read.
bool isOverlong(const TagFields& tags) {
    return std::ranges::any_of(tags.fields, [](const auto& field) {
        return field.first != "COMMENT" && isRead(field.first) &&
               std::ranges::any_of(field.second,
                                   [](const auto& value) { return value.size() > longestRead; });
    });
}

class Proposing {
  public:
    Proposing(std::span<const TaggedFile> files, const CollectionNames& names,
              const std::map<BytePath, Picture>& pictures)
        : files_(files), names_(names), pictures_(pictures), proposals_(files.size()) {}

    std::vector<std::vector<TagProposal>> run() {
        for (std::size_t i = 0; i < files_.size(); ++i) {
            if (!isOverlong(files_[i].tags)) {
                mendTexts(i);
                mendNumbers(i);
                takeFromName(i);
                spellAsUsual(i);
                fileAsUsual(i);
            }
            addPicture(i);
        }
        nameAlbumArtists();
        return std::move(proposals_);
    }

  private:
    /// What a field would be with what was proposed so far.
    std::string asProposed(std::size_t file, const std::string& field) const {
        const auto& all = proposals_[file];
        const auto last =
            std::find_if(all.rbegin(), all.rend(), [&](const auto& each) { return each.field == field; });
        return last != all.rend() ? last->shall : firstOf(files_[file].tags, field);
    }

    void propose(std::size_t file, const std::string& field, std::string shall, ProposedFor reason,
                 std::string why) {
        auto& all = proposals_[file];
        const auto now = asProposed(file, field);
        if (now == shall) {
            return;
        }
        // A field is changed once: what is found later goes on from what was found before.
        const auto before = std::ranges::find(all, field, &TagProposal::field);
        if (before != all.end()) {
            before->shall = std::move(shall);
            before->why += " " + why;
            return;
        }
        all.push_back({field, now, std::move(shall), reason, std::move(why), {}});
    }

    void mendTexts(std::size_t file) {
        for (const auto& [field, values] : files_[file].tags.fields) {
            if (!isRead(field) || values.size() != 1 || values.front().size() > longestRead) {
                continue; // of several values each is somebody's decision
            }
            const auto& text = values.front();
            if (const auto meant = meantText(text)) {
                propose(file, field, *meant, ProposedFor::encoding,
                        "It was written in one encoding and read in another.");
            }
            auto now = asProposed(file, field);
            if (auto rid = withoutAdvertising(now); rid != now && tidiedText(now) != rid) {
                propose(file, field, std::move(rid), ProposedFor::advertising, "It names a site.");
            }
            now = asProposed(file, field);
            if (auto tidy = tidiedText(now); tidy != now) {
                propose(file, field, std::move(tidy), ProposedFor::spaces,
                        "It has spaces or characters that cannot be seen.");
            }
        }
    }

    void mendNumbers(std::size_t file) {
        for (const auto* field : {"TRACKNUMBER", "DISCNUMBER"}) {
            const auto now = asProposed(file, field);
            static const std::regex plain(R"(^\d+(\s*/\s*\d+)?$)");
            static const std::regex wordy(
                R"(^(?:\D{2,}|[^A-Za-z\d])?(\d{1,4})\D*$)"); // "A7" is a side of a record
            std::smatch match;
            if (!now.empty() && !std::regex_match(now, plain) && std::regex_match(now, match, wordy) &&
                lettersAndDigits(now).size() <= 12) {
                propose(file, field, std::to_string(std::stoi(match[1])), ProposedFor::number,
                        "It is a number.");
            }
        }
        const auto date = asProposed(file, "DATE");
        static const std::regex plainDate(R"(^\d{4}([-./]\d{1,2}([-./]\d{1,2})?)?([T ].*)?$)");
        static const std::regex yearWithin(R"(^\D*\b((?:18|19|20)\d\d)\b\D*$)");
        std::smatch match;
        if (!date.empty() && !std::regex_match(date, plainDate) &&
            std::regex_match(date, match, yearWithin)) {
            propose(file, "DATE", match[1], ProposedFor::number, "It holds one year.");
        }
    }

    void takeFromName(std::size_t file) {
        const auto tells = tellsOf(files_[file].path);
        const auto because = "The file is called " + displayPath(nameOf(files_[file].path)) + ".";
        const bool hasTitle = !asProposed(file, "TITLE").empty();
        if (!hasTitle && !saysNothing(tells.title)) {
            propose(file, "TITLE", tells.title, ProposedFor::fromName, because);
        }
        if (!hasTitle && asProposed(file, "ARTIST").empty() && !tells.artist.empty() &&
            !saysNothing(tells.artist)) {
            propose(file, "ARTIST", tells.artist, ProposedFor::fromName, because);
        }
        if (!tells.number.empty() && asProposed(file, "TRACKNUMBER").empty()) {
            propose(file, "TRACKNUMBER", tells.number, ProposedFor::fromName, because);
        }
    }

    void spellAsUsual(std::size_t file) {
        for (const auto* field : {"ARTIST", "ALBUMARTIST"}) {
            const auto now = asProposed(file, field);
            if (const auto usual = now.empty() ? std::nullopt : names_.usualSpelling(now)) {
                propose(file, field, usual->spelling, ProposedFor::spelling,
                        fmt::format("{} in the collection spell it like that.",
                                    counted(usual->holdings, "holding")));
            }
        }
    }

    void fileAsUsual(std::size_t file) {
        const auto artist = asProposed(file, "ARTIST");
        if (artist.empty() || !asProposed(file, "GENRE").empty()) {
            return;
        }
        if (const auto usual = names_.usualGenre(artist)) {
            propose(file, "GENRE", usual->spelling, ProposedFor::genre,
                    fmt::format("{} of that artist are filed so.", counted(usual->holdings, "holding")));
        }
    }

    void addPicture(std::size_t file) {
        const auto found = pictures_.find(BytePath(parentOf(files_[file].path)));
        if (found == pictures_.end() || !files_[file].tags.pictures.empty()) {
            return;
        }
        proposals_[file].push_back({"PICTURE", "", humanBytes(found->second.bytes.size()),
                                    ProposedFor::picture,
                                    "A picture lies beside it, and the file carries none.", found->second});
    }

    /// Without who else takes part.
    static std::string mainArtist(const std::string& artist) {
        static const std::regex guests(R"(\s+[\(\[]?(feat\.?|ft\.?|featuring|with)\s.*$)", std::regex::icase);
        return std::regex_replace(artist, guests, "");
    }

    void nameAlbumArtists() {
        std::map<std::pair<BytePath, std::string>, std::vector<std::size_t>> albums;
        for (std::size_t i = 0; i < files_.size(); ++i) {
            const auto album = asProposed(i, "ALBUM");
            if (!album.empty()) {
                albums[{BytePath(parentOf(files_[i].path)), album}].push_back(i);
            }
        }
        for (const auto& [album, members] : albums) {
            std::set<std::string> artists;
            std::set<std::string> mains;
            bool isNamed = false;
            for (const auto i : members) {
                const auto artist = asProposed(i, "ARTIST");
                artists.insert(artist);
                mains.insert(lettersAndDigits(mainArtist(artist)));
                isNamed = isNamed || !asProposed(i, "ALBUMARTIST").empty() || artist.empty();
            }
            if (isNamed || artists.size() < 2) {
                continue;
            }
            const auto name = mains.size() == 1 ? mainArtist(asProposed(members.front(), "ARTIST"))
                                                : std::string("Various Artists");
            for (const auto i : members) {
                propose(i, "ALBUMARTIST", name, ProposedFor::albumArtist,
                        fmt::format("The album has {} and names none of its own.",
                                    counted(artists.size(), "artist")));
            }
        }
    }

    std::span<const TaggedFile> files_;
    const CollectionNames& names_;
    const std::map<BytePath, Picture>& pictures_;
    std::vector<std::vector<TagProposal>> proposals_;
};

} // namespace

std::string_view word(ProposedFor reason) {
    constexpr std::string_view words[]{"encoding", "spaces",       "advertising", "number",  "from-name",
                                       "spelling", "album-artist", "genre",       "picture", "large-picture"};
    return words[static_cast<std::size_t>(reason)];
}

std::string CollectionNames::keyOf(const std::string& artist) {
    auto key = foldedForSearch(artist);
    if (key.starts_with("the ")) {
        key.erase(0, 4);
    } else if (key.ends_with(", the")) {
        key.erase(key.size() - 5);
    }
    return lettersAndDigits(key);
}

void CollectionNames::add(const std::string& artist, const std::string& genre) {
    const auto key = keyOf(artist);
    if (key.empty()) {
        return;
    }
    ++spellings_[key][artist];
    ++genres_[key][genre];
}

std::optional<CollectionNames::Usual> CollectionNames::usualSpelling(const std::string& artist) const {
    constexpr std::size_t fewest = 3;
    const auto known = spellings_.find(keyOf(artist));
    if (known == spellings_.end()) {
        return std::nullopt;
    }
    const auto most =
        std::ranges::max_element(known->second, {}, [](const auto& each) { return each.second; });
    const auto own = known->second.find(artist);
    const auto ownCount = own == known->second.end() ? 0 : own->second;
    return most->first != artist && most->second >= fewest && most->second >= 3 * ownCount
               ? std::optional(Usual{most->first, most->second})
               : std::nullopt;
}

std::optional<CollectionNames::Usual> CollectionNames::usualGenre(const std::string& artist) const {
    constexpr std::size_t fewest = 3;
    const auto known = genres_.find(keyOf(artist));
    if (known == genres_.end()) {
        return std::nullopt;
    }
    std::size_t all = 0;
    for (const auto& [genre, count] : known->second) {
        all += genre.empty() ? 0 : count;
    }
    const auto most = std::ranges::max_element(
        known->second, {}, [](const auto& each) { return each.first.empty() ? 0 : each.second; });
    return !most->first.empty() && most->second >= fewest && most->second * 10 >= all * 8
               ? std::optional(Usual{most->first, most->second})
               : std::nullopt;
}

std::vector<std::vector<TagProposal>> proposeTags(std::span<const TaggedFile> files,
                                                  const CollectionNames& names,
                                                  const std::map<BytePath, Picture>& pictures) {
    return Proposing(files, names, pictures).run();
}

TagChange changeOf(std::span<const TagProposal> proposals) {
    TagChange change;
    for (const auto& each : proposals) {
        if (each.picture) {
            change.picture = each.picture;
            change.onlyPicture = each.reason == ProposedFor::largePicture;
        } else {
            change.fields[each.field] =
                each.shall.empty() ? std::vector<std::string>{} : std::vector{each.shall};
        }
    }
    return change;
}

} // namespace sober
