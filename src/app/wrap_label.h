#pragma once

#include <QLabel>

#include <algorithm>

namespace sober::app {

/// Words that are never given less height than they need in the width they have, where they may go on in a
/// further line (setWordWrap).
class WrapLabel : public QLabel {
  public:
    using QLabel::QLabel;

    /// So many pixels high even where it says less, so that what is below does not move.
    void keepHeight(int pixels) { kept_ = pixels; }

    QSize minimumSizeHint() const override {
        const auto least = QLabel::minimumSizeHint();
        // Before it is laid out its width says nothing: a window would be as high as that needs.
        const int needed = isLaidOut_ ? heightForWidth(width()) : 0;
        return wordWrap() ? QSize(least.width(), std::max({least.height(), kept_, needed})) : least;
    }

  protected:
    void resizeEvent(QResizeEvent* event) override {
        QLabel::resizeEvent(event);
        isLaidOut_ = true;
        if (wordWrap()) {
            updateGeometry();
        }
    }

  private:
    int kept_ = 0;
    bool isLaidOut_ = false;
};

} // namespace sober::app
