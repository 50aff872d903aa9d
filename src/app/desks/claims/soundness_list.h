#pragma once

#include "app/lists/id_list_model.h"
#include "app/lists/list_view.h"
#include "core/catalogue/holdings.h"
#include "core/evidence/evidence.h"

#include <QWidget>

namespace sober::app {

/// Holdings that were never sound, or of which something odd was remarked: what, and at which second.
class SoundnessList : public QWidget {
    Q_OBJECT

  public:
    SoundnessList(Workbench& workbench, QWidget* parent);

    void setIds(std::vector<HoldingId> ids);
    /// Fetches what is shown anew: the docket may be another.
    void refresh() { model_->refresh(); }
    /// All that was found of the current one, a line each.
    QString currentText() const;
    std::vector<HoldingId> selected() const;
    /// Of the selected, those of which junk can be left out.
    std::vector<HoldingId> rewritable() const;

  signals:
    void currentChanged();

  private:
    struct Row {
        Holding holding;
        Evidence evidence;
        std::string volume;
        BytePath path; ///< absolute
        bool atHand = true;
        std::optional<ActionKind> waiting; ///< the kind of action that stands on the docket
    };
    static Result<std::vector<Row>> fetchRows(const Catalogue& catalogue, std::span<const HoldingId> ids);
    static std::vector<Column<Row>> columns();

    IdListModel<Row>* model_;
    ListView* list_;
};

} // namespace sober::app
