#include "ui/desktop.h"

#include "app/theme/theme.h"
#include "core/catalogue/volumes.h"

#include <QApplication>
#include <QFileDialog>
#include <QLineEdit>
#include <QMenu>
#include <QMenuBar>
#include <QSettings>
#include <QTableView>

#include <catch2/catch.hpp>

namespace sober::test {
namespace {

QList<QWidget*> visibleWidgets() {
    QList<QWidget*> visible;
    for (auto* widget : QApplication::allWidgets()) {
        if (widget->isVisible()) {
            visible << widget;
        }
    }
    return visible;
}

} // namespace

Desktop::Desktop(bool surveyed)
    : Desktop(surveyed ? std::vector<std::pair<BytePath, Effort>>{{"GANNET", Effort::index},
                                                                  {"TERN", Effort::index},
                                                                  {"PETREL", Effort::index}}
                       : std::vector<std::pair<BytePath, Effort>>{}) {}

Desktop::Desktop(const std::vector<std::pair<BytePath, Effort>>& surveys) {
    app::Theme::apply(*qApp, app::Paper::light);
    QSettings().clear();
    std::string name = "surveyed";
    std::vector<SurveyRequest> requests;
    for (const auto& [volume, effort] : surveys) {
        name += "-" + volume + (effort == Effort::full ? "-full" : "");
        requests.push_back({demo / volume, {}, {}, effort});
    }
    const bool known = !surveys.empty() && demo.takeFrom(name);
    start();
    if (!surveys.empty() && !known) {
        workbench_->survey(requests);
        settle();
        window_.reset();
        workbench_.reset();
        demo.keepAs(name);
        start();
    }
}

Desktop::~Desktop() {
    window_.reset();
    workbench_.reset();
}

void Desktop::start() {
    workbench_ = std::make_unique<app::Workbench>(demo.cataloguePath());
    window_ = std::make_unique<app::MainWindow>(*workbench_);
    window_->resize(1280, 800);
    window_->show();
    workbench_->open();
    REQUIRE(waitFor([this] { return workbench_->longWork() == app::LongWork::none; }));
    settle();
}

void Desktop::restart() {
    window_->close();
    window_.reset();
    workbench_.reset();
    start();
}

void Desktop::press(Qt::Key key, Qt::KeyboardModifiers modifiers, QWidget* where) {
    if (QApplication::activeModalWidget() == nullptr && !window_->isActiveWindow()) {
        window_->activateWindow();
        waitFor([this] { return window_->isActiveWindow(); }, 2000);
    }
    QWidget* target = where != nullptr ? where : QApplication::focusWidget();
    QTest::keyClick(target != nullptr ? target : window_.get(), key, modifiers);
    settle();
}

void Desktop::click(QWidget* widget, QPoint at) {
    QTest::mouseClick(widget, Qt::LeftButton, Qt::NoModifier, at);
    settle();
}

QWidget* Desktop::find(const QString& accessibleName) {
    QWidget* found = nullptr;
    waitFor(
        [&] {
            for (auto* widget : visibleWidgets()) {
                if (widget->accessibleName() == accessibleName) {
                    found = widget;
                }
            }
            return found != nullptr;
        },
        3000);
    INFO(accessibleName.toStdString());
    REQUIRE(found != nullptr);
    return found;
}

QAbstractButton* Desktop::button(const QString& beginning) {
    for (auto* widget : visibleWidgets()) {
        auto* found = qobject_cast<QAbstractButton*>(widget);
        if (found != nullptr && found->text().startsWith(beginning)) {
            return found;
        }
    }
    FAIL("no button that says " << beginning.toStdString());
    return nullptr;
}

QTableView* Desktop::list(const QString& accessibleName) {
    return static_cast<QTableView*>(find(accessibleName));
}

QString Desktop::cell(const QString& name, int row, const QString& column) {
    auto* view = list(name);
    const auto* model = view->model();
    for (int i = 0; i < model->columnCount(); ++i) {
        if (model->headerData(i, Qt::Horizontal).toString() == column) {
            return model->index(row, i).data().toString();
        }
    }
    FAIL("no column " << column.toStdString());
    return {};
}

Volume Desktop::volume(const std::string& label) {
    const auto reader = Catalogue::openForReading(demo.cataloguePath());
    const auto volumes = Volumes(*reader).all();
    const auto found = std::ranges::find(*volumes, label, &Volume::label);
    REQUIRE(found != volumes->end());
    return *found;
}

void Desktop::chooseInMenu(const QString& menu, const QString& beginning) {
    for (auto* top : window_->menuBar()->actions()) {
        if (top->text().remove('&') == menu) {
            top->menu()->popup(window_->mapToGlobal(QPoint(20, 20)));
            chooseInPopup(beginning);
            return;
        }
    }
    FAIL("no such menu");
}

void Desktop::chooseInPopup(const QString& beginning) {
    auto* menu = qobject_cast<QMenu*>(QApplication::activePopupWidget());
    REQUIRE(menu != nullptr);
    for (auto* action : menu->actions()) {
        if (action->text().startsWith(beginning)) {
            REQUIRE(action->isEnabled());
            QTest::mouseClick(menu, Qt::LeftButton, Qt::NoModifier, menu->actionGeometry(action).center());
            settle();
            return;
        }
    }
    FAIL("no entry that says " << beginning.toStdString());
}

void Desktop::choose(const BytePath& path) {
    QFileDialog* open = nullptr;
    for (auto* dialog : window_->findChildren<QFileDialog*>()) {
        open = dialog->isVisible() ? dialog : open;
    }
    REQUIRE(open != nullptr);
    auto* name = open->findChild<QLineEdit*>();
    name->setText(QString::fromStdString(path));
    QTest::keyClick(name, Qt::Key_Return);
    settle();
}

QString Desktop::text(const QString& label) {
    return static_cast<QLabel*>(find(label))->text();
}

void Desktop::settle() {
    // A survey of the demo takes its time beside other tests.
    constexpr int longest = 180'000; // milliseconds
    // An answer may ask again, or begin work: quiet has to hold through two rounds of the event loop.
    int quietRounds = 0;
    REQUIRE(waitFor(
        [&] {
            const bool works = workbench_->isBusy() && !workbench_->isPaused();
            quietRounds = workbench_->isIdle() && !works ? quietRounds + 1 : 0;
            return quietRounds > 2;
        },
        longest));
}

bool Desktop::waitFor(const std::function<bool()>& condition, int milliseconds) {
    return QTest::qWaitFor(condition, milliseconds);
}

} // namespace sober::test
