#include "demo/encode.h"

#include "demo/on_all_cores.h"

#include <sys/mman.h>
#include <sys/wait.h>

#include <algorithm>
#include <cstdio>
#include <fcntl.h>
#include <filesystem>
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
        {"mp3", {"-c:a", "libmp3lame", "-b:a", "192k", "-compression_level", "7", "-f", "mp3"}},
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

constexpr int firstInput = 40; // descriptors from which a program finds what it is given, above its others

/// With its inputs at descriptors of their own; `output` -1 leaves both outputs as they are.
int spawn(const std::vector<std::string>& words, const std::vector<int>& inputs, int output = -1) {
    std::vector<char*> arguments;
    for (const auto& word : words) {
        arguments.push_back(const_cast<char*>(word.c_str()));
    }
    arguments.push_back(nullptr);
    posix_spawn_file_actions_t actions;
    posix_spawn_file_actions_init(&actions);
    posix_spawn_file_actions_addopen(&actions, STDIN_FILENO, "/dev/null", O_RDONLY, 0);
    for (std::size_t i = 0; i < inputs.size(); ++i) {
        posix_spawn_file_actions_adddup2(&actions, inputs[i], firstInput + static_cast<int>(i));
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

/// Samples as a file that is nowhere; -1 where there is no room.
int inMemory(const Samples& samples) {
    const int memory = memfd_create("samples", MFD_CLOEXEC);
    const char* bytes = reinterpret_cast<const char*>(samples.data());
    std::size_t left = samples.size() * sizeof(Samples::value_type);
    while (left > 0) {
        const auto written = write(memory, bytes, left);
        if (written <= 0) {
            close(memory);
            return -1;
        }
        bytes += written;
        left -= static_cast<std::size_t>(written);
    }
    lseek(memory, 0, SEEK_SET);
    return memory;
}

} // namespace

int runQuietly(const std::vector<std::string>& words) {
    const int nothing = open("/dev/null", O_WRONLY | O_CLOEXEC);
    const int code = spawn(words, {}, nothing);
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

bool encodeTogether(const std::vector<Encoding>& encodings) {
    std::vector<int> inputs;
    std::vector<std::string> words{"ffmpeg", "-nostdin", "-loglevel", "error", "-y"};
    bool good = true;
    for (const auto& each : encodings) {
        inputs.push_back(inMemory(each.samples));
        good = good && inputs.back() >= 0;
        words.insert(words.end(), {"-f", "s16le", "-ar", "44100", "-ac", "2", "-i",
                                   "pipe:" + std::to_string(firstInput + inputs.size() - 1)});
    }
    for (std::size_t i = 0; i < encodings.size(); ++i) {
        const auto& each = encodings[i];
        words.insert(words.end(), {"-map", std::to_string(i) + ":a", "-fflags", "+bitexact", "-flags:a",
                                   "+bitexact", "-map_metadata", "-1"});
        for (const auto& more : {tagWords(each.tags), codecOptions(endingOf(each.target)), each.options}) {
            words.insert(words.end(), more.begin(), more.end());
        }
        words.push_back("file:" + each.target);
    }
    good = good && spawn(words, inputs) == 0;
    std::ranges::for_each(inputs, close);
    if (!good) {
        std::fprintf(stderr, "ffmpeg could not write %s\n", encodings.front().target.c_str());
    }
    return good;
}

bool encode(Samples samples, const TagSet& tags, const BytePath& target,
            const std::vector<std::string>& options) {
    return encodeTogether({{std::move(samples), tags, target, options}});
}

bool recordAll(const std::vector<Recorded>& all) {
    for (const auto& each : all) {
        std::filesystem::create_directories(std::filesystem::path(each.target).parent_path());
    }
    return inGroups(std::span(all), [](std::span<const Recorded> group) {
        std::vector<Encoding> encodings;
        for (const auto& each : group) {
            encodings.push_back({synthesise(each.piece), each.tags, each.target});
        }
        return encodeTogether(encodings);
    });
}

} // namespace sober::demo
