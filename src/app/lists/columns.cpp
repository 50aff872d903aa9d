#include "app/lists/columns.h"

#include "app/lists/list_view.h"

namespace sober::app {
namespace {

/// In some lists a mark stands for something near to what it means; it is explained where it is meant.
bool isCalledByItsMark(const Cell& cell) {
    return cell.mark != Mark::none &&
           (cell.text.startsWith(wordFor(cell.mark)) ||
            (cell.mark == Mark::sound && cell.text == verdictWord(VerdictClass::genuine)));
}

} // namespace

QVariant cellData(const Cell& cell, bool right, int role) {
    switch (role) {
    case Qt::DisplayRole:
        return cell.text;
    case Qt::ToolTipRole:
        return !cell.tip.isEmpty()       ? cell.tip
               : isCalledByItsMark(cell) ? QStringLiteral("%1\n%2").arg(cell.text, meaningOf(cell.mark))
                                         : cell.text;
    case Qt::AccessibleTextRole:
        return cell.mark == Mark::none ? cell.text : wordFor(cell.mark) + QStringLiteral(", ") + cell.text;
    case Qt::TextAlignmentRole:
        return static_cast<int>(right ? Qt::AlignRight | Qt::AlignVCenter : Qt::AlignLeft | Qt::AlignVCenter);
    case markRole:
        return static_cast<int>(cell.mark);
    case bytesRole:
        return cell.bytes;
    case quietRole:
        return cell.quiet;
    default:
        return {};
    }
}

QVariant headerData(const QString& title, bool right, int role) {
    if (role == Qt::DisplayRole) {
        return title;
    }
    if (role == Qt::TextAlignmentRole) {
        return static_cast<int>(right ? Qt::AlignRight | Qt::AlignVCenter : Qt::AlignLeft | Qt::AlignVCenter);
    }
    return {};
}

} // namespace sober::app
