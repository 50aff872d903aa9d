#pragma once

#include "app/workbench.h"

#include <QFrame>

class QLabel;
class QProgressBar;
class QPushButton;

namespace sober::app {

/// While long work goes on: how far it is, how fast, how long still; pause and cancel.
class ProgressStrip : public QFrame {
    Q_OBJECT

  public:
    ProgressStrip(Workbench& workbench, QWidget* parent);

  private:
    void followWork();
    void show(const Progress& progress);

    Workbench& workbench_;
    QLabel* text_;
    QLabel* at_;
    QProgressBar* bar_;
    QPushButton* pause_;
    QPushButton* cancel_;
};

/// "120 of 4,000 files · 1.20 GB of 3.00 GB · 300 MB/s · 12 s left".
QString progressText(const Progress& progress);

} // namespace sober::app
