#pragma once

#include "app/work_thread.h"
#include "app/workbench.h"
#include "core/work/look_at_bytes.h"

#include <QDialog>

class QComboBox;
class QLabel;
class QLineEdit;
class QScrollBar;

namespace sober::app {

class ByteSheet;

/// The bytes of an image, from any place, to be looked at and looked through; nothing is changed.
class BytesWindow : public QDialog {
    Q_OBJECT

  public:
    BytesWindow(Workbench& workbench, BytePath image, std::uint64_t at, QWidget* parent);
    ~BytesWindow() override;

  private:
    void buildRow(class QHBoxLayout& row);
    void goTo(std::uint64_t at);
    void moveBy(qint64 rows);
    void ask();
    void showLook(const ByteLook& look);
    void search();
    void takeFound(const Result<std::optional<std::uint64_t>>& found, std::size_t length);

    Workbench& workbench_;
    BytePath image_;
    std::uint64_t at_;
    std::uint64_t size_ = 0;
    ByteSheet* sheet_;
    QScrollBar* bar_;
    QComboBox* kind_;
    QLineEdit* wanted_;
    QLineEdit* place_;
    QLabel* said_;
    std::shared_ptr<RunControl> searching_;
    std::optional<ByteRange> found_; ///< what was looked for last, where it stands
    bool waits_ = false;             ///< for an answer
    bool again_ = false;             ///< another place was asked for meanwhile
    WorkThread searcher_;            ///< goes first: what it was asked may still be going on
};

} // namespace sober::app
