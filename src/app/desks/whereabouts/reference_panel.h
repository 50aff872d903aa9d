#pragma once

#include "app/desks/desk.h"
#include "app/lists/id_list_model.h"
#include "app/lists/list_view.h"
#include "app/lists/row_list_model.h"
#include "core/audit/reference_findings.h"
#include "core/catalogue/holdings.h"

namespace sober::app {

/// References that work today and will not last, or lead to the wrong copy; and the holdings that no list
/// knows.
class ReferencePanel : public QWidget {
    Q_OBJECT

  public:
    ReferencePanel(Workbench& workbench, QWidget* parent);

    void reload();
    void reloadDecisions() { reload(); }

  private:
    struct Row {
        TroubledReference troubled;
        std::string list;
        bool waits = false; ///< on the docket already
    };
    struct Unheard {
        Holding holding;
        std::string volume;
        BytePath root;
    };
    struct Seen {
        std::vector<Row> rows;
        std::vector<HoldingId> unheard;
    };
    static Result<Seen> look(const Catalogue& catalogue);
    static Result<std::vector<Unheard>> fetch(const Catalogue& catalogue, std::span<const HoldingId> ids);
    void repoint();
    void editPlaces();

    Workbench& workbench_;
    QLabel* count_;
    RowListModel<Row>* troubled_;
    ListView* troubledList_;
    IdListModel<Unheard>* unheard_;
    ListView* unheardList_;
};

} // namespace sober::app
