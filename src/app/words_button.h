#pragma once

#include <QPushButton>

namespace sober::app {

/// A button with a sentence on it, from the near side on, in as many lines as its width asks for.
class WordsButton : public QPushButton {
    Q_OBJECT

  public:
    explicit WordsButton(const QString& text, QWidget* parent);

    QSize sizeHint() const override;
    QSize minimumSizeHint() const override;
    bool hasHeightForWidth() const override { return true; }
    int heightForWidth(int width) const override;

  protected:
    void resizeEvent(QResizeEvent* event) override;
    void paintEvent(QPaintEvent* event) override;
};

} // namespace sober::app
