#pragma once

#include "app/charts/chart.h"
#include "core/base/file_handle.h"

#include <vector>

namespace sober::app {

/// Salvage's picture: an image as one band from its first to its last sector, or the trash as one from the
/// newest to the oldest, each find at its place in the ink of what it is to the collection.
class SalvageStrip : public Chart {
    Q_OBJECT

  public:
    enum class Ink {
        missing, ///< recognised, and missing from the collection
        held,    ///< recognised, and held
        fresh,   ///< not recognised
    };
    struct Piece {
        qint64 find = 0;
        QString name;
        std::vector<ByteRange> extents;
        Ink ink = Ink::fresh;
        bool whole = true;
    };
    struct Band {
        QString caption;
        std::uint64_t size = 0;
        std::uint64_t reached = 0;     ///< looked through so far
        std::vector<ByteRange> unread; ///< could not be read
        std::vector<ByteRange> ahead;  ///< of an image that is being made: not tried yet
        QString first;                 ///< under the left end
        QString last;
        bool isTrash = false;
        std::vector<Piece> pieces;
    };

    explicit SalvageStrip(QWidget* parent = nullptr);
    void setBand(Band band);
    void setChosen(qint64 find);

  signals:
    void findClicked(qint64 find);

  protected:
    void draw(QPainter& painter) override;
    QString valueAt(const QPointF& point) const override;
    void mousePressEvent(QMouseEvent* event) override;

  private:
    QRectF band() const;
    QRectF roomOf(const ByteRange& range) const;
    const Piece* pieceAt(const QPointF& point) const;
    void drawPiece(QPainter& painter, const Piece& piece) const;
    void drawChosen(QPainter& painter) const;
    void drawKey(QPainter& painter) const;

    Band band_;
    qint64 chosen_ = 0;
};

} // namespace sober::app
