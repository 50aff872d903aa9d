// The windows in other languages: in a made-up long one, in German, and from right to left.
#include "app/carry_window.h"
#include "app/desk_room.h"
#include "app/desks/claims/limits_window.h"
#include "app/desks/disc/disc_services_window.h"
#include "app/desks/salvage/bytes_window.h"
#include "app/desks/salvage/write_image_window.h"
#include "app/help/help_window.h"
#include "app/language/language.h"
#include "app/language/local_form.h"
#include "app/language/sentence_book.h"
#include "app/language/translated_page.h"
#include "app/shelf/choices_window.h"
#include "app/shelf/volume_changes.h"
#include "core/base/paths.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/volumes.h"
#include "core/work/make_report.h"
#include "ui/desktop.h"
#include "ui/long_language.h"

#include <QApplication>
#include <QComboBox>
#include <QDialog>
#include <QFile>
#include <QLocale>
#include <QMenu>
#include <QMenuBar>
#include <QRegularExpression>
#include <QScrollBar>
#include <QTableView>

#include <catch2/catch.hpp>

#include <algorithm>
#include <fstream>
#include <functional>
#include <set>

using namespace sober;
using namespace sober::test;
using namespace sober::app;

namespace {

/// Puts a language on for as long as it lives.
struct Speaking {
    explicit Speaking(QTranslator& translator) : translator_(translator) {
        QApplication::installTranslator(&translator_);
    }
    ~Speaking() { QApplication::removeTranslator(&translator_); }
    QTranslator& translator_;
};

/// The window that was opened last.
QWidget* opened() {
    QWidget* found = nullptr;
    for (auto* widget : QApplication::topLevelWidgets()) {
        if (widget->isVisible() && qobject_cast<QDialog*>(widget) != nullptr) {
            found = widget;
        }
    }
    return found;
}

/// By its name in English, whatever language is on.
bool isCalled(const QWidget& view, const char* context, const char* name) {
    return view.accessibleName() == QCoreApplication::translate(context, name);
}

/// Names, titles and labels of the demo, which are the same in every language.
std::set<QString> dataOf(const Desktop& desktop) {
    const auto catalogue = Catalogue::openForReading(desktop.demo.cataloguePath());
    std::set<QString> data{"Opus", "Vorbis", "from the card"};
    const auto add = [&](const std::string& text) { data.insert(QString::fromStdString(text)); };
    const auto volumes = *Volumes(*catalogue).all();
    const Holdings holdings(*catalogue);
    for (const auto& volume : volumes) {
        add(volume.label);
        add(volume.label + " (" + std::to_string(volume.id) + ")");
        const auto known = *holdings.sample(volume.id, 10'000);
        for (const auto& each : known) {
            add(std::string(nameOf(each.path)));
            add(each.tags.title);
            add(each.tags.artist + " – " + each.tags.title);
        }
    }
    return data;
}

/// Goes through all desks, their pages and the windows that they open, and looks at each.
void goThrough(Desktop& desktop, const std::function<void(QWidget&)>& look) {
    struct Step {
        Qt::Key desk;
        const char* context = nullptr;
        const char* list = nullptr; ///< whose first row is chosen before
        Qt::Key key = Qt::Key_unknown;
        Qt::KeyboardModifiers modifiers = Qt::NoModifier;
    };
    const std::vector<Step> steps{
        {Qt::Key_1},
        {Qt::Key_2},
        {Qt::Key_2, "sober::app::CopiesDesk", "Copy sets", Qt::Key_M},
        {Qt::Key_2, "sober::app::CopiesDesk", "Copy sets", Qt::Key_T},
        {Qt::Key_2, "sober::app::CopiesDesk", "Copy sets", Qt::Key_D}, // goes on the docket
        {Qt::Key_3},
        {Qt::Key_3, "sober::app::ClaimsDesk", "Holdings by their evidence, the worst first", Qt::Key_A},
        {Qt::Key_4},
        {Qt::Key_5},
        {Qt::Key_5, nullptr, nullptr, Qt::Key_2},
        {Qt::Key_5, nullptr, nullptr, Qt::Key_3},
        {Qt::Key_6},
        {Qt::Key_7},
        {Qt::Key_7, "sober::app::FindDesk", "What was found", Qt::Key_M},
        {Qt::Key_7, "sober::app::FindDesk", "What was found", Qt::Key_G},
        {Qt::Key_8, "sober::app::TransferSources", "What can come along", Qt::Key_Space},
        {Qt::Key_9},
        {Qt::Key_0},
        {Qt::Key_0, nullptr, nullptr, Qt::Key_B},
        {Qt::Key_0, nullptr, nullptr, Qt::Key_D},
        {Qt::Key_1, nullptr, nullptr, Qt::Key_D, Qt::ControlModifier},
        {Qt::Key_1, nullptr, nullptr, Qt::Key_R, Qt::ControlModifier},
        {Qt::Key_1, nullptr, nullptr, Qt::Key_T, Qt::ControlModifier},
        {Qt::Key_1, nullptr, nullptr, Qt::Key_F1},
        {Qt::Key_1, nullptr, nullptr, Qt::Key_F1, Qt::ShiftModifier},
    };
    for (const auto& step : steps) {
        desktop.press(step.desk, Qt::AltModifier);
        desktop.settle();
        QWidget* where = nullptr;
        if (step.list != nullptr) {
            for (auto* view : desktop.window().findChildren<QTableView*>()) {
                if (view->isVisible() && isCalled(*view, step.context, step.list)) {
                    where = view;
                    view->setFocus();
                    view->selectRow(0);
                }
            }
            INFO(step.list);
            REQUIRE(where != nullptr);
            desktop.settle();
        }
        if (step.key != Qt::Key_unknown) {
            desktop.press(step.key, step.modifiers, where);
            desktop.settle();
        }
        QTest::qWait(20);
        auto* window = opened();
        look(window != nullptr ? *window : static_cast<QWidget&>(desktop.window()));
        if (window != nullptr) {
            QTest::keyClick(window, Qt::Key_Escape);
            desktop.settle();
        }
    }
    // What the menus of volumes and other services open.
    const auto gannet = desktop.volume("GANNET");
    auto* parent = &desktop.window();
    auto& workbench = desktop.workbench();
    const WriteTarget target{desktop.demo / "RECORDER.img", gannet.label, 64'000'000, {}, {}};
    const std::vector<std::function<QDialog*()>> further{
        [&] { return new ChoicesWindow(gannet, 141, parent); },
        [&] { return new ForgetWindow(workbench, gannet, parent); },
        [&] { return new CarryWindow(workbench, parent); },
        [&] { return new LimitsWindow(workbench, {{"mp3", 128'000}, {"opus", 64'000}}, parent); },
        [&] { return new DiscServicesWindow({}, {}, parent); },
        [&] { return new BytesWindow(workbench, desktop.demo / "RECORDER.img", 0, parent); },
        [&] { return new WriteImageWindow(workbench, desktop.demo / "RECORDER.img", target, parent); },
    };
    for (const auto& make : further) {
        auto* window = make();
        window->open();
        desktop.settle();
        QTest::qWait(20);
        look(*window);
        window->close();
        desktop.settle();
    }
}

/// What there is no translation for, and what there is: asks the German one for everything that is wanted.
class Listening : public QTranslator {
  public:
    bool isEmpty() const override { return false; }
    QString translate(const char* context, const char* text, const char* disambiguation,
                      int number) const override {
        const auto found = german_.translate(context, text, disambiguation, number);
        const QLatin1String from(context);
        if (found.isEmpty() && (!from.startsWith(QLatin1Char('Q')) || from == QLatin1String("QObject"))) {
            missed_.insert(QString::fromLatin1(context) + QStringLiteral(": ") + QString::fromUtf8(text));
        }
        return found;
    }
    bool isLoaded() { return german_.load(QStringLiteral(":/language/sober_de.qm")); }
    QStringList missed() const { return {missed_.begin(), missed_.end()}; }

  private:
    QTranslator german_;
    mutable std::set<QString> missed_;
};

/// A locale for as long as it lives.
struct Located {
    explicit Located(const QLocale& locale) { QLocale::setDefault(locale); }
    ~Located() { QLocale::setDefault(before); }
    Located(const Located&) = delete;
    Located& operator=(const Located&) = delete;
    QLocale before;
};

} // namespace

TEST_CASE(
    "every desk and window in a long language shows no word without its marks and cuts none at 1280x800") {
    LongLanguage language;
    const Speaking speaking(language);
    Desktop desktop({{"GANNET", Effort::full}, {"TERN", Effort::full}, {"PETREL", Effort::full}});
    const auto data = dataOf(desktop);
    int seen = 0;
    goThrough(desktop, [&](QWidget& window) {
        CAPTURE(++seen, window.metaObject()->className());
        CHECK(unmarked(textsOf(window), data).join("\n").toStdString() == "");
        CHECK(cutIn(window).join("\n").toStdString() == "");
        CHECK(window.minimumSizeHint().width() <= 1280);
        CHECK(window.minimumSizeHint().height() <= 800);
        // No bar is needed to see all of a desk.
        const auto* room = desktop.window().findChild<DeskRoom*>();
        CHECK(room->horizontalScrollBar()->maximum() == 0);
        CHECK(room->verticalScrollBar()->maximum() == 0);
    });
    QStringList entries;
    for (auto* menu : desktop.window().menuBar()->findChildren<QMenu*>()) {
        for (auto* action : menu->actions()) {
            entries << QStringLiteral("menu → ") + action->text();
        }
    }
    CHECK(entries.size() > 30);
    CHECK(unmarked(entries, {"English", "Deutsch"}).join("\n").toStdString() == "");
}

TEST_CASE(
    "German has every word that is asked for, cuts none, and leaves no sentence of the core in English") {
    Listening german;
    REQUIRE(german.isLoaded());
    const Located located(QLocale(QLocale::German, QLocale::Germany));
    const Speaking speaking(german);
    Desktop desktop({{"GANNET", Effort::full}, {"TERN", Effort::full}, {"PETREL", Effort::full}});
    int seen = 0;
    static const QRegularExpression english(
        QStringLiteral("\\b(the|and|are|were|with|without|holdings?|nothing|which|of|to|that)\\b"));
    const auto data = dataOf(desktop);
    goThrough(desktop, [&](QWidget& window) {
        CAPTURE(++seen, window.metaObject()->className());
        CHECK(cutIn(window).join("\n").toStdString() == "");
        QStringList left;
        for (const auto& text : textsOf(window)) {
            const auto words = text.section(QStringLiteral(" → "), 1);
            const bool isData = std::any_of(data.begin(), data.end(), [&](const QString& each) {
                return each.size() > 2 && words.contains(each);
            });
            if (!isData && !words.contains(QLatin1Char('/')) && english.match(words).hasMatch()) {
                left << text;
            }
        }
        left.removeDuplicates();
        CHECK(left.join("\n").toStdString() == "");
    });
    CHECK(german.missed().join("\n").toStdString() == "");
}

TEST_CASE("a report is written in the language that is on, its paths as they are") {
    Listening german;
    REQUIRE(german.isLoaded());
    LongLanguage language;
    Desktop desktop({{"GANNET", Effort::full}, {"TERN", Effort::full}, {"PETREL", Effort::full}});
    const auto page = [&](const char* name) {
        const auto catalogue = Catalogue::openForReading(desktop.demo.cataloguePath());
        RunControl control;
        const auto to = desktop.demo / name;
        REQUIRE(makeReport(
            *catalogue, {}, ReportForm::html, to, control, [](const auto&) {}, translatedPage));
        std::ifstream file(to);
        return std::string(std::istreambuf_iterator<char>(file), {});
    };
    const auto english = page("english.html");
    CHECK(english.find("<html lang=\"en\">") != std::string::npos);
    CHECK(english.find("What is known of the collection") != std::string::npos);
    std::string marked;
    {
        const Speaking speaking(language);
        marked = page("long.html");
    }
    // What stands between tags, without the paths.
    static const QRegularExpression between(
        QStringLiteral("<code>[^<]*</code>|<style>[^<]*</style>|>([^<]*)(?=<)"));
    QStringList texts;
    for (auto each = between.globalMatch(QString::fromStdString(marked)); each.hasNext();) {
        const auto match = each.next();
        if (match.capturedLength(1) > 0) {
            texts << QStringLiteral("page → ") + match.captured(1).simplified();
        }
    }
    CHECK(texts.size() > 300);
    CHECK(unmarked(texts, dataOf(desktop)).join("\n").toStdString() == "");
    CHECK(QString::fromStdString(marked).count("<code>") == QString::fromStdString(english).count("<code>"));
    const Located located(QLocale(QLocale::German, QLocale::Germany));
    const Speaking speaking(german);
    const auto inGerman = page("german.html");
    CHECK(inGerman.find("<html lang=\"de\">") != std::string::npos);
    CHECK(inGerman.find("Was von der Sammlung bekannt ist") != std::string::npos);
    CHECK(german.missed().join("\n").toStdString() == "");
}

TEST_CASE("shown larger on a screen of 1280x800, no word of the windows is cut") {
    Desktop desktop({{"GANNET", Effort::full}, {"TERN", Effort::full}, {"PETREL", Effort::full}});
    for (const auto& [percent, size] : {std::pair(125, QSize(1024, 640)), {150, QSize(853, 533)}}) {
        desktop.window().resize(size);
        int seen = 0;
        goThrough(desktop, [&](QWidget& window) {
            CAPTURE(percent, ++seen, window.metaObject()->className());
            CHECK(cutIn(window).join("\n").toStdString() == "");
            CHECK(desktop.window().width() <= size.width());
            CHECK(desktop.window().height() <= size.height());
        });
    }
}

TEST_CASE("written from right to left the windows are mirrored, and the marks with them") {
    QApplication::setLayoutDirection(Qt::RightToLeft);
    {
        Desktop desktop;
        const auto place = [&](const QString& name) {
            auto* widget = desktop.find(name);
            return widget->mapTo(&desktop.window(), QPoint(0, 0)).x();
        };
        CHECK(place(QStringLiteral("Changes and errors of the last surveys")) < 100);
        const auto* add = desktop.button(QStringLiteral("Survey a folder"));
        CHECK(add->mapTo(&desktop.window(), QPoint(0, 0)).x() > 1000);
        desktop.press(Qt::Key_2, Qt::AltModifier);
        desktop.settle();
        const auto* keep = desktop.button(QStringLiteral("Keep"));
        const auto* retire = desktop.button(QStringLiteral("Retire"));
        CHECK(keep->x() > retire->x());
    }
    QApplication::setLayoutDirection(Qt::LeftToRight);
}

TEST_CASE("the core's sentences are told by their patterns, whatever is put into them") {
    const SentenceBook book("+file\tfiles\n"
                            "+entry\tentries\n"
                            "n\t%1 is not there.\n"
                            "nw\t%1 could not be examined: %2.\n"
                            "\tit does not decode\n"
                            "ww\t%1 seen, %2 missing\n"
                            "w\t, away since %1\n"
                            "ww\t%1 dB %2\n"
                            "\tquieter\n"
                            "\tmissing\n");
    const auto told = [&](const std::string& sentence) {
        return book
            .told(
                sentence,
                [](const char* pattern) {
                    const QString text = QString::fromUtf8(pattern);
                    return text == "%1 could not be examined: %2." ? QString("<%2 | %1>") : '<' + text + '>';
                },
                [](const char* pattern, int number) {
                    return QString::fromUtf8(pattern) + (number == 1 ? "!" : "!!");
                })
            .toStdString();
    };
    const std::vector<std::pair<std::string, std::string>> cases{
        {"/a/b.mp3 is not there.", "</a/b.mp3 is not there.>"},
        {"missing is not there.", "<missing is not there.>"}, // a name is no word
        {"/a is odd.mp3 could not be examined: it does not decode.",
         "<<it does not decode> | /a is odd.mp3>"},
        {"/a could not be examined: /b.", "</b | /a>"},
        {"1 file seen, 2 files missing", "<1 file! seen, 2 file!! missing>"},
        {"12 entries seen, 1,234 files missing", "<12 entry!! seen, 1,234 file!! missing>"},
        {"missing, away since 3 Mar 2026", "<missing><, away since 3 Mar 2026>"},
        {"3.0 dB quieter; missing", "<3.0 dB <quieter>>; <missing>"},
        {"it does not decode. missing", "<it does not decode>. <missing>"},
        {"what nobody ever said", "what nobody ever said"},
        {"", ""},
        {" is not there.", "< is not there.>"},
    };
    for (const auto& [sentence, expected] : cases) {
        CHECK(told(sentence) == expected);
    }
    CHECK(book.counted() == std::vector<std::string>{"entry", "file"});
}

TEST_CASE("every pattern of the core is filled in German, and what is put in stands in it") {
    QFile file(QStringLiteral(":/language/sentences.txt"));
    REQUIRE(file.open(QIODevice::ReadOnly));
    const auto lines = file.readAll();
    const SentenceBook book({lines.constData(), static_cast<std::size_t>(lines.size())});
    Listening german;
    REQUIRE(german.isLoaded());
    CHECK(book.patterns().size() > 800);
    for (const auto& pattern : book.patterns()) {
        const auto translated = german.translate("core", pattern.key.c_str(), nullptr, -1);
        CAPTURE(pattern.key);
        CHECK_FALSE(translated.isEmpty());
        for (char hole = '1'; hole <= '9'; ++hole) {
            const std::string name{'%', hole};
            CHECK((pattern.key.find(name) != std::string::npos) ==
                  translated.contains(QString::fromStdString(name)));
        }
    }
    for (const auto& each : book.counted()) {
        CAPTURE(each);
        CHECK(german.translate("counted", ("%n " + each).c_str(), nullptr, 1).contains("%n"));
        CHECK(german.translate("counted", ("%n " + each).c_str(), nullptr, 2).contains("%n"));
    }
    CHECK(german.missed().join("\n").toStdString() == "");
}

TEST_CASE("what the custodian wrote is shown as it was written, in every language") {
    Listening german;
    REQUIRE(german.isLoaded());
    const Located located(QLocale(QLocale::German, QLocale::Germany));
    const Speaking speaking(german);
    Desktop desktop({{"GANNET", Effort::full}, {"TERN", Effort::full}, {"PETREL", Effort::full}});
    desktop.press(Qt::Key_3, Qt::AltModifier);
    desktop.settle();
    auto* list = desktop.window().findChild<QTableView*>(); // any: the one that is shown is chosen below
    for (auto* view : desktop.window().findChildren<QTableView*>()) {
        list = view->isVisible() ? view : list;
    }
    list->setFocus();
    list->selectRow(0);
    desktop.settle();
    desktop.press(Qt::Key_A, Qt::NoModifier, list);
    auto* window = opened();
    REQUIRE(window != nullptr);
    const QString reason =
        QStringLiteral("missing; bought for 1.50"); // each half is a word or figure of ours
    window->findChild<QComboBox*>()->setEditText(reason);
    QTest::keyClick(window, Qt::Key_Return);
    desktop.settle();
    desktop.press(Qt::Key_D, Qt::ControlModifier);
    desktop.settle();
    const auto texts = textsOf(*opened());
    CHECK(texts.filter(reason).size() == 1);
    QTest::keyClick(opened(), Qt::Key_Return, Qt::ControlModifier);
    desktop.settle();
    QTest::keyClick(opened(), Qt::Key_Escape);
    desktop.press(Qt::Key_3, Qt::AltModifier);
    desktop.settle();
    list->selectRow(0);
    for (int row = 0; row < list->model()->rowCount() && textsOf(desktop.window()).filter(reason).isEmpty();
         ++row) {
        list->selectRow(row);
        desktop.settle();
    }
    CHECK_FALSE(textsOf(desktop.window()).filter(reason).isEmpty());
}

TEST_CASE("figures and dates take the form of the language") {
    struct Case {
        QLocale locale;
        const char* text;
        QString expected;
    };
    const std::vector<Case> cases{
        {QLocale(QLocale::German, QLocale::Germany), "1,234,567", "1.234.567"},
        {QLocale(QLocale::German, QLocale::Germany), "1.24 GB", "1,24 GB"},
        {QLocale(QLocale::German, QLocale::Germany), "29 Nov 2026", "29. Nov. 2026"},
        {QLocale(QLocale::German, QLocale::Germany), "3 Mar 2026, 14:05",
         QString::fromUtf8("3. März 2026, 14:05")},
        {QLocale(QLocale::German, QLocale::Germany), "FLAC 16/44.1, ID3v2.4, 127.0.0.1:8707, Vol. 12",
         "FLAC 16/44.1, ID3v2.4, 127.0.0.1:8707, Vol. 12"},
        {QLocale(QLocale::English, QLocale::UnitedKingdom), "1,234.5 on 29 Nov 2026",
         "1,234.5 on 29 Nov 2026"},
        // More than a figure: a name, or what somebody typed.
        {QLocale(QLocale::German, QLocale::Germany), "bought for 1.50 on 3 Mar 2026",
         "bought for 1.50 on 3 Mar 2026"},
        {QLocale(QLocale::German, QLocale::Germany), "Vol 1.5 Extra", "Vol 1.5 Extra"},
        {QLocale(QLocale::German, QLocale::Germany), "3 h 05 min", "3 h 05 min"},
        {QLocale(QLocale::German, QLocale::Germany), "9.5 s", "9,5 s"},
        {QLocale::c(), "1,234.5", "1,234.5"},
        {QLocale(QLocale::Swedish, QLocale::Sweden), "1,234", QString::fromUtf8("1\u00a0234")},
    };
    for (const auto& each : cases) {
        const Located located(each.locale);
        CHECK(inLocalForm(QString::fromUtf8(each.text)).toStdString() == each.expected.toStdString());
    }
}

TEST_CASE("the guide has the same sections in German, with the same keys") {
    const auto english = guidePages(QStringLiteral("en"));
    const auto german = guidePages(QStringLiteral("de"));
    REQUIRE(english.size() == german.size());
    for (qsizetype i = 0; i < english.size(); ++i) {
        CAPTURE(german[i].heading.toStdString());
        CHECK(english[i].heading != german[i].heading);
        CHECK(english[i].text.count(QStringLiteral("\n| ")) == german[i].text.count(QStringLiteral("\n| ")));
    }
}

TEST_CASE("a language is chosen in the menu and is there at the next start") {
    Desktop desktop(false);
    CHECK(languageChosen().isEmpty());
    for (auto* action : desktop.window().findChildren<QAction*>()) {
        if (action->text() == QStringLiteral("Deutsch")) {
            action->trigger();
        }
    }
    CHECK(languageChosen() == "de");
    putLanguageOn(*qApp);
    CHECK(QMenu::tr("x") == "x");
    CHECK(told("It is the only copy at hand.") == QString::fromUtf8("Sie ist die einzige Kopie zur Hand."));
    CHECK(QLocale().language() == QLocale::German);
    chooseLanguage({});
    putLanguageOn(*qApp, QStringLiteral("en"));
    CHECK(told("It is the only copy at hand.") == "It is the only copy at hand.");
    // A language that nobody has translated: English, from left to right, with its figures.
    putLanguageOn(*qApp, QStringLiteral("he"));
    CHECK(told("It is the only copy at hand.") == "It is the only copy at hand.");
    CHECK(QApplication::layoutDirection() == Qt::LeftToRight);
    CHECK(QLocale().language() == QLocale::Hebrew);
    putLanguageOn(*qApp, QStringLiteral("en"));
    QLocale::setDefault(QLocale::c());
}
