#pragma once

#include "core/media/file_systems.h"

#include <functional>
#include <string_view>

namespace sober {

/// The program that is a worker. It stands beside the one that asks.
inline constexpr std::string_view workerProgram = "sober-evidence";
/// The one that knows the file systems in images, and is asked of nothing else: the libraries for that are a
/// fifth of what a worker took to start.
inline constexpr std::string_view fileSystemsProgram = "sober-file-systems";
/// How a worker exits that could not be confined.
inline constexpr int noCage = 9;
/// The letter of what a worker tells before it answers: how many more bytes of a file have gone by.
inline constexpr char tellBytes = 'b';

/// The letters of the questions.
enum Question : char {
    examineQuestion = 'x',
    examineWithExcerptQuestion = 'X',
    passOverQuestion = 'p',
    probeQuestion = 'q',
    beginningQuestion = 'f',
    readTagsQuestion = 't',
    writeTagsQuestion = 'w',
    compareQuestion = 'c',
    junkQuestion = 'j',
    timePictureQuestion = 's',
    pictureQuestion = 'i',
    jpegQuestion = 'g',
    encodeQuestion = 'e',
    fingerprintQuestion = 'z',
    examinePartQuestion = 'y', ///< of an image
    scanQuestion = 'v',
    joinQuestion = 'n',
    fileSystemsQuestion = 'd',
    measureQuestion = 'm',    ///< how long an image is that was compressed
    imageBytesQuestion = 'h', ///< of such a one
    bytePartsQuestion = 'o',
    listenQuestion = 'l',
    listenOnQuestion = 'r',      ///< so many more frames of what is listened to
    listenAtQuestion = 'k',      ///< from another place
    archiveQuestion = 'A',       ///< opens one, to be gone through
    archiveNextQuestion = 'u',   ///< the next file in it
    archiveUnpackQuestion = 'U', ///< into the file that is handed over
};

/// What both programs do: answers questions that come over the standard input, which is a socket, in the
/// cage, until nobody asks any more. `readSystems` is readFileSystems where the program has it. Its exit
/// status.
int serveAsEvidenceWorker(
    const std::function<Result<std::vector<ImageFileSystem>>(ByteSource&)>& readSystems = {});

} // namespace sober
