#pragma once

#include "app/lists/list_view.h"
#include "app/lists/row_list_model.h"
#include "app/workbench.h"

namespace sober::app {

/// What can come along: players with their lists, volumes, standing lists, and what was found. Space takes
/// one in or out.
class TransferSources : public QWidget {
    Q_OBJECT

  public:
    TransferSources(Workbench& workbench, QWidget* parent);
    void reload();
    const TransferChoice& choice() const { return choice_; }
    /// What was found at another desk comes along too.
    void takeFound(const QString& name, const HoldingFilter& filter);
    void setUnlisted(bool too);
    bool andUnlisted() const { return choice_.andUnlisted; }
    void setKeepersOnly(bool only);
    QSize sizeHint() const override { return {330, 190}; }

  signals:
    void choiceChanged();

  private:
    enum class Kind { player, list, volume, standing, found };
    struct Source {
        Kind kind = Kind::player;
        std::string key; ///< that tells it from others
        QString name;
        QString what;
        PlayerId player = 0;
        VolumeId volume = 0;
        BytePath list;
        HoldingFilter filter;
        bool chosen = false;
    };
    static Result<std::vector<Source>> look(const Catalogue& catalogue);
    void take(std::vector<Source> sources);
    void toggle();
    void choose();

    Workbench& workbench_;
    RowListModel<Source>* rows_;
    ListView* list_;
    std::vector<Source> found_;
    TransferChoice choice_;
};

} // namespace sober::app
