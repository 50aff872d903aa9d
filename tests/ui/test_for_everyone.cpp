// Use without a mouse, by ear, and with eyes that tell colours apart in another way.
#include "app/arguments.h"
#include "app/charts/chart.h"
#include "app/desks/condition/figure_row.h"
#include "app/theme/marks.h"
#include "app/theme/theme.h"
#include "ui/desktop.h"

#include <QAbstractItemView>
#include <QAccessible>
#include <QApplication>
#include <QButtonGroup>
#include <QComboBox>
#include <QHelpEvent>
#include <QLineEdit>
#include <QPushButton>
#include <QRegularExpression>
#include <QSettings>
#include <QSlider>
#include <QStyle>
#include <QTemporaryDir>
#include <QTest>
#include <QToolTip>

#include <catch2/catch.hpp>

#include <array>
#include <cmath>
#include <set>

using namespace sober;
using namespace sober::test;
using namespace sober::app;

namespace {

constexpr std::array desks{Qt::Key_1, Qt::Key_2, Qt::Key_3, Qt::Key_4, Qt::Key_5,
                           Qt::Key_6, Qt::Key_7, Qt::Key_8, Qt::Key_9, Qt::Key_0};

/// What a person can do something with.
std::vector<QWidget*> usable(QWidget& window) {
    std::vector<QWidget*> all;
    for (auto* widget : window.findChildren<QWidget*>()) {
        const bool isTool =
            qobject_cast<QAbstractButton*>(widget) != nullptr ||
            qobject_cast<QLineEdit*>(widget) != nullptr || qobject_cast<QComboBox*>(widget) != nullptr ||
            qobject_cast<QSlider*>(widget) != nullptr || qobject_cast<QAbstractItemView*>(widget) != nullptr;
        if (isTool && widget->isVisible() && widget->isEnabled() && widget->width() > 0 &&
            widget->visibleRegion().boundingRect().height() > 0) {
            all.push_back(widget);
        }
    }
    return all;
}

/// One is reached by what has the focus for it, and a button by its key.
bool isReached(QWidget* widget, const std::set<QWidget*>& focused) {
    const auto* button = qobject_cast<QAbstractButton*>(widget);
    const bool hasKey =
        button != nullptr && (!button->shortcut().isEmpty() || button->text().contains("   "));
    for (auto* each = widget; each != nullptr; each = each->parentWidget()) {
        if (focused.contains(each)) {
            return true;
        }
    }
    // Of buttons of which one is down, Tab comes to that one and the arrow keys to the others.
    const auto* group = button != nullptr ? button->group() : nullptr;
    const bool hasFellow =
        group != nullptr && group->exclusive() &&
        std::ranges::any_of(group->buttons(), [&](auto* each) { return focused.contains(each); });
    return hasKey || hasFellow;
}

/// Seen by dichromats: Viénot, Brettel and Mollon, "Digital Video Colourmaps for Checking the Legibility of
/// Displays by Dichromats", Color Research and Application 24 (1999), for protanopes and deuteranopes; for
/// tritanopes Machado, Oliveira and Fernandes, "A Physiologically-based Model for Simulation of Color Vision
/// Deficiency", IEEE TVCG 15 (2009), severity 1.0. Matrices on linear sRGB; from memory.
struct Eyes {
    const char* name;
    std::array<double, 9> matrix;
};
constexpr std::array<Eyes, 4> allEyes{
    {{"all colours", {1, 0, 0, 0, 1, 0, 0, 0, 1}},
     {"protanope", {0.11238, 0.88762, 0, 0.11238, 0.88762, 0, 0.00401, -0.00401, 1}},
     {"deuteranope", {0.29275, 0.70725, 0, 0.29275, 0.70725, 0, -0.02234, 0.02234, 1}},
     {"tritanope",
      {1.255528, -0.076749, -0.178779, -0.078411, 0.930809, 0.147602, 0.004733, 0.691367, 0.303900}}}};

std::array<double, 3> labOf(const QColor& color, const std::array<double, 9>& matrix) {
    const auto linear = [](double value) {
        return value <= 0.04045 ? value / 12.92 : std::pow((value + 0.055) / 1.055, 2.4);
    };
    const std::array<double, 3> rgb{linear(color.redF()), linear(color.greenF()), linear(color.blueF())};
    std::array<double, 3> seen{};
    for (std::size_t row = 0; row < 3; ++row) {
        seen[row] = std::clamp(
            matrix[3 * row] * rgb[0] + matrix[3 * row + 1] * rgb[1] + matrix[3 * row + 2] * rgb[2], 0.0, 1.0);
    }
    // IEC 61966-2-1 to XYZ, CIE 15 to L*a*b*, D65.
    const auto f = [](double t) {
        return t > 216.0 / 24'389 ? std::cbrt(t) : (24'389.0 / 27 * t + 16) / 116;
    };
    const double x = f((0.4124 * seen[0] + 0.3576 * seen[1] + 0.1805 * seen[2]) / 0.9505);
    const double y = f(0.2126 * seen[0] + 0.7152 * seen[1] + 0.0722 * seen[2]);
    const double z = f((0.0193 * seen[0] + 0.1192 * seen[1] + 0.9505 * seen[2]) / 1.089);
    return {116 * y - 16, 500 * (x - y), 200 * (y - z)};
}

