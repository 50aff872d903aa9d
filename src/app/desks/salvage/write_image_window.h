#pragma once

#include "app/workbench.h"
#include "core/remedy/write_image.h"

#include <QDialog>

class QLineEdit;
class QPushButton;

namespace sober::app {

/// Says what would be lost by writing an image over a drive, and lets it be done once the drive's label and
/// size were typed.
class WriteImageWindow : public QDialog {
    Q_OBJECT

  public:
    WriteImageWindow(Workbench& workbench, BytePath image, WriteTarget target, QWidget* parent);

  private:
    std::uint64_t typedBytes() const;
    void check();

    Workbench& workbench_;
    BytePath image_;
    WriteTarget target_;
    QLineEdit* label_;
    QLineEdit* size_;
    QPushButton* write_;
};

} // namespace sober::app
