#pragma once

#include "app/workbench.h"

#include <QDialog>

namespace sober::app {

/// What another catalogue knows that this one does not, and taking it in.
class MeetWindow : public QDialog {
    Q_OBJECT

  public:
    MeetWindow(Workbench& workbench, const BytePath& other, QWidget* parent);
};

} // namespace sober::app
