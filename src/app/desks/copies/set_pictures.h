#pragma once

#include "app/charts/lineage_chart.h"
#include "app/charts/overlay_chart.h"
#include "app/charts/set_chart.h"
#include "app/desks/copies/copy_columns.h"
#include "app/workbench.h"

#include <QStackedWidget>

namespace sober::app {

/// What a copy set looks like: where its members lie or, where they were examined, who can be made from whom,
/// their spectra over each other, and what is left when one is subtracted from the other.
class SetPictures : public QStackedWidget {
    Q_OBJECT

  public:
    SetPictures(Workbench& workbench, QWidget* parent);
    void clear();
    void setDetail(std::shared_ptr<const SetDetail> detail, const std::vector<Volume>& volumes);
    /// The chosen member, beside the keeper; nothing for none. `rows` are those of all members.
    void setCurrent(std::optional<std::size_t> member, const std::vector<MemberRow>& rows);

  signals:
    void memberChosen(sober::HoldingId holding);

  private:
    std::size_t keeperPlace() const;
    void showPair(std::size_t member, const std::vector<MemberRow>& rows);
    void comparePair(const MemberRow& keeper, const MemberRow& member);

    Workbench& workbench_;
    SetChart* chart_;
    LineageChart* lineage_;
    OverlayChart* overlay_;
    std::shared_ptr<const SetDetail> detail_;
    unsigned pairAsked_ = 0;
};

} // namespace sober::app