double apart(const std::array<double, 3>& one, const std::array<double, 3>& other) {
    return std::hypot(one[0] - other[0], one[1] - other[1], one[2] - other[2]);
}

/// How a mark is drawn, whatever its colour: which pixels it covers.
QByteArray shapeOf(Mark mark) {
    QImage canvas(32, 32, QImage::Format_ARGB32);
    canvas.fill(Qt::transparent);
    QPainter painter(&canvas);
    paintMark(painter, QRectF(0, 0, 32, 32), mark);
    painter.end();
    QByteArray covered;
    for (int y = 0; y < 32; ++y) {
        for (int x = 0; x < 32; ++x) {
            covered.append(qAlpha(canvas.pixel(x, y)) > 127 ? '#' : ' ');
        }
    }
    return covered;
}

} // namespace

TEST_CASE("every desk is used by keys alone: Tab comes to everything and round again") {
    Desktop desktop;
    for (const auto desk : desks) {
        desktop.press(desk, Qt::AltModifier);
        std::set<QWidget*> focused;
        auto* first = QApplication::focusWidget();
        REQUIRE(first != nullptr);
        int steps = 0;
        do {
            focused.insert(QApplication::focusWidget());
            desktop.press(Qt::Key_Tab, Qt::NoModifier, QApplication::focusWidget());
        } while (QApplication::focusWidget() != first && ++steps < 200);
        INFO("desk " << static_cast<char>(desk) << ", " << focused.size() << " places");
        CHECK(steps < 200); // it comes round
        for (auto* widget : usable(desktop.window())) {
            INFO(widget->metaObject()->className()
                 << " " << widget->accessibleName().toStdString() << " "
                 << (qobject_cast<QAbstractButton*>(widget) != nullptr
                         ? static_cast<QAbstractButton*>(widget)->text().toStdString()
                         : std::string()));
            CHECK(isReached(widget, focused));
        }
    }
}

TEST_CASE("what a picture shows is gone through by the arrow keys, and Enter does what a click does") {
    Desktop desktop;
    desktop.press(Qt::Key_1, Qt::AltModifier);
    auto* bands = desktop.find("Every volume as a band of its folders, by holdings and worst condition");
    bands->setFocus();
    desktop.press(Qt::Key_Home, Qt::NoModifier, bands);
    const auto before = bands->grab().toImage();
    auto* interface = QAccessible::queryAccessibleInterface(bands);
    REQUIRE(interface != nullptr);
    const auto words = interface->text(QAccessible::Value);
    CHECK(words.contains(QRegularExpression("GANNET \\([0-9]+\\): Music")));
    desktop.press(Qt::Key_Right, Qt::NoModifier, bands);
    CHECK(bands->grab().toImage() != before); // where one is, is seen
    desktop.press(Qt::Key_End, Qt::NoModifier, bands);
    desktop.press(Qt::Key_Return, Qt::NoModifier, bands);
    // The last folder of the last volume: its copies are shown.
    CHECK(desktop.list("Copy sets")->isVisible());
    CHECK_FALSE(static_cast<QLineEdit*>(desktop.find("Filter the sets by text"))->text().isEmpty());
}

