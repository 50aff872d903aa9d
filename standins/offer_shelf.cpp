// offer-shelf FOLDER [PORT]: a service that offers the recordings of a folder, on the loopback address only.
// It shares nothing with the core. FOLDER/offers.json lists them:
//   [{"file": "x.flac", "title": "…", "artist": "…", "seconds": 61.5, "codec": "flac", "lossless": true,
//     "bitrate": 900000, "fingerprint": […], "fault": "cut"}]
// Asked by POST /offers in the form that docs/method.md describes, it answers with those whose title and
// artist are the same, letter case and punctuation aside, and gives the files by GET /files/NAME. A fault
// makes it behave badly with that file: slow, cut, wrong-length, wrong-checksum, circle, huge, elsewhere,
// gone.
#include <nlohmann/json.hpp>
#include <openssl/evp.h>

#include <array>
#include <cctype>
#include <chrono>
#include <cstdio>
#include <cstdlib>
#include <fstream>
#include <httplib.h>
#include <sstream>
#include <thread>

namespace {

using Json = nlohmann::json;

struct Offered {
    Json said;
    std::string name;
    std::string bytes;
    std::string fault;
    std::string sha256;
};

std::string wholeFile(const std::string& path) {
    std::ostringstream content;
    content << std::ifstream(path, std::ios::binary).rdbuf();
    return std::move(content).str();
}

std::string sha256Of(const std::string& bytes) {
    std::array<unsigned char, 32> digest{};
    unsigned size = 0;
    EVP_Digest(bytes.data(), bytes.size(), digest.data(), &size, EVP_sha256(), nullptr);
    std::string hex;
    for (const auto byte : digest) {
        std::array<char, 3> two{};
        std::snprintf(two.data(), two.size(), "%02x", byte);
        hex += two.data();
    }
    return hex;
}

std::string folded(const std::string& text) {
    std::string letters;
    for (const unsigned char each : text) {
        if (std::isalnum(each) != 0 || each >= 0x80) {
            letters += static_cast<char>(std::tolower(each));
        }
    }
    return letters;
}

Json answerFor(const Json& question, const std::vector<Offered>& shelf, int port) {
    Json offers = Json::array();
    for (const auto& each : shelf) {
        const bool isIt = folded(each.said.value("title", "")) == folded(question.value("title", "")) &&
                          folded(each.said.value("artist", "")) == folded(question.value("artist", ""));
        if (!isIt) {
            continue;
        }
        Json offer = each.said;
        offer.erase("file");
        offer.erase("fault");
        offer["for"] = question.at("number");
        offer["address"] = each.fault == "elsewhere"
                               ? "http://127.0.0.2:" + std::to_string(port) + "/files/" + each.name
                               : "files/" + each.name;
        offer["bytes"] = each.fault == "huge"           ? 10'000'000'000U
                         : each.fault == "wrong-length" ? each.bytes.size() + 1000
                                                        : each.bytes.size();
        offer["sha256"] = each.fault == "wrong-checksum" ? std::string(64, '0') : each.sha256;
        offers.push_back(std::move(offer));
    }
    return offers;
}

void give(const Offered& offered, httplib::Response& response) {
    const bool isSlow = offered.fault == "slow";
    const bool isCut = offered.fault == "cut";
    response.set_content_provider(
        offered.bytes.size(), "application/octet-stream",
        [&offered, isSlow, isCut](std::size_t at, std::size_t length, httplib::DataSink& sink) {
            if (isCut && at > offered.bytes.size() / 2) {
                return false;
            }
            if (isSlow && at > 0) {
                std::this_thread::sleep_for(std::chrono::seconds(20)); // silent
            }
            const auto now = std::min<std::size_t>(length, isSlow ? 1 : 65'536);
            return sink.write(offered.bytes.data() + at, now);
        });
}

} // namespace

int main(int argc, char** argv) {
    if (argc < 2) {
        std::fprintf(stderr, "offer-shelf FOLDER [PORT]\n");
        return 2;
    }
    const std::string folder = argv[1];
    std::vector<Offered> shelf;
    const auto listed = Json::parse(wholeFile(folder + "/offers.json"), nullptr, false);
    if (!listed.is_array()) {
        std::fprintf(stderr, "%s/offers.json is no list.\n", folder.c_str());
        return 1;
    }
    for (const auto& each : listed) {
        Offered offered{each, each.at("file").get<std::string>(), {}, each.value("fault", ""), {}};
        offered.bytes = wholeFile(folder + "/" + offered.name);
        offered.sha256 = sha256Of(offered.bytes);
        shelf.push_back(std::move(offered));
    }

    httplib::Server server;
    int port = argc > 2 ? std::atoi(argv[2]) : 0;
    server.Post("/offers", [&](const httplib::Request& request, httplib::Response& response) {
        const auto asked = Json::parse(request.body, nullptr, false);
        if (!asked.is_object() || asked.value("schema", "") != "sober.offers-asked/1") {
            response.status = 400;
            return;
        }
        Json answer{{"schema", "sober.offers/1"}, {"offers", Json::array()}};
        for (const auto& question : asked.at("wanted")) {
            for (auto& offer : answerFor(question, shelf, port)) {
                answer["offers"].push_back(std::move(offer));
            }
        }
        response.set_content(answer.dump(), "application/json");
    });
    server.Get("/files/(.*)", [&](const httplib::Request& request, httplib::Response& response) {
        for (const auto& each : shelf) {
            if (each.name == request.matches[1] && each.fault == "circle") {
                response.set_redirect("/files/" + each.name);
                return;
            }
            if (each.name == request.matches[1] && each.fault != "gone") {
                give(each, response);
                return;
            }
        }
        response.status = 404;
    });
    if (port == 0) {
        port = server.bind_to_any_port("127.0.0.1");
    } else if (!server.bind_to_port("127.0.0.1", port)) {
        port = -1;
    }
    if (port < 0) {
        std::fprintf(stderr, "No port is free for the offer shelf.\n");
        return 1;
    }
    std::printf("http://127.0.0.1:%d\n", port);
    std::fflush(stdout);
    return server.listen_after_bind() ? 0 : 1;
}
