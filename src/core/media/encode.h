#pragma once

#include "core/base/file_handle.h"
#include "core/base/run_control.h"
#include "core/media/byte_source.h"
#include "core/media/encoding_form.h"

namespace sober {

/// What was written.
struct Encoded {
    double seconds = 0; ///< of the source that was taken
    double begins = 0;  ///< seconds into the source
};

/// Decodes a file and writes it anew in another form into an empty file that is open for writing; tags are
/// not written. Starts and ends are exact to the sample where the form can say so. Fails where the source
/// does not decode or cannot be written in that form, and where the run is cancelled.
Result<Encoded> encodeAudio(ByteSource& source, const BytePath& path, const FileHandle& target,
                            const EncodingForm& form, RunControl& control);

} // namespace sober
