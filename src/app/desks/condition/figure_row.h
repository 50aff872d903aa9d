#pragma once

#include <QWidget>

namespace sober::app {

/// A row of figures, each with its word below, parted by hairlines.
class FigureRow : public QWidget {
    Q_OBJECT

  public:
    struct Figure {
        QString value;
        QString word;
    };

    explicit FigureRow(QWidget* parent = nullptr);
    void setFigures(std::vector<Figure> figures);

  protected:
    void paintEvent(QPaintEvent* event) override;

  private:
    std::vector<Figure> figures_;
};

} // namespace sober::app
