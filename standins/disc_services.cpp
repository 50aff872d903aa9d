// disc-services FOLDER [PORT]: a rip register and a lookup, on the loopback address only. It shares nothing
// with the core. FOLDER/discs.json lists what they know:
//   [{"disc": "…", "register": [{"tracks": [{"number": 1, "crc32": "…", "reported": 12}]}],
//     "lookup": [{"title": "…", "artist": "…", "tracks": [{"title": "…"}]}], "fault": "nonsense"}]
// Asked by POST /register/discs and /lookup/discs in the forms that docs/method.md describes. A fault makes
// them behave badly about that disc: nonsense, huge, circle, elsewhere, silent, refused.
#include <nlohmann/json.hpp>

#include <chrono>
#include <cstdio>
#include <cstdlib>
#include <fstream>
#include <httplib.h>
#include <thread>

namespace {

using Json = nlohmann::json;

void behaveBadly(const std::string& fault, const std::string& path, httplib::Response& response) {
    if (fault == "nonsense") {
        response.set_content("<html>not here</html>", "text/html");
    } else if (fault == "huge") {
        response.set_content(std::string(20U << 20, ' '), "application/json");
    } else if (fault == "circle") {
        response.set_redirect(path);
    } else if (fault == "elsewhere") {
        response.set_redirect("http://127.0.0.2:9/discs");
    } else if (fault == "silent") {
        std::this_thread::sleep_for(std::chrono::seconds(60));
    } else {
        response.status = 503;
    }
}

} // namespace

int main(int argc, char** argv) {
    if (argc < 2) {
        std::fprintf(stderr, "disc-services FOLDER [PORT]\n");
        return 2;
    }
    std::ifstream file(std::string(argv[1]) + "/discs.json");
    const auto known = Json::parse(file, nullptr, false);
    if (!known.is_array()) {
        std::fprintf(stderr, "%s/discs.json is no list.\n", argv[1]);
        return 1;
    }
    httplib::Server server;
    const auto serve = [&](const std::string& service, const char* list, const char* schema) {
        const auto path = "/" + service + "/discs";
        server.Post(path, [&known, path, service, list, schema](const httplib::Request& request,
                                                                httplib::Response& response) {
            const auto asked = Json::parse(request.body, nullptr, false);
            if (!asked.is_object() || asked.value("schema", "") != "sober.disc-asked/1") {
                response.status = 400;
                return;
            }
            Json answer{{"schema", schema}, {"disc", asked.at("disc")}, {list, Json::array()}};
            for (const auto& disc : known) {
                if (disc.at("disc") != asked.at("disc")) {
                    continue;
                }
                if (disc.contains("fault")) {
                    behaveBadly(disc.at("fault"), path, response);
                    return;
                }
                answer[list] = disc.value(service, Json::array());
            }
            response.set_content(answer.dump(), "application/json");
        });
    };
    serve("register", "pressings", "sober.register/1");
    serve("lookup", "discs", "sober.lookup/1");
    int port = argc > 2 ? std::atoi(argv[2]) : 0;
    if (port == 0) {
        port = server.bind_to_any_port("127.0.0.1");
    } else if (!server.bind_to_port("127.0.0.1", port)) {
        port = -1;
    }
    if (port < 0) {
        std::fprintf(stderr, "No port is free for the services about discs.\n");
        return 1;
    }
    std::printf("http://127.0.0.1:%d\n", port);
    std::fflush(stdout);
    return server.listen_after_bind() ? 0 : 1;
}
