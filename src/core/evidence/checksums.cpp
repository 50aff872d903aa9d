#include "core/evidence/checksums.h"

#include "core/base/text.h"

#include <openssl/evp.h>

#include <algorithm>

#if defined(__x86_64__)
#include <xxh_x86dispatch.h>
#else
#include <xxhash.h>
#endif

namespace sober {
namespace {

Checksum128 canonical(XXH128_hash_t hash) {
    XXH128_canonical_t big;
    XXH128_canonicalFromHash(&big, hash);
    Checksum128 checksum;
    std::copy_n(big.digest, checksum.bytes.size(), checksum.bytes.begin());
    return checksum;
}

/// Parts of so many 4 KiB each.
std::vector<PartChecksum> partsOf(std::span<const std::uint64_t> leaves, std::size_t each) {
    std::vector<PartChecksum> parts;
    for (std::size_t at = 0; at < leaves.size(); at += each) {
        const auto those = leaves.subspan(at, std::min(each, leaves.size() - at));
        parts.push_back({those.front(), XXH3_64bits(those.data(), those.size_bytes())});
    }
    return parts;
}

struct FreeXxh3 {
    void operator()(XXH3_state_t* state) const { XXH3_freeState(state); }
};
struct FreeDigest {
    void operator()(EVP_MD_CTX* context) const { EVP_MD_CTX_free(context); }
};

} // namespace

struct ChecksumPass::State {
    std::unique_ptr<XXH3_state_t, FreeXxh3> whole{XXH3_createState()};
    std::unique_ptr<XXH3_state_t, FreeXxh3> block{XXH3_createState()};
    std::unique_ptr<EVP_MD_CTX, FreeDigest> sha256;
    std::vector<Checksum128> blocks;
    std::vector<std::uint64_t> leaves; ///< XXH3-64 of each 4 KiB
    std::vector<std::uint8_t> leaf;    ///< the beginning of one that has not come whole
    std::size_t inBlock = 0;           ///< bytes of the current block that have gone by
    std::uint64_t size = 0;            ///< bytes that have gone by

    void endBlock() {
        blocks.push_back(canonical(XXH3_128bits_digest(block.get())));
        inBlock = 0;
    }

    void feedLeaves(std::span<const std::uint8_t> bytes) {
        if (!leaf.empty()) {
            const auto more = std::min(bytes.size(), partStart - leaf.size());
            leaf.insert(leaf.end(), bytes.begin(), bytes.begin() + static_cast<std::ptrdiff_t>(more));
            bytes = bytes.subspan(more);
            if (leaf.size() == partStart) {
                endLeaf();
            }
        }
        for (; bytes.size() >= partStart; bytes = bytes.subspan(partStart)) {
            leaves.push_back(XXH3_64bits(bytes.data(), partStart));
        }
        leaf.insert(leaf.end(), bytes.begin(), bytes.end());
    }
    void endLeaf() {
        leaves.push_back(XXH3_64bits(leaf.data(), leaf.size()));
        leaf.clear();
    }
};

ChecksumPass::ChecksumPass(bool withSha256) : state_(std::make_unique<State>()) {
    XXH3_128bits_reset(state_->whole.get());
    if (withSha256) {
        state_->sha256.reset(EVP_MD_CTX_new());
        EVP_DigestInit_ex(state_->sha256.get(), EVP_sha256(), nullptr);
    }
}

ChecksumPass::~ChecksumPass() = default;
ChecksumPass::ChecksumPass(ChecksumPass&&) noexcept = default;
ChecksumPass& ChecksumPass::operator=(ChecksumPass&&) noexcept = default;

void ChecksumPass::feed(std::span<const std::uint8_t> bytes) {
    // All digests take each piece while it is in the nearest cache.
    constexpr std::size_t piece = 32U << 10;
    while (!bytes.empty()) {
        const auto part = bytes.first(std::min({piece, bytes.size(), checksumBlock - state_->inBlock}));
        if (state_->inBlock == 0) {
            XXH3_128bits_reset(state_->block.get());
        }
        state_->feedLeaves(part);
        XXH3_128bits_update(state_->whole.get(), part.data(), part.size());
        XXH3_128bits_update(state_->block.get(), part.data(), part.size());
        if (state_->sha256) {
            EVP_DigestUpdate(state_->sha256.get(), part.data(), part.size());
        }
        state_->inBlock += part.size();
        state_->size += part.size();
        if (state_->inBlock == checksumBlock) {
            state_->endBlock();
        }
        bytes = bytes.subspan(part.size());
    }
}

FileChecksums ChecksumPass::finish() {
    if (state_->inBlock > 0) {
        state_->endBlock();
    }
    FileChecksums checksums;
    checksums.file = canonical(XXH3_128bits_digest(state_->whole.get()));
    checksums.blocks = std::move(state_->blocks);
    if (!state_->leaf.empty()) {
        state_->endLeaf();
    }
    checksums.parts = partsOf(state_->leaves, partLengthFor(state_->size) / partStart);
    if (state_->sha256) {
        checksums.sha256.emplace();
        EVP_DigestFinal_ex(state_->sha256.get(), checksums.sha256->data(), nullptr);
    }
    return checksums;
}

std::size_t partLengthFor(std::uint64_t size) {
    constexpr std::uint64_t mostParts = 128;
    std::size_t length = partStart;
    while (length < (64U << 10) && size > length * mostParts) {
        length *= 2;
    }
    return length;
}

std::uint64_t startChecksumOf(std::span<const std::uint8_t> bytes) {
    return XXH3_64bits(bytes.data(), std::min(bytes.size(), partStart));
}

PartChecksum partChecksumOf(std::span<const std::uint8_t> bytes) {
    std::vector<std::uint64_t> leaves;
    for (std::size_t at = 0; at < bytes.size(); at += partStart) {
        leaves.push_back(XXH3_64bits(bytes.data() + at, std::min(partStart, bytes.size() - at)));
    }
    return partsOf(leaves, std::max<std::size_t>(leaves.size(), 1)).at(0);
}

struct RunningChecksum::State {
    std::unique_ptr<XXH3_state_t, FreeXxh3> whole{XXH3_createState()};
};

RunningChecksum::RunningChecksum() : state_(std::make_unique<State>()) {
    XXH3_128bits_reset(state_->whole.get());
}
RunningChecksum::~RunningChecksum() = default;
void RunningChecksum::feed(std::span<const std::uint8_t> bytes) {
    XXH3_128bits_update(state_->whole.get(), bytes.data(), bytes.size());
}
Checksum128 RunningChecksum::finish() const {
    return canonical(XXH3_128bits_digest(state_->whole.get()));
}

Checksum128 checksumOf(std::span<const std::uint8_t> bytes) {
    return canonical(XXH3_128bits(bytes.data(), bytes.size()));
}

Checksum128 checksumOfText(std::string_view text) {
    return checksumOf(std::span(reinterpret_cast<const std::uint8_t*>(text.data()), text.size()));
}

std::string Checksum128::hex() const {
    return toHex(bytes);
}

} // namespace sober
