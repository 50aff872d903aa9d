#include "core/base/text.h"
#include "core/media/mp4_own_fields.h"
#include "core/media/tag_fields.h"
#include "core/media/tag_stream.h"

#include <taglib/aifffile.h>
#include <taglib/apetag.h>
#include <taglib/asffile.h>
#include <taglib/attachedpictureframe.h>
#include <taglib/fileref.h>
#include <taglib/flacfile.h>
#include <taglib/id3v2tag.h>
#include <taglib/mp4file.h>
#include <taglib/mpegfile.h>
#include <taglib/tpropertymap.h>
#include <taglib/wavfile.h>
#include <taglib/wavpackfile.h>
#include <taglib/xiphcomment.h>

namespace sober {
namespace {

std::string bytesOf(const TagLib::ByteVector& vector) {
    return {vector.data(), vector.size()};
}

std::vector<Picture> picturesOf(const TagLib::ID3v2::Tag& tag) {
    std::vector<Picture> pictures;
    for (const auto* frame : tag.frameList("APIC")) {
        if (const auto* attached = dynamic_cast<const TagLib::ID3v2::AttachedPictureFrame*>(frame)) {
            pictures.push_back(
                {attached->mimeType().to8Bit(true), attached->type(), bytesOf(attached->picture())});
        }
    }
    return pictures;
}

std::vector<Picture> picturesOf(const TagLib::List<TagLib::FLAC::Picture*>& list) {
    std::vector<Picture> pictures;
    for (const auto* picture : list) {
        pictures.push_back({picture->mimeType().to8Bit(true), picture->type(), bytesOf(picture->data())});
    }
    return pictures;
}

std::vector<Picture> picturesOf(const TagLib::MP4::Tag& tag) {
    std::vector<Picture> pictures;
    if (tag.contains("covr")) {
        for (const auto& cover : tag.item("covr").toCoverArtList()) {
            const auto format = cover.format();
            pictures.push_back({format == TagLib::MP4::CoverArt::PNG    ? "image/png"
                                : format == TagLib::MP4::CoverArt::JPEG ? "image/jpeg"
                                                                        : "",
                                3, bytesOf(cover.data())});
        }
    }
    return pictures;
}

std::vector<Picture> picturesOf(const TagLib::ASF::Tag& tag) {
    std::vector<Picture> pictures;
    for (const auto& attribute : tag.attribute("WM/Picture")) {
        const auto picture = attribute.toPicture();
        if (picture.isValid()) {
            pictures.push_back({picture.mimeType().to8Bit(true), picture.type(), bytesOf(picture.picture())});
        }
    }
    return pictures;
}

/// "Cover Art (Front)" holds a file name, a zero, then the picture.
std::vector<Picture> picturesOf(const TagLib::APE::Tag& tag) {
    const auto& items = tag.itemListMap();
    if (!items.contains("COVER ART (FRONT)")) {
        return {};
    }
    const auto data = bytesOf(items["COVER ART (FRONT)"].binaryData());
    const auto zero = data.find('\0');
    return zero == std::string::npos ? std::vector<Picture>{}
                                     : std::vector<Picture>{{"", 3, data.substr(zero + 1)}};
}

std::vector<Picture> picturesIn(TagLib::File& file) {
    if (auto* mpeg = dynamic_cast<TagLib::MPEG::File*>(&file)) {
        return mpeg->hasID3v2Tag() ? picturesOf(*mpeg->ID3v2Tag()) : std::vector<Picture>{};
    }
    if (auto* flac = dynamic_cast<TagLib::FLAC::File*>(&file)) {
        return picturesOf(flac->pictureList());
    }
    if (auto* wav = dynamic_cast<TagLib::RIFF::WAV::File*>(&file)) {
        return wav->ID3v2Tag() != nullptr ? picturesOf(*wav->ID3v2Tag()) : std::vector<Picture>{};
    }
    if (auto* wavpack = dynamic_cast<TagLib::WavPack::File*>(&file)) {
        return wavpack->hasAPETag() ? picturesOf(*wavpack->APETag()) : std::vector<Picture>{};
    }
    auto* tag = file.tag();
    if (auto* id3 = dynamic_cast<TagLib::ID3v2::Tag*>(tag)) {
        return picturesOf(*id3);
    }
    if (auto* xiph = dynamic_cast<TagLib::Ogg::XiphComment*>(tag)) {
        return picturesOf(xiph->pictureList());
    }
    if (auto* mp4 = dynamic_cast<TagLib::MP4::Tag*>(tag)) {
        return picturesOf(*mp4);
    }
    if (auto* asf = dynamic_cast<TagLib::ASF::Tag*>(tag)) {
        return picturesOf(*asf);
    }
    return {};
}

} // namespace

Result<TagFields> readTagFields(const BytePath& path) {
    const auto file = openForReading(path);
    return file ? readTagFields(*file, path) : Result<TagFields>(file.error());
}

Result<TagFields> readTagFields(const FileHandle& file, const BytePath& path) {
    TagStream stream(file, path, true);
    const TagLib::FileRef reference(&stream, false);
    if (reference.isNull()) {
        return Error{Cause::unreadable, path,
                     displayPath(path) + " is of a kind whose tags cannot be read field by field."};
    }
    TagFields read;
    for (const auto& [name, values] : reference.file()->properties()) {
        auto& field = read.fields[name.upper().to8Bit(true)];
        for (const auto& value : values) {
            field.push_back(value.to8Bit(true));
        }
    }
    if (const auto* mp4 = dynamic_cast<TagLib::MP4::Tag*>(reference.file()->tag())) {
        read.fields.merge(ownFieldsOf(*mp4));
    }
    read.pictures = picturesIn(*reference.file());
    return read;
}

} // namespace sober
