#include "core/catalogue/landmark_store.h"
#include "support/temp_folder.h"

#include <catch2/catch.hpp>

#include <algorithm>
#include <map>
#include <random>

using namespace sober;
using namespace sober::test;

namespace {

Fingerprint randomRecording(unsigned seed, std::size_t words) {
    std::mt19937 random(seed);
    Fingerprint recording(words);
    for (auto& word : recording) {
        word = static_cast<std::uint32_t>(random());
    }
    return recording;
}

Checksum128 payloadOf(std::uint32_t number) {
    Checksum128 payload;
    for (int byte = 0; byte < 4; ++byte) {
        payload.bytes[static_cast<std::size_t>(byte)] = static_cast<std::uint8_t>(number >> (8 * byte));
    }
    return payload;
}

/// A store with a copy in memory of what it should hold.
struct Kept {
    TempFolder folder;
    Result<Catalogue> catalogue = Catalogue::openForWriting(folder / "c.sqlite");
    LandmarkStore store{*catalogue};
    std::vector<Landmark> all;

    void add(std::uint32_t recordings, std::size_t words) {
        const auto first = *store.nextNumber();
        std::vector<LandmarkOwner> owners;
        std::vector<Landmark> landmarks;
        for (std::uint32_t number = first; number < first + recordings; ++number) {
            owners.push_back({number, payloadOf(number)});
            const auto made = landmarksOf(randomRecording(number, words), number);
            landmarks.insert(landmarks.end(), made.begin(), made.end());
        }
        std::ranges::sort(landmarks);
        REQUIRE(store.add(owners, landmarks, {}).ok());
        all.insert(all.end(), landmarks.begin(), landmarks.end());
    }
    std::vector<Landmark> under(const std::vector<std::uint32_t>& keys) const {
        auto found = *store.withKeys(keys);
        std::ranges::sort(found);
        return found;
    }
    std::vector<Landmark> shouldBe(const std::vector<std::uint32_t>& keys) const {
        std::vector<Landmark> wanted;
        std::ranges::copy_if(all, std::back_inserter(wanted), [&](const Landmark& landmark) {
            return std::ranges::binary_search(keys, landmark.key);
        });
        std::ranges::sort(wanted);
        return wanted;
    }
};

std::vector<std::uint32_t> keysOf(const std::vector<Landmark>& landmarks, std::size_t every) {
    std::vector<std::uint32_t> keys;
    for (std::size_t at = 0; at < landmarks.size(); at += every) {
        keys.push_back(landmarks[at].key);
    }
    std::ranges::sort(keys);
    keys.erase(std::ranges::unique(keys).begin(), keys.end());
    return keys;
}

} // namespace

TEST_CASE("landmarks come back from their packed form, and from no other bytes") {
    auto landmarks = landmarksOf(randomRecording(1, 400), 70'000);
    REQUIRE(landmarks.size() > 300);
    std::ranges::sort(landmarks);
    const auto packed = packLandmarks(landmarks);
    CHECK(packed.size() < landmarks.size() * 10);
    CHECK(unpackLandmarks(packed) == landmarks);
    CHECK_FALSE(unpackLandmarks(std::string_view(packed).substr(0, packed.size() - 1)));
    CHECK_FALSE(unpackLandmarks(std::string(7, '\xFF')));
    CHECK(unpackLandmarks("")->empty());
    // Silence and steady tones have nothing to be known by.
    CHECK(landmarksOf(Fingerprint(400, 0x1234'5678), 1).empty());
}

TEST_CASE("landmarks are found by their keys however the runs that hold them were made and joined") {
    Kept kept;
    // Large and small ones in turn: some are joined, some stand for themselves.
    for (const std::uint32_t recordings : {40U, 1U, 1U, 3U, 60U, 2U, 9U, 1U}) {
        kept.add(recordings, recordings > 30 ? 900 : 300);
        CAPTURE(recordings);
        for (const std::size_t every : {1U, 7U, 400U}) {
            const auto keys = keysOf(kept.all, every);
            CHECK(kept.under(keys) == kept.shouldBe(keys));
        }
    }
    CHECK(kept.under({}).empty());
    CHECK(kept.store.owners()->size() == 117);
    // What is forgotten has no owner any more, and its number is never given again.
    const auto next = *kept.store.nextNumber();
    REQUIRE(kept.store.forget(std::vector<std::uint32_t>{next - 1, 3}).ok());
    CHECK(kept.store.owners()->size() == 115);
    CHECK(*kept.store.nextNumber() == next);
    // Its landmarks go once its run is joined with another of like size.
    kept.add(150, 900);
    std::erase_if(kept.all, [&](const Landmark& landmark) {
        return landmark.number == 3 || landmark.number == next - 1;
    });
    const auto keys = keysOf(kept.all, 1);
    CHECK(kept.under(keys) == kept.shouldBe(keys));
}

TEST_CASE("pairs that were met are kept until one of both is forgotten") {
    Kept kept;
    kept.add(4, 200);
    REQUIRE(
        kept.store.add({}, {}, std::vector<MetPair>{{1, 2, -7, 0.05}, {2, 4, 3, 0.2}, {1, 3, 0, 0.1}}).ok());
    CHECK(kept.store.met()->size() == 3);
    REQUIRE(kept.store.forget(std::vector<std::uint32_t>{2}).ok());
    const auto met = *kept.store.met();
    REQUIRE(met.size() == 1);
    CHECK(met[0].first == 1);
    CHECK(met[0].second == 3);
    CHECK(met[0].bitErrors == 0.1);
}
