#pragma once

#include "app/theme/marks.h"

#include <QTableView>

class QTimer;

namespace sober::app {

/// The role under which a cell gives its Mark, as int; the mark stands before the cell's text.
inline constexpr int markRole = Qt::UserRole + 1;
/// True where the cell's text is bytes: drawn in the mono face, cut in the middle.
inline constexpr int bytesRole = Qt::UserRole + 2;
/// True where the cell is said in the quiet ink.
inline constexpr int quietRole = Qt::UserRole + 3;

/// A table as every desk shows it: rows of 28, whole rows selected, no grid, paths cut in the middle.
class ListView : public QTableView {
    Q_OBJECT

  public:
    explicit ListView(const QString& accessibleName, QWidget* parent = nullptr);

    /// Widths of the first columns in pixels; the `stretched` column takes what room is left. A column whose
    /// heading, marked words or figures need more gets it: none of these is cut, in whatever language.
    void setWidths(std::initializer_list<int> widths, int stretched);
    /// What to say in an empty list, instead of nothing.
    void setEmptyText(const QString& text);
    /// The row under the cursor, -1 for none.
    int currentRow() const { return currentIndex().isValid() ? currentIndex().row() : -1; }
    void setModel(QAbstractItemModel* model) override;

  protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    /// What is dragged is told by a few words, so that it hides nothing that it could be dropped on.
    void startDrag(Qt::DropActions actions) override;

  private:
    void fitColumns();
    void giveTheRest();
    int headingNeeds(int column) const;
    int neededBy(int column) const;

    QTimer* fitting_;
    int stretched_ = -1;
    QString emptyText_;
};

} // namespace sober::app