TEST_CASE("every picture of every desk tells its name and what it shows to assistive technology") {
    Desktop desktop;
    std::set<std::string> told;
    for (const auto desk : desks) {
        desktop.press(desk, Qt::AltModifier);
        for (auto* chart : desktop.window().findChildren<Chart*>()) {
            if (!chart->isVisible()) {
                continue;
            }
            INFO("desk " << static_cast<char>(desk) << ": " << chart->accessibleName().toStdString());
            auto* interface = QAccessible::queryAccessibleInterface(chart);
            REQUIRE(interface != nullptr);
            CHECK(interface->role() == QAccessible::Chart);
            CHECK_FALSE(interface->text(QAccessible::Name).isEmpty());
            CHECK(interface->text(QAccessible::Value) == chart->inWords());
            CHECK(interface->text(QAccessible::Description).size() >=
                  interface->text(QAccessible::Value).size());
            if (!chart->inWords().isEmpty()) {
                told.insert(chart->accessibleName().toStdString());
            }
        }
    }
    CHECK(told.size() >= 4); // surveyed by index, the others have nothing to show
}

TEST_CASE("no two marks are told apart by colour alone, and the colours stay apart for all eyes") {
    const auto& marks = allMarks;
    for (std::size_t i = 0; i < marks.size(); ++i) {
        for (std::size_t j = 0; j < i; ++j) {
            const auto one = shapeOf(marks[i]);
            const auto other = shapeOf(marks[j]);
            int differing = 0;
            for (int k = 0; k < one.size(); ++k) {
                differing += one[k] != other[k] ? 1 : 0;
            }
            INFO(wordFor(marks[i]).toStdString() << " and " << wordFor(marks[j]).toStdString());
            CHECK(differing >= 12); // of 1,024
        }
    }
    for (const auto paper : everyPaper) {
        const auto& inks = inksOf(paper);
        const std::array colours{std::pair("sound", inks.sound), std::pair("doubtful", inks.doubtful),
                                 std::pair("damaged", inks.damaged), std::pair("missing", inks.missing),
                                 std::pair("moved", inks.moved)};
        for (const auto& eyes : allEyes) {
            for (const auto& [name, colour] : colours) {
                INFO(eyes.name << ", " << name);
                CHECK(apart(labOf(colour, eyes.matrix), labOf(inks.sheet, eyes.matrix)) > 30);
            }
            // The gravest is never taken for the best.
            INFO(eyes.name);
            CHECK(apart(labOf(inks.sound, eyes.matrix), labOf(inks.damaged, eyes.matrix)) > 10);
        }
    }
}

TEST_CASE("every figure of Condition says what it counts, under the pointer and to who listens") {
    Desktop desktop;
    auto* figures = desktop.window().findChild<FigureRow*>();
    REQUIRE(figures != nullptr);
    CHECK(figures->accessibleDescription().count('\n') == 6);
    std::set<QString> told;
    for (int x = 10; x < figures->width(); x += 40) {
        const QPoint at(x, 20);
        QHelpEvent event(QEvent::ToolTip, at, figures->mapToGlobal(at));
        QApplication::sendEvent(figures, &event);
        told.insert(QToolTip::text());
    }
    CHECK(told.size() == 7);
    CHECK(told.count(QString()) == 0);
}

TEST_CASE("nothing moves by itself") {
    Theme::apply(*qApp, Paper::light);
    CHECK(qApp->style()->styleHint(QStyle::SH_Widget_Animate) == 0);
    CHECK(qApp->style()->styleHint(QStyle::SH_Widget_Animation_Duration) == 0);
    CHECK_FALSE(QApplication::isEffectEnabled(Qt::UI_AnimateCombo));
    CHECK_FALSE(QApplication::isEffectEnabled(Qt::UI_FadeMenu));
}

TEST_CASE("everything is shown larger from the next start on, where that is chosen") {
    Desktop desktop;
    const QTemporaryDir stick;
    const auto carried = stick.path().toStdString();
    const std::array words{"sober-archivist", "--carried", carried.c_str()};
    CHECK(sizeWanted(static_cast<int>(words.size()), words.data()) == 100);
    {
        QSettings settings(stick.path() + "/settings/sober-archivist/sober-archivist.ini",
                           QSettings::IniFormat);
        settings.setValue("size", 150);
    }
    CHECK(sizeWanted(static_cast<int>(words.size()), words.data()) == 150);
    {
        QSettings settings(stick.path() + "/settings/sober-archivist/sober-archivist.ini",
                           QSettings::IniFormat);
        settings.setValue("size", 100'000); // nobody's window is that large
    }
    CHECK(sizeWanted(static_cast<int>(words.size()), words.data()) == 300);
    desktop.chooseInMenu("View", "Size 125");
    CHECK(desktop.text("Message").startsWith("Everything is shown at 125 %"));
    CHECK(QSettings().value("size").toInt() == 125);
    QSettings().remove("size");
}
