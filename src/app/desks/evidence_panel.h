#pragma once

#include "app/workbench.h"
#include "core/catalogue/evidence_store.h"
#include "core/evidence/time_spectrum.h"

#include <QWidget>

class QLabel;

namespace sober::app {

class ListeningBar;
class SpectrumChart;
class TimePicture;
class TraceChart;

/// Everything that is known of one holding, as a desk shows it.
struct HoldingDetail {
    Holding holding;
    std::string volume;
    bool atHand = false;
    BytePath path; ///< absolute
    std::optional<Evidence> evidence;
    std::optional<Acceptance> acceptance;
    std::string better; ///< "VOLUME/path, codec and bitrate" of the best better copy; "" for none
};

Result<HoldingDetail> detailOfHolding(const Catalogue& catalogue, HoldingId id);

/// One file's evidence: the verdict with its reasons, the spectrum, the trace, frequencies over time on
/// demand, facts, and listening.
class EvidencePanel : public QWidget {
    Q_OBJECT

  public:
    explicit EvidencePanel(Workbench& workbench);

    /// Nothing shows an empty panel that says what to do.
    void setDetail(const std::optional<HoldingDetail>& detail);
    ListeningBar& listening() { return *listening_; }

  private:
    void makePicture();
    QString facts() const;

    Workbench& workbench_;
    std::optional<HoldingDetail> detail_;
    QLabel* verdict_;
    QLabel* reasons_;
    QLabel* accepted_;
    SpectrumChart* spectrum_;
    TraceChart* trace_;
    TimePicture* picture_;
    QLabel* facts_;
    ListeningBar* listening_;
    unsigned pictureAsked_ = 0;
};

} // namespace sober::app
