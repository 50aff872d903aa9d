#pragma once

#include "app/charts/chart.h"
#include "core/disc/agreed_reading.h"

namespace sober::app {

/// The disc's picture: a band from lead-in to lead-out with its tracks, each place by how it came to its
/// samples, and above it how often that took.
class DiscBand : public Chart {
    Q_OBJECT

  public:
    explicit DiscBand(QWidget* parent = nullptr);
    void setDisc(const DiscContents& contents);
    void setSectors(int first, const std::vector<SectorReading>& sectors);
    /// By its number; below 0 for none.
    void setChosen(int track);
    void clear();

  signals:
    void trackClicked(int track);

  protected:
    void draw(QPainter& painter) override;
    QString valueAt(const QPointF& point) const override;
    void mousePressEvent(QMouseEvent* event) override;

  private:
    QRectF band() const;
    double xOf(int sector) const;
    int sectorAt(double x) const;
    /// What a column of the picture shows: the worst of its sectors.
    SectorReading worstIn(int first, int past) const;
    void drawColumns(QPainter& painter) const;
    void drawTracks(QPainter& painter) const;
    void drawKey(QPainter& painter) const;

    DiscContents contents_;
    std::vector<SectorReading> sectors_;
    int chosen_ = -1;
};

/// In words: "agreed after 5 readings".
QString readingWords(const SectorReading& reading);

} // namespace sober::app
