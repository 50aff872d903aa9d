#pragma once

#include "core/disc/disc_lookup.h"

#include <QDialog>

class QLineEdit;
class QTableWidget;

namespace sober::app {

/// What a disc and its tracks are to be called, to be changed cell by cell.
class DiscNamesWindow : public QDialog {
    Q_OBJECT

  public:
    DiscNamesWindow(const DiscNames& names, QWidget* parent);

  signals:
    void agreed(const sober::DiscNames& names);

  private:
    void agree();

    DiscNames names_;
    QLineEdit* title_;
    QLineEdit* artist_;
    QLineEdit* date_;
    QLineEdit* genre_;
    QLineEdit* disc_;
    QTableWidget* tracks_;
};

} // namespace sober::app
