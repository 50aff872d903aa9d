// The guide within the program: each desk's page, searching, every key, and what it is made of.
#include "app/desks/desk.h"
#include "app/help/help_window.h"
#include "ui/desktop.h"

#include <QLineEdit>
#include <QListWidget>
#include <QTextBrowser>

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
        const auto heading = app::guideHeadingOf(desk->name());
        const auto page = std::ranges::find(pages, heading, &app::GuidePage::heading);
        REQUIRE(page != pages.end());
        CHECK(page->text.size() > 100);
    }
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
