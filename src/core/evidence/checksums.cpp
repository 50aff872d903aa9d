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
    std::unique_ptr<XXH3_state_t, FreeXxh3> part{XXH3_createState()};
    std::vector<Checksum128> blocks;
    std::vector<PartChecksum> parts;
    std::size_t inBlock = 0; ///< bytes of the current block that have gone by

    void endBlock() {
        blocks.push_back(canonical(XXH3_128bits_digest(block.get())));
        inBlock = 0;
    }

    /// Takes bytes that lie within one part.
    void feedPart(std::span<const std::uint8_t> bytes) {
        const auto within = inBlock % checksumPart;
        if (within == 0) {
            XXH3_64bits_reset(part.get());
            parts.emplace_back();
        }
        const auto first = within < partStart ? std::min(bytes.size(), partStart - within) : 0;
        XXH3_64bits_update(part.get(), bytes.data(), first);
        if (first > 0) {
            parts.back().start = XXH3_64bits_digest(part.get());
        }
        XXH3_64bits_update(part.get(), bytes.data() + first, bytes.size() - first);
        parts.back().whole = XXH3_64bits_digest(part.get());
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
        const auto part = bytes.first(std::min({piece, bytes.size(), checksumBlock - state_->inBlock,
                                                checksumPart - state_->inBlock % checksumPart}));
        if (state_->inBlock == 0) {
            XXH3_128bits_reset(state_->block.get());
        }
        state_->feedPart(part);
        XXH3_128bits_update(state_->whole.get(), part.data(), part.size());
        XXH3_128bits_update(state_->block.get(), part.data(), part.size());
        if (state_->sha256) {
            EVP_DigestUpdate(state_->sha256.get(), part.data(), part.size());
        }
        state_->inBlock += part.size();
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
    checksums.parts = std::move(state_->parts);
    if (state_->sha256) {
        checksums.sha256.emplace();
        EVP_DigestFinal_ex(state_->sha256.get(), checksums.sha256->data(), nullptr);
    }
    return checksums;
}

std::uint64_t shortChecksumOf(std::span<const std::uint8_t> bytes) {
    return XXH3_64bits(bytes.data(), bytes.size());
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
