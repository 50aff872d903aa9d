#pragma once

#include "app/charts/chart.h"

#include <cstdint>
#include <vector>

namespace sober::app {

/// Transfer's picture: every place that has a part in it before, meanwhile and after, as filled shapes: what
/// stays, what comes, what is held twice, what can be let go, and what does not fit.
class TransferChart : public Chart {
    Q_OBJECT

  public:
    struct Place {
        QString label;
        bool isTarget = false;
        bool atHand = true;
        std::uint64_t there = 0; ///< bytes that are there before
        std::uint64_t coming =
            0;                  ///< bytes: of a source those of them that come, of a target those that arrive
        std::uint64_t free = 0; ///< bytes, of a target
        bool twice = true;      ///< of a source: what comes is held here too, until it is let go
    };

    explicit TransferChart(QWidget* parent = nullptr);
    /// `arrived`: of what comes, bytes that stand at their place already; `released`: the old has gone.
    void setPlaces(std::vector<Place> places, std::uint64_t arrived, bool released);

  protected:
    void draw(QPainter& painter) override;
    QString valueAt(const QPointF& point) const override;

  private:
    enum class Column { before, meanwhile, after };
    enum class Kind { stays, comes, twice, letGo, free, tooMuch };
    struct Piece {
        QRectF room;
        Kind kind = Kind::stays;
        std::uint64_t bytes = 0;
        std::size_t place = 0;
        Column column = Column::before;
    };
    QRectF barRoom(std::size_t place, Column column) const;
    std::vector<Piece> piecesOf(std::size_t place, Column column) const;
    static QString wordsOf(const Piece& piece);
    void drawPiece(QPainter& painter, const Piece& piece) const;
    QString wordsBelow(std::size_t place, Column column) const;

    std::vector<Place> places_;
    std::uint64_t arrived_ = 0;
    bool released_ = false;
};

} // namespace sober::app
