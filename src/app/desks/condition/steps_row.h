#pragma once

#include <QStringList>
#include <QWidget>

namespace sober::app {

/// The steps of something in their order, those that are done with their mark.
class StepsRow : public QWidget {
    Q_OBJECT

  public:
    StepsRow(QStringList steps, const QString& accessibleName, QWidget* parent);
    void setDone(int count);
    QSize sizeHint() const override;

  protected:
    void paintEvent(QPaintEvent* event) override;

  private:
    QStringList steps_;
    int done_ = 0;
};

} // namespace sober::app
