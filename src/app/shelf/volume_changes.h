#pragma once

#include "app/workbench.h"

#include <QDialog>
#include <QObject>

class QLabel;

namespace sober::app {

/// What is lost if a volume leaves the catalogue, and the key that lets it leave.
class ForgetWindow : public QDialog {
    Q_OBJECT

  public:
    ForgetWindow(Workbench& workbench, const Volume& volume, QWidget* parent);

  private:
    Workbench& workbench_;
};

/// Gives a volume another label, another place, or none.
class VolumeChanges : public QObject {
    Q_OBJECT

  public:
    VolumeChanges(Workbench& workbench, QWidget* window)
        : QObject(window), workbench_(workbench), window_(window) {}

    void relabel(const Volume& volume);
    /// Asks for the folder at which a copy of the volume's drive has taken its place.
    void succeed(const Volume& volume);
    void forget(const Volume& volume);

  private:
    Workbench& workbench_;
    QWidget* window_;
};

} // namespace sober::app
