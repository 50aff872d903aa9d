#pragma once

#include "core/base/paths.h"

#include <QLocalServer>
#include <QObject>

#include <vector>

namespace sober::app {

/// One window for one catalogue: who comes second hands over what it was asked for, by a socket in the
/// user's runtime folder, and goes.
class SingleInstance : public QObject {
    Q_OBJECT

  public:
    explicit SingleInstance(const BytePath& catalogue, QObject* parent = nullptr);

    /// True where a program that has the catalogue open took the places. Else others are heard from now on;
    /// without a runtime folder nobody is, and a second program says that the catalogue is open.
    bool handOverOrListen(const std::vector<BytePath>& places);

  signals:
    /// Another program was started on the same catalogue.
    void asked(const std::vector<sober::BytePath>& places);

  private:
    bool handOver(const std::vector<BytePath>& places) const;
    void hear(QLocalSocket* line);

    QString name_;
    QLocalServer server_;
};

} // namespace sober::app
