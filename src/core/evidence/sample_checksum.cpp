#include "core/evidence/sample_checksum.h"

#include <openssl/evp.h>

namespace sober {

struct SampleChecksumPass::State {
    struct Free {
        void operator()(EVP_MD_CTX* context) const { EVP_MD_CTX_free(context); }
    };
    std::unique_ptr<EVP_MD_CTX, Free> md5{EVP_MD_CTX_new()};
    std::size_t bytesEach = 0;
    std::vector<std::uint8_t> packed;
};

SampleChecksumPass::SampleChecksumPass() : state_(std::make_unique<State>()) {
    EVP_DigestInit_ex(state_->md5.get(), EVP_md5(), nullptr);
}
SampleChecksumPass::~SampleChecksumPass() = default;

void SampleChecksumPass::begin(const SampleFormat& format) {
    state_->bytesEach = static_cast<std::size_t>((format.bitDepth + 7) / 8);
}

void SampleChecksumPass::take(const DecodedBlock& block) {
    const std::size_t each = state_->bytesEach;
    state_->packed.resize(block.integers.size() * each);
    const auto pack = [&](auto width) {
        auto* out = state_->packed.data();
        for (const auto sample : block.integers) {
            for (std::size_t byte = 0; byte < width; ++byte) {
                *out++ = static_cast<std::uint8_t>(static_cast<std::uint32_t>(sample) >> (8 * byte));
            }
        }
    };
    if (each == 2) {
        pack(std::integral_constant<std::size_t, 2>());
    } else {
        pack(each);
    }
    EVP_DigestUpdate(state_->md5.get(), state_->packed.data(), state_->packed.size());
}

std::optional<Md5> SampleChecksumPass::finish() {
    if (state_->bytesEach == 0) {
        return std::nullopt;
    }
    Md5 digest{};
    EVP_DigestFinal_ex(state_->md5.get(), digest.data(), nullptr);
    return digest;
}

} // namespace sober
