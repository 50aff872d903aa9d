#include "mutations.h"

#include <cstdint>
#include <cstdio>
#include <cstdlib>
#include <random>
#include <string>
#include <vector>

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size);

/// fuzz-parsers COUNT [FOLDER [SEED]]: runs the fuzz target on as many inputs, made of beginnings that are
/// written here and of the files below a folder by changing their structure; always the same ones for a seed.
int main(int argc, char** argv) {
    const long count = argc > 1 ? std::atol(argv[1]) : 10000;
    const std::vector<std::string> written{
        "",
        "fLaC",
        "RIFF....WAVEfmt ",
        std::string("OggS\0\2", 6) + std::string(22, '\0') + "\x01vorbis",
        std::string("ID3\4\0\0\0\0\x01\x7F", 10) + std::string(200, '\0') + "\xFF\xFB\x90\x64" +
            std::string(413, 'a') + "\xFF\xFB\x90\x64",
        std::string("\0\0\0\x20", 4) + "ftypM4A ",
        "\xFF\xFB\x90\x64" + std::string(413, 'x') + "\xFF\xFB\x90\x64" + std::string(413, 'y') +
            "\xFF\xFB\x90\x64",
        "RIFF\x60\1\0\0WAVEfmt \x10" + std::string(3, '\0') + "\1\0\2\0" + std::string(12, '\4') +
            "data\x40" + std::string(67, '\0') + "LIST\x08" + std::string(11, '\0'),
        "FORM" + std::string(4, '\1') + "AIFFCOMM" + std::string(3, '\0') + "\x12" + std::string(18, '\2') +
            "SSND" + std::string(40, '\0'),
        std::string("\0\0\0\x10", 4) + "ftypM4A " + std::string(7, '\0') + "\x20moov" + std::string(24, 'm') +
            std::string("\0\0\0\1mdat\0\0\0\0\0\0\0\x20", 16) + std::string(16, 'd'),
        "\xFF\xF1\x50\x80\x01\x7F\xFC" + std::string(8, 'z') + "\xFF\xF1\x50\x80\x01\x7F\xFC",
        "\x0B\x77\x11\x22\x14" + std::string(600, 'q'),
        std::string(64, 'a') + "  one.wav\n\\" + std::string(64, 'b') + "  two\\nlines.wav\n",
        "SHA256 (a (b) = c.wav) = " + std::string(64, 'c') + "\r\n" + std::string(64, 'd') + " *../x.wav\n",
        std::string(64, 'e') + "  data/one%0Atwo.wav\n" + std::string(64, 'f') + " *data/../x\r\n",
        "Payload-Oxum: 12.3\n Bag-Size: 1 GB\n  folded\n",
        "#EXTM3U\r\n#EXTINF:12,Tide\r\nC:\\a.mp3\r\nb.mp3\n",
        "[playlist]\nFile2=two\nTitle2=T\nFile1=one\nLength1=3\n",
        "<playlist><trackList><track><location>a&amp;b</location></track><track><location><![CDATA[c]]></"
        "location>"
        "</track></trackList></playlist>",
        "; comment\nname one.wav 1234abcd\nsub\\two.wav\tFFFFFFFF\n",
    };
    auto seeds = written;
    seeds.push_back("wvpk\x40" + std::string(3, '\0') + "\x10\x04" + std::string(54, '\0') + "wvpk");
    seeds.push_back("MPCKSH\x0F" + std::string(5, '\x08') + std::string(7, '\x11') + "SE\x03");
    seeds.push_back("sober image map 1\nsource /dev/x\nbytes 9\n0 4 read\n4 9 bad\n");
    seeds.push_back(R"({"schema":"sober.offers/1","offers":[{"for":2,"address":"files/a.flac","title":"A",)"
                    R"("artist":"B","seconds":61.5,"codec":"flac","lossless":true,"bitrate":900000,)"
                    R"("bytes":12,"sha256":")" +
                    std::string(64, 'a') + R"(","fingerprint":[1,4294967295]}]})");
    seeds.push_back("[Trash Info]\nPath=a%20b\nDeletionDate=2020-01-01T00:00:00\n");
    seeds.push_back(std::string("\x02\0\0\0\0\0\0\0", 8) + std::string(16, '\1') +
                    std::string("\x02\0\0\0C\0:\0", 8));
    if (argc > 2) {
        constexpr std::size_t mostOfASeed = 6U << 10; // bytes: heads and tails, where structure is dense
        for (auto& seed : seedsBelow(argv[2], mostOfASeed)) {
            seeds.push_back(std::move(seed));
        }
    }
    std::mt19937_64 random(argc > 3 ? std::strtoull(argv[3], nullptr, 10) : 20261125);
    for (long i = 0; i < count; ++i) {
        // Every other is of the short ones that are written here: they reach deep, and are quick.
        const auto& seed = i % 4 == 0 ? seeds[random() % seeds.size()] : written[random() % written.size()];
        const auto input = random() % 16 == 0 ? seed : mutated(seed, random);
        LLVMFuzzerTestOneInput(reinterpret_cast<const std::uint8_t*>(input.data()), input.size());
    }
    std::printf("%ld inputs, nothing broke\n", count);
    return 0;
}
