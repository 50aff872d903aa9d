#pragma once

#include "app/theme/marks.h"

#include <QString>
#include <QVariant>

#include <functional>
#include <vector>

namespace sober::app {

/// What one cell of a list shows.
struct Cell {
    QString text;
    Mark mark = Mark::none;
    bool bytes = false; ///< a path: mono face, cut in the middle
    bool quiet = false;
    QString tip; ///< where it says more than the text
};

template <typename Row>
struct Column {
    QString title;
    std::function<Cell(const Row&)> cell;
    bool right = false; ///< figures stand at the right
};

/// The model's answer for a cell under a role.
QVariant cellData(const Cell& cell, bool right, int role);

/// The header's answer.
QVariant headerData(const QString& title, bool right, int role);

} // namespace sober::app
