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

    /// True where a program that has the catalogue open took the places.
    bool handOver(const std::vector<BytePath>& places) const;
    /// Listens for others from now on. Without a runtime folder nobody is heard, and a second program says
    /// that the catalogue is open.
    void listen();

  signals:
    /// Another program was started on the same catalogue.
    void asked(const std::vector<sober::BytePath>& places);

  private:
    void hear(QLocalSocket* line);

    QString name_;
    QLocalServer server_;
};

} // namespace sober::app
