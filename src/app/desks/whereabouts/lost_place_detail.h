#pragma once

#include "app/desks/whereabouts/place_row.h"
#include "app/desks/whereabouts/relink_known.h"
#include "app/lists/list_view.h"
#include "app/lists/row_list_model.h"

#include <QWidget>

#include <functional>

class QLabel;
class QPushButton;

namespace sober::app {

class ListeningBar;
class WrapLabel;

/// What is known of one lost place, and its candidates side by side, to be compared and listened to.
class LostPlaceDetail : public QWidget {
    Q_OBJECT

  public:
    /// `placeText` says how a path is shown.
    LostPlaceDetail(std::function<QString(const BytePath&)> placeText, QWidget* parent);

    /// Of the place in `row`, which is null where none is selected.
    void show(const PlaceRow* row, const std::shared_ptr<const Relinking>& found, const RelinkKnown& known);

  signals:
    /// The custodian says that this file is what the place `lost` was.
    void chosen(const BytePath& lost, const BytePath& file);

  private:
    struct CandidateRow {
        RelinkCandidate file;
        Judgement judged;
    };
    void showCandidate();
    const CandidateRow* candidate() const;

    WrapLabel* detail_;
    RowListModel<CandidateRow>* candidates_;
    ListView* candidateList_;
    QLabel* judged_;
    ListeningBar* listening_;
    QPushButton* choose_;
    BytePath lost_;
    BytePath linked_; ///< where the place's file is, if one was found
    std::function<QString(const BytePath&)> placeText_;
};

} // namespace sober::app
