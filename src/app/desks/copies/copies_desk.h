#pragma once

#include "app/desks/copies/copy_columns.h"
#include "app/desks/desk.h"
#include "app/lists/id_list_model.h"
#include "app/lists/list_view.h"

class QComboBox;
class QLineEdit;

namespace sober::app {

class WrapLabel;
class WrapRow;

class MemberListening;
class SetPictures;
class StandingListBox;

/// Which of these do I keep?
class CopiesDesk : public Desk {
    Q_OBJECT

  public:
    explicit CopiesDesk(Workbench& workbench);
    /// Shows the sets with a member whose path or tags hold this text.
    void setFilterText(const QString& text);

  protected:
    void reload() override;
    void reloadDecisions() override;
    bool eventFilter(QObject* watched, QEvent* event) override;

  private:
    struct Order {
        std::vector<SetId> ids;
        std::vector<Volume> volumes;
    };

    void buildLists();
    void buildButtons();
    void askOrder();
    void takeOrder(const Order& order);
    void askDetail();
    void takeDetail(const SetDetail& detail);
    void chooseMember(HoldingId holding);
    std::optional<HoldingId> currentMember() const;
    void moveMember(int by);
    void nextSet();
    void
    decideHere(std::function<Outcome(const Catalogue&, const SetDetail&, const std::vector<Volume>&)> work);
    void takeSuggestion();
    void openPolicies();
    void openTags();
    void memberMenu(const QPoint& at);
    void showReasons();
    void sayOnce();

    SetPictures* pictures_;
    MemberListening* listening_;
    QLineEdit* text_;
    QComboBox* volume_;
    QComboBox* order_;
    QComboBox* which_;
    QComboBox* sameness_;
    StandingListBox* lists_;
    IdListModel<SetRow>* sets_;
    ListView* setList_;
    RowListModel<MemberRow>* members_;
    ListView* memberList_;
    WrapLabel* reasons_;
    QLabel* equal_;
    WrapRow* buttons_;
    std::vector<Volume> volumes_;
    std::shared_ptr<const SetDetail> detail_;
    Latest orderAsked_;
    unsigned detailAsked_ = 0;
};

} // namespace sober::app
