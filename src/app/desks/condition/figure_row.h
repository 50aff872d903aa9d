#pragma once

#include <QRectF>
#include <QWidget>

namespace sober::app {

/// A row of figures, each with its word below, parted by hairlines.
class FigureRow : public QWidget {
    Q_OBJECT

  public:
    struct Figure {
        QString value;
        QString word;
        QString meaning; ///< said under the pointer
    };

    explicit FigureRow(QWidget* parent = nullptr);
    void setFigures(std::vector<Figure> figures);

    QSize sizeHint() const override;
    QSize minimumSizeHint() const override;

  protected:
    bool event(QEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void paintEvent(QPaintEvent* event) override;

  private:
    /// How many stand beside each other, line by line, in a width.
    std::vector<std::size_t> linesIn(double width) const;
    double widthOf(std::size_t figure) const;
    /// Where each stands.
    std::vector<QRectF> places() const;
    int heightIn(int width) const;

    std::vector<Figure> figures_;
};

} // namespace sober::app
