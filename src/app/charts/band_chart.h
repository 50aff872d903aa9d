#pragma once

#include "app/charts/chart.h"
#include "core/catalogue/findings.h"

namespace sober::app {

/// One volume as a band.
struct Band {
    QString label;
    bool atHand = true;
    std::uint64_t holdings = 0;
    std::uint64_t bytes = 0;
    std::vector<FolderFigures> folders;
};

/// Condition's picture: every volume a band of its folders, each as wide as it has holdings, shaded
/// by the worst that is known of it.
class BandChart : public Chart {
    Q_OBJECT

  public:
    explicit BandChart(QWidget* parent = nullptr);
    void setBands(std::vector<Band> bands);

  signals:
    void folderChosen(const QString& volume, const QString& folder);

  protected:
    void draw(QPainter& painter) override;
    QString valueAt(const QPointF& point) const override;
    void mousePressEvent(QMouseEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

  private:
    struct Piece {
        QRectF room;
        std::size_t band;
        std::size_t folder;
    };
    /// Where each word of the legend stands, in as many lines as it takes.
    struct Key;
    std::vector<Key> legend() const;
    double bandsBegin() const;
    void fitHeight();
    std::vector<Piece> layOut() const;
    const FolderFigures& folderOf(const Piece& piece) const {
        return bands_[piece.band].folders[piece.folder];
    }

    std::vector<Band> bands_;
};

} // namespace sober::app
