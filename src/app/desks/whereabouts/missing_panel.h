#pragma once

#include "app/charts/ribbon_chart.h"
#include "app/desks/desk.h"
#include "app/lists/id_list_model.h"
#include "app/lists/list_view.h"
#include "core/catalogue/holdings.h"

class QLineEdit;

namespace sober::app {

class StandingListBox;

/// What is missing, where it was, where the same bytes are still.
class MissingPanel : public QWidget {
    Q_OBJECT

  public:
    MissingPanel(Workbench& workbench, QWidget* parent);

    void reload();
    void reloadDecisions() { missing_->refresh(); }

  private:
    struct MissingRow {
        Holding holding;
        std::string volume;
        bool atHand = true;
        BytePath root;
        BytePath elsewhere;                ///< "VOLUME/path" of another copy, "" for none
        std::optional<ActionKind> waiting; ///< the kind of action that stands on the docket
    };
    void askIds();
    static Result<std::vector<Ribbon>> lookAtFolders(const Catalogue& catalogue);
    static Result<std::vector<MissingRow>> fetchRows(const Catalogue& catalogue,
                                                     std::span<const HoldingId> ids);
    std::vector<HoldingId> selected() const;
    void bringBack();
    void put(const std::vector<HoldingId>& ids, ActionKind kind, const std::string& reason);
    void wait();
    void listMenu(const QPoint& at);

    Workbench& workbench_;
    RibbonChart* ribbons_;
    QLineEdit* text_;
    StandingListBox* lists_;
    IdListModel<MissingRow>* missing_;
    ListView* list_;
    Latest idsAsked_;
    Latest foldersAsked_;
};

} // namespace sober::app
