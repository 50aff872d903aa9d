#include "demo/encode.h"

#include <sys/mman.h>
#include <sys/wait.h>

#include <cstdio>
#include <fcntl.h>
#include <map>
#include <spawn.h>
#include <unistd.h>

extern char** environ;

namespace sober::demo {
namespace {

const std::vector<std::string>& codecOptions(const std::string& ending) {
    static const std::map<std::string, std::vector<std::string>> options{
        {"wav", {"-c:a", "pcm_s16le", "-f", "wav"}},
        {"flac", {"-c:a", "flac", "-f", "flac"}},
        {"mp3", {"-c:a", "libmp3lame", "-b:a", "192k", "-f", "mp3"}},
        {"m4a", {"-c:a", "aac", "-b:a", "160k", "-aac_coder", "fast", "-f", "ipod"}},
        {"ogg", {"-c:a", "libvorbis", "-q:a", "5", "-f", "ogg"}},
        {"opus", {"-c:a", "libopus", "-b:a", "96k", "-f", "opus"}},
    };
    static const std::vector<std::string> none;
    const auto found = options.find(ending);
    return found != options.end() ? found->second : none;
}

int waitFor(pid_t child) {
    int status = 0;
    while (waitpid(child, &status, 0) < 0) {
    }
    return WIFEXITED(status) ? WEXITSTATUS(status) : -1;
}

/// `output` -1 leaves both outputs as they are.
int spawn(const std::vector<std::string>& words, int input, int output = -1) {
    std::vector<char*> arguments;
    for (const auto& word : words) {
        arguments.push_back(const_cast<char*>(word.c_str()));
    }
    arguments.push_back(nullptr);
    posix_spawn_file_actions_t actions;
    posix_spawn_file_actions_init(&actions);
    if (input >= 0) {
        posix_spawn_file_actions_adddup2(&actions, input, STDIN_FILENO);
    }
    if (output >= 0) {
        posix_spawn_file_actions_adddup2(&actions, output, STDOUT_FILENO);
        posix_spawn_file_actions_adddup2(&actions, output, STDERR_FILENO);
    }
    pid_t child = 0;
    const int failed = posix_spawnp(&child, arguments[0], &actions, nullptr, arguments.data(), environ);
    posix_spawn_file_actions_destroy(&actions);
    return failed != 0 ? -1 : waitFor(child);
}

} // namespace

int runQuietly(const std::vector<std::string>& words) {
    const int nothing = open("/dev/null", O_RDWR | O_CLOEXEC);
    const int code = spawn(words, nothing, nothing);
    close(nothing);
    return code;
}

std::vector<std::string> tagWords(const TagSet& tags) {
    std::vector<std::string> words;
    const auto tag = [&](const std::string& name, const std::string& value) {
        if (!value.empty() && value != "0") {
            words.insert(words.end(), {"-metadata", name + "=" + value});
        }
    };
    tag("title", tags.title);
    tag("artist", tags.artist);
    tag("album", tags.album);
    tag("track", std::to_string(tags.track));
    tag("date", std::to_string(tags.year));
    return words;
}

bool encode(const Samples& samples, const TagSet& tags, const BytePath& target,
            const std::vector<std::string>& options) {
    const int memory = memfd_create("samples", MFD_CLOEXEC);
    const char* bytes = reinterpret_cast<const char*>(samples.data());
    std::size_t left = samples.size() * sizeof(Samples::value_type);
    while (left > 0) {
        const auto written = write(memory, bytes, left);
        if (written <= 0) {
            close(memory);
            return false;
        }
        bytes += written;
        left -= static_cast<std::size_t>(written);
    }
    lseek(memory, 0, SEEK_SET);

    std::vector<std::string> words{"ffmpeg",   "-nostdin",  "-loglevel",     "error",   "-y",
                                   "-f",       "s16le",     "-ar",           "44100",   "-ac",
                                   "2",        "-i",        "pipe:0",        "-fflags", "+bitexact",
                                   "-flags:a", "+bitexact", "-map_metadata", "-1"};
    const auto tagged = tagWords(tags);
    words.insert(words.end(), tagged.begin(), tagged.end());
    const auto& codec = codecOptions(endingOf(target));
    words.insert(words.end(), codec.begin(), codec.end());
    words.insert(words.end(), options.begin(), options.end());
    words.push_back("file:" + target);
    const int code = spawn(words, memory);
    close(memory);
    if (code != 0) {
        std::fprintf(stderr, "ffmpeg could not write %s\n", target.c_str());
    }
    return code == 0;
}

} // namespace sober::demo
