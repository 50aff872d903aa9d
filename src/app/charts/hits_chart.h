#pragma once

#include "app/charts/chart.h"
#include "core/catalogue/records.h"

namespace sober::app {

/// Find's picture: every volume a line of its folders, each as wide as it has holdings and filled as far as
/// what was searched lies in it.
class HitsChart : public Chart {
    Q_OBJECT

  public:
    struct Folder {
        BytePath path; ///< relative, "" for what lies in the root itself
        std::uint64_t all = 0;
        std::uint64_t hits = 0;
    };
    struct Line {
        VolumeId volume = 0;
        QString label;
        bool atHand = true;
        std::vector<Folder> folders;
    };

    explicit HitsChart(QWidget* parent = nullptr);
    void setLines(std::vector<Line> lines);

  signals:
    void folderChosen(qlonglong volume, const QByteArray& folder);

  protected:
    void draw(QPainter& painter) override;
    QString valueAt(const QPointF& point) const override;
    void mousePressEvent(QMouseEvent* event) override;

  private:
    struct Piece {
        QRectF room;
        std::size_t line;
        std::size_t folder;
    };
    std::vector<Piece> layOut() const;
    static QString wordsOf(const Line& line);

    std::vector<Line> lines_;
    double labelWidth_ = 0; ///< pixels at the left
    double wordsWidth_ = 0; ///< pixels at the right
};

} // namespace sober::app
