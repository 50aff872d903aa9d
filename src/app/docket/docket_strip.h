#pragma once

#include "app/workbench.h"

#include <QFrame>

class QLabel;
class QPushButton;

namespace sober::app {

/// Always in sight: how many actions wait, what they free, and that nothing has changed yet.
class DocketStrip : public QFrame {
    Q_OBJECT

  public:
    DocketStrip(Workbench& workbench, QWidget* parent);
    void reload();

  signals:
    void readThroughWanted();

  private:
    void showWaiting(const std::vector<std::string>& sentences);

    Workbench& workbench_;
    QLabel* text_;
    QLabel* waiting_;
    QPushButton* read_;
};

} // namespace sober::app
