#pragma once

#include <optional>
#include <string_view>

namespace sober {

/// The word by which this program is started as a worker.
inline constexpr std::string_view workerWord = "evidence-worker";
/// How a worker exits that could not be confined.
inline constexpr int noCage = 9;
/// The letter of what a worker tells before it answers: how many more bytes of a file have gone by.
inline constexpr char tellBytes = 'b';

/// The letters of the questions.
enum Question : char {
    examineQuestion = 'x',
    passOverQuestion = 'p',
    probeQuestion = 'q',
    beginningQuestion = 'f',
    readTagsQuestion = 't',
    writeTagsQuestion = 'w',
    compareQuestion = 'c',
    junkQuestion = 'j',
    timePictureQuestion = 's',
    pictureQuestion = 'i',
    encodeQuestion = 'e',
    examinePartQuestion = 'y', ///< of an image
    scanQuestion = 'v',
    joinQuestion = 'n',
    fileSystemsQuestion = 'd',
    listenQuestion = 'l',
    listenOnQuestion = 'r', ///< so many more frames of what is listened to
    listenAtQuestion = 'k', ///< from another place
};

/// The worker is the same program, started again with one word. Every program that looks into files asks
/// this first thing in main and returns what it yields.
std::optional<int> serveAsEvidenceWorker(int argc, char** argv);

} // namespace sober
