// The real program, started twice on one catalogue.
#include "core/catalogue/player_store.h"
#include "core/catalogue/volumes.h"
#include "support/run_program.h"
#include "support/small_audio.h"
#include "support/temp_folder.h"

#include <QDir>
#include <QLocalSocket>
#include <QProcess>
#include <QTest>

#include <catch2/catch.hpp>

using namespace sober;
using namespace sober::test;

namespace {

struct Started {
    explicit Started(const TempFolder& place) : folder(place) { start(); }
    ~Started() { kill(); }
    void start() {
        process.start(SOBER_ARCHIVIST, {"--catalogue", QString::fromStdString(folder / "c.sqlite")});
        REQUIRE(process.waitForStarted());
        REQUIRE(waitFor([&] { return volumes().has_value() && isHeard(); }));
    }
    void kill() {
        process.kill();
        process.waitForFinished();
    }
    bool isHeard() const {
        const auto sockets =
            QDir(QString::fromStdString(folder.path())).entryList({"sober-archivist-*"}, QDir::System);
        QLocalSocket line;
        line.connectToServer(sockets.isEmpty() ? QString()
                                               : QString::fromStdString(folder / sockets[0].toStdString()));
        return line.waitForConnected(100);
    }
    /// Labels; nothing while there is no catalogue.
    std::optional<std::vector<std::string>> volumes() const {
        const auto catalogue = Catalogue::openForReading(folder / "c.sqlite");
        const auto all =
            catalogue ? Volumes(*catalogue).all() : Result<std::vector<Volume>>(catalogue.error());
        if (!all) {
            return {};
        }
        std::vector<std::string> labels;
        std::ranges::transform(*all, std::back_inserter(labels), &Volume::label);
        return labels;
    }
    std::size_t players() const {
        const auto catalogue = Catalogue::openForReading(folder / "c.sqlite");
        const auto all = PlayerStore(*catalogue).all();
        return all ? all->size() : 0;
    }
    template <typename Condition>
    static bool waitFor(Condition condition) {
        for (int i = 0; i < 300 && !condition(); ++i) {
            QTest::qWait(50);
        }
        return condition();
    }
    ProgramRun again(const std::vector<std::string>& asked) const {
        std::vector<std::string> words{"timeout", "20", SOBER_ARCHIVIST, "--catalogue", folder / "c.sqlite"};
        words.insert(words.end(), asked.begin(), asked.end());
        return run(words);
    }
    const TempFolder& folder;
    QProcess process;
};

using Labels = std::vector<std::string>;

} // namespace

TEST_CASE("a second start hands over what it was asked for and goes") {
    const TempFolder folder;
    qputenv("XDG_RUNTIME_DIR", QByteArray::fromStdString(folder.path()));
    writeFile(folder / "V/a.wav", smallWav(1));
    writeFile(folder / "W/b.wav", smallWav(2));
    writeFile(folder / "lists/tonight.m3u8", "#EXTM3U\n../V/a.wav\n");
    Started first(folder);
    CHECK(first.again({folder / "V"}).code == 0);
    CHECK(Started::waitFor([&] { return first.volumes() == Labels{"V"}; }));
    CHECK(first.again({folder / "lists/tonight.m3u8"}).code == 0);
    CHECK(Started::waitFor([&] { return first.players() == 1; }));
    CHECK(first.again({}).code == 0);
    // What is neither is told of, and takes nothing away.
    writeFile(folder / "V/song.mp3", "no list");
    CHECK(first.again({folder / "V/song.mp3"}).code == 0);
    CHECK(first.volumes() == Labels{"V"});
    CHECK(first.process.state() == QProcess::Running);

    SECTION("one that was killed is in nobody's way") {
        first.kill();
        first.start();
        CHECK(first.again({folder / "W"}).code == 0);
        CHECK(Started::waitFor([&] { return first.volumes() == Labels{"V", "W"}; }));
    }
}
