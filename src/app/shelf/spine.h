#pragma once

#include <QWidget>

class QButtonGroup;
class QVBoxLayout;

namespace sober::app {

/// One desk in the spine: its name, the key that opens it and how much is open there.
class DeskButton;

/// The desks, one below the other.
class Spine : public QWidget {
    Q_OBJECT

  public:
    explicit Spine(QWidget* parent = nullptr);
    void addDesk(const QString& name);
    void setCurrent(int desk);
    /// The open count beside a desk's name; negative shows none.
    void setCount(int desk, qint64 count);

  signals:
    void deskChosen(int desk);

  private:
    QVBoxLayout* layout_;
    QButtonGroup* group_;
};

} // namespace sober::app
