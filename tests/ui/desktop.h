#pragma once

#include "app/main_window.h"
#include "app/workbench.h"
#include "support/demo_copy.h"

#include <QAbstractButton>
#include <QLabel>
#include <QTest>

#include <memory>

class QTableView;

namespace sober::test {

/// The real windows over a copy of the demo collection, driven by mouse and key events.
class Desktop {
  public:
    explicit Desktop(bool surveyed = true);
    /// The demo after `surveys`, which are made once in a process.
    explicit Desktop(const std::vector<std::pair<BytePath, Effort>>& surveys);
    ~Desktop();

    DemoCopy demo;
    app::Workbench& workbench() { return *workbench_; }
    app::MainWindow& window() { return *window_; }

    /// Closes the program and starts it again on the same catalogue.
    void restart();
    /// Presses a key where the focus is, as a user would.
    void press(Qt::Key key, Qt::KeyboardModifiers modifiers = Qt::NoModifier, QWidget* where = nullptr);
    void click(QWidget* widget, QPoint at = {});
    /// The visible widget with this accessible name; fails the test where there is none.
    QWidget* find(const QString& accessibleName);
    /// The visible button whose text begins so.
    QAbstractButton* button(const QString& beginning);
    QTableView* list(const QString& accessibleName);
    QString cell(const QString& list, int row, const QString& column);
    QString text(const QString& label);
    Volume volume(const std::string& label);
    /// Chooses what begins so from a menu of the window.
    void chooseInMenu(const QString& menu, const QString& beginning);
    /// Triggers an entry of the menu that has popped up.
    void chooseInPopup(const QString& beginning);
    /// Answers the window that asks for a file or folder.
    void choose(const BytePath& path);
    /// Waits until nothing is being worked at and everything asked has been answered.
    void settle();
    bool waitFor(const std::function<bool()>& condition, int milliseconds = 20'000);

  private:
    void start();

    std::unique_ptr<app::Workbench> workbench_;
    std::unique_ptr<app::MainWindow> window_;
};

} // namespace sober::test
