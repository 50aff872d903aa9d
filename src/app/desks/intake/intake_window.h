#pragma once

#include "core/intake/arrivals.h"

#include <QDialog>

namespace sober::app {

/// Reads through what is going to be done with arrivals, line by line, before it is.
class IntakeWindow : public QDialog {
    Q_OBJECT

  public:
    IntakeWindow(const std::vector<const Arrival*>& arrivals, bool withProposals, QWidget* parent);

  signals:
    void agreed();
};

/// What is done with one arrival, in the order in which it is.
QStringList stepsFor(const Arrival& arrival, bool withProposals);

} // namespace sober::app
