#include "core/media/tag_writing.h"

#include "core/base/text.h"
#include "core/media/mp4_own_fields.h"
#include "core/media/tag_stream.h"

#include <taglib/aifffile.h>
#include <taglib/apetag.h>
#include <taglib/asffile.h>
#include <taglib/attachedpictureframe.h>
#include <taglib/fileref.h>
#include <taglib/flacfile.h>
#include <taglib/id3v2header.h>
#include <taglib/id3v2tag.h>
#include <taglib/mp4file.h>
#include <taglib/mpegfile.h>
#include <taglib/tpropertymap.h>
#include <taglib/wavfile.h>
#include <taglib/wavpackfile.h>
#include <taglib/xiphcomment.h>

#include <memory>

namespace sober {
namespace {

TagLib::String textOf(const std::string& text) {
    return {text, TagLib::String::UTF8};
}

TagLib::StringList listOf(const std::vector<std::string>& values) {
    TagLib::StringList list;
    for (const auto& value : values) {
        list.append(textOf(value));
    }
    return list;
}

TagLib::ByteVector vectorOf(const std::string& bytes) {
    return {bytes.data(), static_cast<unsigned>(bytes.size())};
}

void addTo(TagLib::ID3v2::Tag& tag, const Picture& picture) {
    auto frame = std::make_unique<TagLib::ID3v2::AttachedPictureFrame>();
    frame->setMimeType(textOf(picture.mime));
    frame->setType(static_cast<TagLib::ID3v2::AttachedPictureFrame::Type>(picture.kind));
    frame->setPicture(vectorOf(picture.bytes));
    tag.addFrame(frame.release()); // the tag owns it from here on
}

TagLib::FLAC::Picture* flacPicture(const Picture& picture) {
    auto made = std::make_unique<TagLib::FLAC::Picture>();
    made->setMimeType(textOf(picture.mime));
    made->setType(static_cast<TagLib::FLAC::Picture::Type>(picture.kind));
    made->setData(vectorOf(picture.bytes));
    return made.release(); // for a list that takes it over
}

void addTo(TagLib::MP4::Tag& tag, const Picture& picture) {
    auto covers = tag.contains("covr") ? tag.item("covr").toCoverArtList() : TagLib::MP4::CoverArtList();
    const auto format =
        picture.mime == "image/png" ? TagLib::MP4::CoverArt::PNG : TagLib::MP4::CoverArt::JPEG;
    covers.append(TagLib::MP4::CoverArt(format, vectorOf(picture.bytes)));
    tag.setItem("covr", covers);
}

void addTo(TagLib::ASF::Tag& tag, const Picture& picture) {
    TagLib::ASF::Picture made;
    made.setMimeType(textOf(picture.mime));
    made.setType(static_cast<TagLib::ASF::Picture::Type>(picture.kind));
    made.setPicture(vectorOf(picture.bytes));
    tag.addAttribute("WM/Picture", TagLib::ASF::Attribute(made));
}

/// An APEv2 picture is told by the ending of its file name.
void addTo(TagLib::APE::Tag& tag, const Picture& picture) {
    const std::string name = picture.mime == "image/png" ? "front.png" : "front.jpg";
    tag.setData("COVER ART (FRONT)", vectorOf(name + std::string(1, '\0') + picture.bytes));
}

/// False where the format cannot hold pictures.
bool addPicture(TagLib::File& file, const Picture& picture) {
    if (auto* mpeg = dynamic_cast<TagLib::MPEG::File*>(&file)) {
        addTo(*mpeg->ID3v2Tag(true), picture);
        return true;
    }
    if (auto* flac = dynamic_cast<TagLib::FLAC::File*>(&file)) {
        flac->addPicture(flacPicture(picture));
        return true;
    }
    if (auto* wav = dynamic_cast<TagLib::RIFF::WAV::File*>(&file)) {
        addTo(*wav->ID3v2Tag(), picture);
        return true;
    }
    if (auto* wavpack = dynamic_cast<TagLib::WavPack::File*>(&file)) {
        addTo(*wavpack->APETag(true), picture);
        return true;
    }
    auto* tag = file.tag();
    if (auto* id3 = dynamic_cast<TagLib::ID3v2::Tag*>(tag)) {
        addTo(*id3, picture);
    } else if (auto* xiph = dynamic_cast<TagLib::Ogg::XiphComment*>(tag)) {
        xiph->addPicture(flacPicture(picture));
    } else if (auto* mp4 = dynamic_cast<TagLib::MP4::Tag*>(tag)) {
        addTo(*mp4, picture);
    } else if (auto* asf = dynamic_cast<TagLib::ASF::Tag*>(tag)) {
        addTo(*asf, picture);
    } else {
        return false;
    }
    return true;
}

void removePictures(TagLib::File& file) {
    const auto fromId3 = [](TagLib::ID3v2::Tag* tag) {
        if (tag != nullptr) {
            tag->removeFrames("APIC");
        }
    };
    if (auto* mpeg = dynamic_cast<TagLib::MPEG::File*>(&file)) {
        fromId3(mpeg->ID3v2Tag(true));
    } else if (auto* flac = dynamic_cast<TagLib::FLAC::File*>(&file)) {
        flac->removePictures();
    } else if (auto* wav = dynamic_cast<TagLib::RIFF::WAV::File*>(&file)) {
        fromId3(wav->ID3v2Tag());
    } else if (auto* wavpack = dynamic_cast<TagLib::WavPack::File*>(&file)) {
        wavpack->APETag(true)->removeItem("COVER ART (FRONT)");
    } else if (auto* id3 = dynamic_cast<TagLib::ID3v2::Tag*>(file.tag())) {
        fromId3(id3);
    } else if (auto* xiph = dynamic_cast<TagLib::Ogg::XiphComment*>(file.tag())) {
        xiph->removeAllPictures();
    } else if (auto* mp4 = dynamic_cast<TagLib::MP4::Tag*>(file.tag())) {
        mp4->removeItem("covr");
    } else if (auto* asf = dynamic_cast<TagLib::ASF::Tag*>(file.tag())) {
        asf->removeItem("WM/Picture");
    }
}

/// Of MPEG audio, only the kinds of tag that are there are written, in the version that they have.
bool save(TagLib::File& file) {
    auto* mpeg = dynamic_cast<TagLib::MPEG::File*>(&file);
    if (mpeg == nullptr) {
        return file.save();
    }
    int kinds = TagLib::MPEG::File::ID3v2;
    kinds |= mpeg->hasID3v1Tag() ? TagLib::MPEG::File::ID3v1 : 0;
    kinds |= mpeg->hasAPETag() ? TagLib::MPEG::File::APE : 0;
    const bool third = mpeg->hasID3v2Tag() && mpeg->ID3v2Tag()->header()->majorVersion() == 3;
    return mpeg->save(kinds, TagLib::File::StripNone, third ? TagLib::ID3v2::v3 : TagLib::ID3v2::v4,
                      TagLib::File::DoNotDuplicate);
}

} // namespace

Outcome writeTagFields(const FileHandle& writable, const BytePath& path, const TagChange& change) {
    TagStream stream(writable, path, false);
    const TagLib::FileRef reference(&stream, false);
    if (reference.isNull() || reference.file()->readOnly()) {
        return Error{Cause::unreadable, path,
                     displayPath(path) + " is of a kind whose tags cannot be written."};
    }
    auto& file = *reference.file();
    if (auto* mpeg = dynamic_cast<TagLib::MPEG::File*>(&file)) {
        mpeg->ID3v2Tag(true);
    }
    auto properties = file.properties();
    for (const auto& [name, values] : change.fields) {
        const auto list = listOf(values);
        if (list.isEmpty()) {
            properties.erase(textOf(name));
        } else {
            properties.replace(textOf(name), list);
        }
    }
    const auto refused = file.setProperties(properties);
    auto* mp4 = dynamic_cast<TagLib::MP4::Tag*>(file.tag());
    for (const auto& [name, values] : change.fields) {
        const bool isRefused = refused.contains(textOf(name));
        const bool isOwn = mp4 != nullptr && (isRefused || values.empty());
        if (isOwn ? !setOwnField(*mp4, name, listOf(values)) : isRefused) {
            return Error{Cause::invalid, path, displayPath(path) + " cannot hold the field " + name + "."};
        }
    }
    if (change.picture && change.onlyPicture) {
        removePictures(file);
    }
    if (change.picture && !addPicture(file, *change.picture)) {
        return Error{Cause::invalid, path, displayPath(path) + " cannot hold a picture."};
    }
    if (!save(file)) {
        return Error{Cause::unreadable, path, displayPath(path) + ": its tags could not be written."};
    }
    return done();
}

} // namespace sober
