#pragma once

#include "app/charts/hits_chart.h"
#include "app/desks/desk.h"
#include "app/desks/find/found_panel.h"
#include "app/desks/find/found_rows.h"
#include "app/desks/find/place_tree.h"
#include "app/desks/narrowing_row.h"
#include "app/lists/id_list_model.h"
#include "app/lists/list_view.h"

namespace sober::app {

class StandingListBox;

/// Where is it, and what is there?
class FindDesk : public Desk {
    Q_OBJECT

  public:
    explicit FindDesk(Workbench& workbench);

    void beginTyping() { asked_->beginTyping(); }

  signals:
    /// What is asked for now is to come along to another place.
    void transferWanted(const QString& name, const sober::HoldingFilter& filter);

  protected:
    void reload() override;
    void reloadDecisions() override;

  private:
    struct Ground {
        std::vector<Volume> volumes;
        std::vector<std::pair<VolumeId, std::vector<FolderFigures>>> folders;
        std::vector<std::string> codecs;
    };
    static Result<Ground> look(const Catalogue& catalogue);
    void buildLists();
    void buildButtons();
    void buildDragging();
    /// What is asked for now; nothing where a span cannot be understood.
    std::optional<HoldingFilter> filter() const;
    void search();
    void takeFirst(const std::vector<HoldingId>& first);
    void take(std::shared_ptr<const SearchResult> result);
    void showIds(const std::vector<HoldingId>& ids);
    void drawHits();
    void askDetail();
    void editTags();
    std::vector<HoldingId> selected() const;
    void retire();
    void move();
    /// Puts the move of holdings, or of a folder, on the docket; of one under another name where that is
    /// given.
    void planMoves(const std::vector<HoldingId>& holdings, const Place& into,
                   const std::optional<BytePath>& name);
    void planFolderMove(const Place& folder, const Place& into, const std::optional<BytePath>& name);
    void keepList();

    NarrowingRow* asked_;
    StandingListBox* lists_;
    PlaceTree* tree_;
    HitsChart* hits_;
    QLabel* count_;
    IdListModel<FoundRow>* rows_;
    ListView* list_;
    FoundPanel* panel_;
    Ground ground_;
    std::shared_ptr<const SearchResult> result_;
    HoldingId shown_ = 0; ///< in the panel
    unsigned groundAsked_ = 0;
    unsigned detailAsked_ = 0;
};

} // namespace sober::app
