#pragma once

#include "app/desks/find/place_tree.h"

#include <QDialog>

class QLabel;
class QLineEdit;
class QPushButton;

namespace sober::app {

/// Asks into which folder of which volume something is to be moved, or copied out of an archive, and under
/// which name.
class MoveWindow : public QDialog {
    Q_OBJECT

  public:
    struct What {
        QString words;                ///< "3 holdings", "the folder Music/Choir"
        std::optional<BytePath> name; ///< of one holding or folder, which may get another
        Place from;                   ///< to begin with
        bool inside = false;          ///< an archive: it is copied out
    };
    MoveWindow(Workbench& workbench, const What& what, QWidget* parent);

  signals:
    /// `folder` is relative to the volume's root and need not be there yet; `name` is as it was unless it was
    /// changed.
    void chosen(const sober::app::Place& into, const std::optional<sober::BytePath>& name);

  private:
    void follow();

    What what_;
    PlaceTree* tree_;
    QLineEdit* below_; ///< new folders below the chosen place
    QLineEdit* name_;
    QLabel* target_;
    QPushButton* done_;
};

} // namespace sober::app
