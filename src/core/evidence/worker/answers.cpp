#include "core/evidence/worker/answers.h"

#include <cstring>

namespace sober {
namespace {

using Bytes = std::vector<std::uint8_t>;

Json floatsShape(const std::vector<float>& floats) {
    const auto* bytes = reinterpret_cast<const char*>(floats.data());
    return bytesShape({bytes, floats.size() * sizeof(float)});
}

std::vector<float> floatsFrom(const Json& json) {
    const auto bytes = bytesFrom(json);
    std::vector<float> floats(bytes.size() / sizeof(float));
    std::memcpy(floats.data(), bytes.data(), floats.size() * sizeof(float));
    return floats;
}

} // namespace

Json bytesShape(std::string_view bytes) {
    return Json::binary(Bytes(bytes.begin(), bytes.end()));
}

std::string bytesFrom(const Json& json) {
    const auto& bytes = json.get_binary();
    return {bytes.begin(), bytes.end()};
}

std::string packed(const Json& json) {
    std::string bytes;
    Json::to_cbor(json, bytes);
    return bytes;
}

Json unpacked(std::string_view bytes) {
    return Json::from_cbor(bytes.begin(), bytes.end(), true, false);
}

Json shapeOf(std::uint64_t number) {
    return number;
}
void takeFrom(const Json& json, std::uint64_t& number) {
    number = json;
}

Json shapeOf(const std::string& bytes) {
    return bytesShape(bytes);
}
void takeFrom(const Json& json, std::string& bytes) {
    bytes = bytesFrom(json);
}

Json shapeOf(const Nothing& /*nothing*/) {
    return true;
}
void takeFrom(const Json& /*json*/, Nothing& /*nothing*/) {}

Json shapeOf(const Probed& probed) {
    const auto& claims = probed.claims;
    const auto& tags = probed.tags;
    return {{"container", claims.container},
            {"codec", claims.codec},
            {"lossless", claims.lossless},
            {"bitrate", claims.bitrate},
            {"rate", claims.sampleRate},
            {"channels", claims.channels},
            {"depth", claims.bitDepth},
            {"duration", claims.duration},
            {"title", tags.title},
            {"artist", tags.artist},
            {"album", tags.album},
            {"track", tags.track},
            {"date", tags.date},
            {"albumartist", probed.filing.albumArtist},
            {"composer", probed.filing.composer},
            {"genre", probed.filing.genre},
            {"disc", probed.filing.disc}};
}

void takeFrom(const Json& json, Probed& probed) {
    auto& claims = probed.claims;
    auto& tags = probed.tags;
    json.at("container").get_to(claims.container);
    json.at("codec").get_to(claims.codec);
    json.at("lossless").get_to(claims.lossless);
    json.at("bitrate").get_to(claims.bitrate);
    json.at("rate").get_to(claims.sampleRate);
    json.at("channels").get_to(claims.channels);
    json.at("depth").get_to(claims.bitDepth);
    json.at("duration").get_to(claims.duration);
    json.at("title").get_to(tags.title);
    json.at("artist").get_to(tags.artist);
    json.at("album").get_to(tags.album);
    json.at("track").get_to(tags.track);
    json.at("date").get_to(tags.date);
    json.at("albumartist").get_to(probed.filing.albumArtist);
    json.at("composer").get_to(probed.filing.composer);
    json.at("genre").get_to(probed.filing.genre);
    json.at("disc").get_to(probed.filing.disc);
}

Json shapeOf(const TagFields& tags) {
    auto pictures = Json::array();
    for (const auto& picture : tags.pictures) {
        pictures.push_back({bytesShape(picture.mime), picture.kind, bytesShape(picture.bytes)});
    }
    auto fields = Json::array();
    for (const auto& [name, values] : tags.fields) {
        auto field = Json::array({bytesShape(name)});
        for (const auto& value : values) {
            field.push_back(bytesShape(value));
        }
        fields.push_back(std::move(field));
    }
    return {{"fields", std::move(fields)}, {"pictures", std::move(pictures)}};
}

void takeFrom(const Json& json, TagFields& tags) {
    for (const auto& field : json.at("fields")) {
        auto& values = tags.fields[bytesFrom(field.at(0))];
        for (std::size_t i = 1; i < field.size(); ++i) {
            values.push_back(bytesFrom(field.at(i)));
        }
    }
    for (const auto& picture : json.at("pictures")) {
        tags.pictures.push_back(
            {bytesFrom(picture.at(0)), picture.at(1).get<int>(), bytesFrom(picture.at(2))});
    }
}

Json shapeOf(const DecodeComparison& comparison) {
    const std::vector<float> bands(comparison.byBand.begin(), comparison.byBand.end());
    return {{"offset", comparison.offset},      {"drift", comparison.drift},
            {"gain", comparison.gain},          {"spread", comparison.spread},
            {"residual", comparison.residual},  {"agreeing", comparison.agreeing},
            {"compared", comparison.compared},  {"first", comparison.firstSide},
            {"second", comparison.secondSide},  {"time", floatsShape(comparison.overTime)},
            {"block", comparison.blockSeconds}, {"bands", floatsShape(bands)},
            {"over", comparison.standsOver}};
}

void takeFrom(const Json& json, DecodeComparison& comparison) {
    json.at("offset").get_to(comparison.offset);
    json.at("drift").get_to(comparison.drift);
    json.at("gain").get_to(comparison.gain);
    json.at("spread").get_to(comparison.spread);
    json.at("residual").get_to(comparison.residual);
    json.at("agreeing").get_to(comparison.agreeing);
    json.at("compared").get_to(comparison.compared);
    json.at("over").get_to(comparison.standsOver);
    json.at("first").get_to(comparison.firstSide);
    json.at("second").get_to(comparison.secondSide);
    comparison.overTime = floatsFrom(json.at("time"));
    json.at("block").get_to(comparison.blockSeconds);
    const auto bands = floatsFrom(json.at("bands"));
    std::copy_n(bands.begin(), std::min(bands.size(), comparison.byBand.size()), comparison.byBand.begin());
}

Json shapeOf(const std::vector<ByteRange>& ranges) {
    return ranges;
}
void takeFrom(const Json& json, std::vector<ByteRange>& ranges) {
    json.get_to(ranges);
}

Json shapeOf(const TimeSpectrum& picture) {
    return {{"columns", picture.columns},
            {"seconds", picture.seconds},
            {"highest", picture.highest},
            {"levels", floatsShape(picture.levels)}};
}

void takeFrom(const Json& json, TimeSpectrum& picture) {
    json.at("columns").get_to(picture.columns);
    json.at("seconds").get_to(picture.seconds);
    json.at("highest").get_to(picture.highest);
    picture.levels = floatsFrom(json.at("levels"));
    // Whoever draws it goes by the columns.
    picture.columns = std::min(picture.columns, picture.levels.size() / TimeSpectrum::rows);
}

Json shapeOf(const SmallPicture& picture) {
    return {{"width", picture.width}, {"height", picture.height}, {"pixels", bytesShape(picture.pixels)}};
}

void takeFrom(const Json& json, SmallPicture& picture) {
    json.at("width").get_to(picture.width);
    json.at("height").get_to(picture.height);
    picture.pixels = bytesFrom(json.at("pixels"));
    const auto wanted = std::uint64_t{4} * static_cast<unsigned>(std::max(0, picture.width)) *
                        static_cast<unsigned>(std::max(0, picture.height));
    picture = picture.pixels.size() == wanted ? picture : SmallPicture{};
}

Json shapeOf(const Encoded& encoded) {
    return {{"seconds", encoded.seconds}, {"begins", encoded.begins}};
}

Json shapeOf(const ListeningFormat& format) {
    return {{"rate", format.rate}, {"seconds", format.seconds}};
}

void takeFrom(const Json& json, Encoded& encoded) {
    json.at("seconds").get_to(encoded.seconds);
    json.at("begins").get_to(encoded.begins);
}

void takeFrom(const Json& json, ListeningFormat& format) {
    json.at("rate").get_to(format.rate);
    json.at("seconds").get_to(format.seconds);
}

Json shapeOf(const Piece& piece) {
    return {static_cast<int>(piece.kind),
            piece.first,
            piece.past,
            piece.begins,
            piece.ends,
            piece.seconds,
            piece.stream,
            piece.firstUnit,
            piece.nextUnit,
            piece.unitSamples,
            piece.stated,
            piece.emptyFrom,
            piece.lastUnit};
}
void takeFrom(const Json& json, Piece& piece) {
    piece.kind = everyPieceKind.at(json.at(0).get<std::size_t>());
    piece.first = json.at(1);
    piece.past = json.at(2);
    piece.begins = json.at(3);
    piece.ends = json.at(4);
    piece.seconds = json.at(5);
    piece.stream = json.at(6);
    piece.firstUnit = json.at(7);
    piece.nextUnit = json.at(8);
    piece.unitSamples = json.at(9);
    piece.stated = json.at(10);
    piece.emptyFrom = json.at(11);
    piece.lastUnit = json.at(12);
}

Json shapeOf(const Scanned& scanned) {
    Json pieces = Json::array();
    for (const auto& piece : scanned.pieces) {
        pieces.push_back(shapeOf(piece));
    }
    return {{"pieces", std::move(pieces)}, {"reached", scanned.reached}};
}
void takeFrom(const Json& json, Scanned& scanned) {
    scanned.reached = json.at("reached");
    for (const auto& shape : json.at("pieces")) {
        takeFrom(shape, scanned.pieces.emplace_back());
    }
}

Json shapeOf(const std::vector<Joined>& joined) {
    Json all = Json::array();
    for (const auto& each : joined) {
        all.push_back({shapeOf(each.piece), shapeOf(each.extents), each.parts});
    }
    return all;
}
void takeFrom(const Json& json, std::vector<Joined>& joined) {
    for (const auto& shape : json) {
        auto& each = joined.emplace_back();
        takeFrom(shape.at(0), each.piece);
        takeFrom(shape.at(1), each.extents);
        each.parts = shape.at(2).get<std::vector<std::size_t>>();
    }
}

Json shapeOf(const std::vector<ImageFileSystem>& systems) {
    Json all = Json::array();
    for (const auto& system : systems) {
        Json entries = Json::array();
        for (const auto& entry : system.entries) {
            entries.push_back({bytesShape(entry.path), entry.size, entry.changed, entry.deleted,
                               entry.overwritten, shapeOf(entry.extents)});
        }
        all.push_back({{"type", system.type},
                       {"first", system.first},
                       {"past", system.past},
                       {"cut", system.wasCut},
                       {"entries", std::move(entries)}});
    }
    return all;
}
void takeFrom(const Json& json, std::vector<ImageFileSystem>& systems) {
    for (const auto& shape : json) {
        auto& system = systems.emplace_back();
        system.type = shape.at("type");
        system.first = shape.at("first");
        system.past = shape.at("past");
        system.wasCut = shape.at("cut");
        for (const auto& each : shape.at("entries")) {
            auto& entry = system.entries.emplace_back();
            entry.path = bytesFrom(each.at(0));
            entry.size = each.at(1);
            entry.changed = each.at(2);
            entry.deleted = each.at(3);
            entry.overwritten = each.at(4);
            takeFrom(each.at(5), entry.extents);
        }
    }
}

Json shapeOf(const std::vector<BytePart>& parts) {
    Json all = Json::array();
    for (const auto& part : parts) {
        all.push_back({part.first, part.past, part.name});
    }
    return all;
}
void takeFrom(const Json& json, std::vector<BytePart>& parts) {
    for (const auto& each : json) {
        parts.push_back({each.at(0), each.at(1), each.at(2)});
    }
}

Json shapeOf(const ScanRequest& request) {
    return {{"from", request.from},
            {"to", request.to},
            {"kinds", request.kinds.bits()},
            {"over", shapeOf(request.passedOver)}};
}
void takeFrom(const Json& json, ScanRequest& request) {
    request.from = json.at("from");
    request.to = json.at("to");
    request.kinds = PieceKinds::ofBits(json.at("kinds").get<unsigned>());
    takeFrom(json.at("over"), request.passedOver);
}

Json shapeOf(const ArchivedFile& file) {
    return {
        {"path", bytesShape(file.path)}, {"size", file.size}, {"mtime", file.mtime}, {"packed", file.packed}};
}

void takeFrom(const Json& json, ArchivedFile& file) {
    file.path = bytesFrom(json.at("path"));
    json.at("size").get_to(file.size);
    json.at("mtime").get_to(file.mtime);
    json.at("packed").get_to(file.packed);
}

} // namespace sober
