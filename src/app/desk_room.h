#pragma once

#include <QScrollArea>

namespace sober::app {

/// Where the desks stand, one at a time. A window that is smaller than a desk needs, on a small screen or
/// where everything is shown larger, shows it in part, with bars to go about; all else of the window stays in
/// sight.
class DeskRoom : public QScrollArea {
  public:
    explicit DeskRoom(QWidget* parent);

    void addWidget(QWidget* desk);
    void setCurrentWidget(QWidget* desk);
    QSize minimumSizeHint() const override;

  private:
    class OneAtATime;

    OneAtATime* desks_;
};

} // namespace sober::app
