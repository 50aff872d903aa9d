// The guide within the program: each desk's page, searching, every key, and what it is made of.
#include "app/desks/desk.h"
#include "app/help/help_window.h"
#include "app/lists/list_view.h"
#include "app/theme/marks.h"
#include "ui/desktop.h"

#include <QImage>
#include <QLineEdit>
#include <QListWidget>
#include <QRegularExpression>
#include <QTextBrowser>
#include <QTextDocument>

#include <catch2/catch.hpp>

using namespace sober;
using namespace sober::test;

namespace {

QString shownText(Desktop& desktop) {
    auto* window = desktop.window().findChild<app::HelpWindow*>();
    REQUIRE(window != nullptr);
    return window->findChild<QTextBrowser*>()->toPlainText();
}

} // namespace

TEST_CASE("every desk has a page of the guide") {
    Desktop desktop(false);
    const auto pages = app::guidePages();
    REQUIRE(pages.size() > 15);
    const auto desks = desktop.window().findChildren<app::Desk*>();
    REQUIRE(desks.size() == 12);
    for (const auto* desk : desks) {
        INFO(desk->name().toStdString());
        const auto heading = app::guideHeadingOf(*desk);
        const auto page = std::ranges::find(pages, heading, &app::GuidePage::heading);
        REQUIRE(page != pages.end());
        CHECK(page->text.size() > 100);
    }
}

TEST_CASE("the guide's pictures are shipped, and fit beside the headings") {
    Desktop desktop(false);
    desktop.press(Qt::Key_F1);
    auto* text = desktop.window().findChild<app::HelpWindow*>()->findChild<QTextBrowser*>();
    int pictures = 0;
    for (const auto* language : {"en", "de"}) {
        const auto pages = app::guidePages(QString::fromLatin1(language));
        for (const auto& page : pages) {
            static const QRegularExpression picture(QStringLiteral("!\\[[^\\]]+\\]\\(([^)]+)\\)"));
            for (auto each = picture.globalMatch(page.text); each.hasNext(); ++pictures) {
                const auto name = each.next().captured(1);
                CAPTURE(name.toStdString());
                const auto shown =
                    text->document()->resource(QTextDocument::ImageResource, QUrl(name)).value<QImage>();
                CHECK_FALSE(shown.isNull());
                CHECK(shown.width() / shown.devicePixelRatio() < text->width());
            }
        }
    }
    CHECK(pictures >= 26);
}

TEST_CASE("F1 opens the page of the desk that is looked at") {
    Desktop desktop;
    for (const auto& [key, heading] : {std::pair{Qt::Key_2, "Decide on copies"},
                                       {Qt::Key_4, "Know what changed on its own"},
                                       {Qt::Key_7, "Find and browse"}}) {
        desktop.press(key, Qt::AltModifier);
        desktop.press(Qt::Key_F1);
        CHECK(shownText(desktop).startsWith(heading));
        desktop.window().findChild<app::HelpWindow*>()->hide();
    }
}

TEST_CASE("the guide is searched by words, and the page of keys knows those of menus and buttons") {
    Desktop desktop(false);
    desktop.press(Qt::Key_F1);
    auto* window = desktop.window().findChild<app::HelpWindow*>();
    REQUIRE(window != nullptr);
    auto* headings = window->findChild<QListWidget*>();
    const auto all = headings->count();
    QTest::keyClicks(window->findChild<QLineEdit*>(), "read-only consent");
    CHECK(headings->count() < all);
    REQUIRE(headings->count() > 0);
    CHECK(shownText(desktop).contains("consent"));
    window->findChild<QLineEdit*>()->setText("zzzz");
    CHECK(headings->count() == 0);
    CHECK(shownText(desktop).contains("No part of the guide"));
    window->showPage("All keys");
    const auto keys = shownText(desktop);
    for (const auto* known : {"Ctrl+R", "Make a report", "F5", "Retire", "Fixity", "Alt+2"}) {
        INFO(known);
        CHECK(keys.contains(known));
    }
    window->showPage("What it is made of");
    CHECK(shownText(desktop).contains("FFmpeg"));
    CHECK(shownText(desktop).contains("General Public License"));
}

TEST_CASE("every mark is explained, in the guide and where it stands") {
    Desktop desktop;
    desktop.chooseInMenu("Help", "What the ma&rks mean");
    const auto* said = static_cast<QTextBrowser*>(desktop.find("What it says"));
    for (const auto mark : app::allMarks) {
        INFO(app::wordFor(mark).toStdString());
        CHECK_FALSE(app::meaningOf(mark).isEmpty());
        CHECK(said->toPlainText().contains(app::meaningOf(mark)));
    }
    CHECK(said->toHtml().count("<img") == static_cast<int>(app::allMarks.size()));
    desktop.press(Qt::Key_2, Qt::AltModifier, &desktop.window());
    int explained = 0;
    for (const auto* list : desktop.window().findChildren<QTableView*>()) {
        for (int row = 0; list->isVisible() && row < list->model()->rowCount(); ++row) {
            const auto first = list->model()->index(row, 0);
            const auto mark = static_cast<app::Mark>(first.data(app::markRole).toInt());
            if (mark != app::Mark::none && first.data().toString().startsWith(app::wordFor(mark))) {
                INFO(first.data(Qt::ToolTipRole).toString().toStdString());
                CHECK(first.data(Qt::ToolTipRole).toString().contains(app::meaningOf(mark)));
                ++explained;
            }
        }
    }
    CHECK(explained > 0);
}
