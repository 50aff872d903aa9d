// Which holdings a find may be.
#include "core/catalogue/guarded.h"
#include "core/catalogue/salvage_store.h"

#include <cstring>

namespace sober {
namespace {

std::vector<PartChecksum> partsFrom(const std::string& packed) {
    std::vector<PartChecksum> parts(packed.size() / sizeof(PartChecksum));
    std::memcpy(parts.data(), packed.data(), parts.size() * sizeof(PartChecksum));
    return parts;
}

std::vector<HoldingId> idsOf(SQLite::Statement& ask) {
    std::vector<HoldingId> ids;
    while (ask.executeStep()) {
        ids.push_back(ask.getColumn(0).getInt64());
    }
    return ids;
}

/// Missing holdings first, then present, written off and retired ones.
constexpr const char* byUse = " ORDER BY h.state = 1 DESC, h.state, h.volume, h.path";

} // namespace

Outcome SalvageStore::eachMissing(const std::function<void(Remembered&&)>& visit) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              "SELECT h.id, h.size, h.xxh3, b.parts FROM holdings h JOIN blocks b ON "
                              "b.holding = h.id WHERE h.state = 1 AND b.parts <> x''");
        while (ask.executeStep()) {
            Remembered remembered;
            remembered.holding = ask.getColumn(0).getInt64();
            remembered.size = static_cast<std::uint64_t>(ask.getColumn(1).getInt64());
            remembered.checksum = checksumOf(ask.getColumn(2));
            remembered.parts = partsFrom(bytesOf(ask.getColumn(3)));
            visit(std::move(remembered));
        }
    });
}

Result<std::vector<HoldingId>> SalvageStore::withBytes(const Checksum128& checksum) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(
            catalogue_.database(),
            std::string("SELECT h.id FROM holdings h WHERE h.state IN (0, 1, 2, 3) AND h.xxh3 = ?") + byUse);
        bindBytes(ask, 1, checksum);
        return idsOf(ask);
    });
}

Result<std::vector<HoldingId>> SalvageStore::withPayload(const Checksum128& payload) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(
            catalogue_.database(),
            std::string(
                "SELECT h.id FROM evidence e JOIN holdings h ON h.id = e.holding WHERE e.payload = ?") +
                byUse);
        bindBytes(ask, 1, payload);
        return idsOf(ask);
    });
}

Result<std::vector<HoldingId>> SalvageStore::withSamples(std::span<const std::uint8_t> md5) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              std::string("SELECT h.id FROM evidence e JOIN holdings h ON h.id "
                                          "= e.holding WHERE e.samples_md5 = ?") +
                                  byUse);
        bindBytes(ask, 1, {reinterpret_cast<const char*>(md5.data()), md5.size()});
        return idsOf(ask);
    });
}

Outcome SalvageStore::eachTitled(const std::function<void(Titled&&)>& visit) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(
            catalogue_.database(),
            "SELECT id, duration, title, artist FROM holdings WHERE state IN (0, 1) AND title <> '' "
            "AND artist <> '' ORDER BY state = 1 DESC, id");
        while (ask.executeStep()) {
            visit({ask.getColumn(0).getInt64(), ask.getColumn(1).getDouble(), ask.getColumn(2).getString(),
                   ask.getColumn(3).getString()});
        }
    });
}

Outcome SalvageStore::eachFingerprint(const std::function<void(HoldingId, std::string_view)>& visit) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(
            catalogue_.database(),
            "SELECT h.id, p.fingerprint FROM holdings h JOIN packed_evidence p ON p.holding = h.id "
            "WHERE h.state IN (0, 1) AND p.fingerprint <> x''");
        while (ask.executeStep()) {
            const auto packed = bytesOf(ask.getColumn(1));
            visit(ask.getColumn(0).getInt64(), packed);
        }
    });
}

} // namespace sober
