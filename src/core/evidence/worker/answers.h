#pragma once

#include "core/base/file_handle.h"
#include "core/evidence/compare_decodes.h"
#include "core/evidence/time_spectrum.h"
#include "core/media/archive_reader.h"
#include "core/media/carve/byte_parts.h"
#include "core/media/carve/join_pieces.h"
#include "core/media/carve/scanner.h"
#include "core/media/encode.h"
#include "core/media/file_systems.h"
#include "core/media/probe.h"
#include "core/media/small_picture.h"
#include "core/media/tag_fields.h"

#include <nlohmann/json.hpp>

namespace sober {

// What workers answer, as bytes (CBOR, RFC 8949). Bytes that are not whole are an Error, never more.

using Json = nlohmann::json;

/// What a listener has to know at once.
struct ListeningFormat {
    int rate = 0;       ///< Hz
    double seconds = 0; ///< as stated; 0 where it is not
};

Json shapeOf(const Nothing& nothing);
Json shapeOf(std::uint64_t number);
Json shapeOf(const std::string& bytes);
Json shapeOf(const Probed& probed);
Json shapeOf(const TagFields& tags);
Json shapeOf(const DecodeComparison& comparison);
Json shapeOf(const std::vector<ByteRange>& ranges);
Json shapeOf(const TimeSpectrum& picture);
Json shapeOf(const SmallPicture& picture);
Json shapeOf(const ListeningFormat& format);
Json shapeOf(const Encoded& encoded);
Json shapeOf(const Piece& piece);
Json shapeOf(const std::vector<Joined>& joined);
Json shapeOf(const Scanned& scanned);
Json shapeOf(const std::vector<ImageFileSystem>& systems);
Json shapeOf(const ScanRequest& request);
Json shapeOf(const std::vector<BytePart>& parts);
Json shapeOf(const ArchivedFile& file);

void takeFrom(const Json& json, Nothing& nothing);
void takeFrom(const Json& json, std::uint64_t& number);
void takeFrom(const Json& json, std::string& bytes);
void takeFrom(const Json& json, Probed& probed);
void takeFrom(const Json& json, TagFields& tags);
void takeFrom(const Json& json, DecodeComparison& comparison);
void takeFrom(const Json& json, std::vector<ByteRange>& ranges);
void takeFrom(const Json& json, TimeSpectrum& picture);
void takeFrom(const Json& json, SmallPicture& picture);
void takeFrom(const Json& json, ListeningFormat& format);
void takeFrom(const Json& json, Encoded& encoded);
void takeFrom(const Json& json, Piece& piece);
void takeFrom(const Json& json, std::vector<Joined>& joined);
void takeFrom(const Json& json, Scanned& scanned);
void takeFrom(const Json& json, std::vector<ImageFileSystem>& systems);
void takeFrom(const Json& json, ScanRequest& request);
void takeFrom(const Json& json, std::vector<BytePart>& parts);
void takeFrom(const Json& json, ArchivedFile& file);

Json bytesShape(std::string_view bytes);
std::string bytesFrom(const Json& json);

std::string packed(const Json& json);
/// Discarded where the bytes are not whole.
Json unpacked(std::string_view bytes);

template <typename T>
std::string packAnswer(const Result<T>& result) {
    if (result) {
        return packed({{"value", shapeOf(*result)}});
    }
    const auto& error = result.error();
    return packed({{"cause", static_cast<int>(error.cause)},
                   {"path", bytesShape(error.path)},
                   {"sentence", bytesShape(error.sentence)}});
}

template <typename T>
Result<T> unpackAnswer(std::string_view bytes, const BytePath& path) {
    const auto json = unpacked(bytes);
    try {
        if (json.contains("value")) {
            T value{};
            takeFrom(json.at("value"), value);
            return value;
        }
        return Error{static_cast<Cause>(json.at("cause").get<int>()), bytesFrom(json.at("path")),
                     bytesFrom(json.at("sentence"))};
    } catch (const Json::exception&) {
        return Error{Cause::unreadable, path, "What was found in the file could not be understood."};
    }
}

} // namespace sober
