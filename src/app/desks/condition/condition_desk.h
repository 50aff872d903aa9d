#pragma once

#include "app/charts/band_chart.h"
#include "app/desks/desk.h"
#include "app/lists/list_view.h"
#include "app/lists/row_list_model.h"
#include "core/audit/condition.h"

class QComboBox;
class QScrollArea;

namespace sober::app {

class FigureRow;

/// How is the collection, what first?
class ConditionDesk : public Desk {
    Q_OBJECT

  public:
    explicit ConditionDesk(Workbench& workbench);

  signals:
    void copiesWanted(const QString& text);
    void whereaboutsWanted();
    void fixityWanted();
    void claimsWanted(const QString& list);
    void replacementWanted();
    void examinationWanted(); ///< of everything at hand, at full effort
    void surveyWanted();

  protected:
    void reload() override;

  private:
    /// A line of what the last surveys met: a change or something that could not be read.
    struct Note {
        std::string kind;
        std::string sentence;
        BytePath path;
    };
    struct Seen {
        Condition condition;
        std::vector<Band> bands;
        std::vector<Note> notes;
        std::vector<std::pair<std::string, std::uint64_t>> lists; ///< standing lists and what they hold
    };
    static Result<Seen> look(const Catalogue& catalogue);
    void show(const Seen& seen);
    void showSteps(const Condition& condition);
    void showLists(const Seen& seen);
    QPushButton* leftButton(const QString& text);
    void showNotes();
    static Mark markOfNote(const Note& note);

    BandChart* bands_;
    QScrollArea* bandArea_;
    FigureRow* figures_;
    QVBoxLayout* steps_;
    QVBoxLayout* lists_;
    QComboBox* noteKind_;
    RowListModel<Note>* notes_;
    ListView* noteList_;
    std::vector<Note> allNotes_;
};

} // namespace sober::app
