#pragma once

#include "core/evidence/file_pass.h"

#include <optional>
#include <string>

namespace sober {

/// Evidence as bytes (CBOR, RFC 8949), for the catalogue. The spectrum is kept in up to 512 points of
/// half a decibel and the trace's row in 8 bits: enough for a picture; all figures are kept as they are.
/// The fingerprint is not part of it.
std::string packEvidence(const Evidence& evidence);
/// Nothing where the bytes are not whole.
std::optional<Evidence> unpackEvidence(std::string_view packed);

/// What a worker process answers: everything, the fingerprint too.
std::string packRecord(const Result<FileRecord>& record);
/// Nothing where the bytes are not whole.
std::optional<Result<FileRecord>> unpackRecord(std::string_view packed);

} // namespace sober
