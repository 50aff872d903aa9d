#pragma once

#include <QDialog>

class QLineEdit;

namespace sober::app {

/// Which services may be asked about discs.
class DiscServicesWindow : public QDialog {
    Q_OBJECT

  public:
    DiscServicesWindow(const QString& ripRegister, const QString& lookup, QWidget* parent);

  signals:
    void agreed(const QString& ripRegister, const QString& lookup);

  private:
    QLineEdit* register_;
    QLineEdit* lookup_;
};

} // namespace sober::app
