#pragma once

#include "app/workbench.h"
#include "core/catalogue/browse.h"
#include "core/catalogue/records.h"

#include <QTreeView>

#include <map>
#include <set>

class QStandardItem;
class QStandardItemModel;

namespace sober::app {

/// A volume or a folder of one; none for everything.
struct Place {
    std::optional<VolumeId> volume;
    BytePath folder; ///< relative to the volume's root

    auto operator<=>(const Place&) const = default;
};

/// Every volume, at hand or away, as its folders with what they hold; a folder is looked into when it is
/// opened.
class PlaceTree : public QTreeView {
    Q_OBJECT

  public:
    PlaceTree(Workbench& workbench, QWidget* parent);

    /// Asks anew; what is open and chosen stays so where it is still there.
    void reload();
    const Place& chosen() const { return chosen_; }
    /// " in VOLUME/folder", or nothing where that is everything.
    QString chosenWords() const;
    /// Chooses a place, whether the tree has it open or not.
    void choose(const Place& place);

  signals:
    void placeChosen();
    void reloaded(); ///< the volumes are known by their labels
    /// Something was dropped on a volume or folder.
    void holdingsDropped(const std::vector<sober::HoldingId>& holdings, const sober::app::Place& into);
    void folderDropped(const sober::app::Place& folder, const sober::app::Place& into);

  protected:
    void startDrag(Qt::DropActions actions) override;
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dragMoveEvent(QDragMoveEvent* event) override;
    void dropEvent(QDropEvent* event) override;

  private:
    struct Seen;
    static Result<Seen> look(const Catalogue& catalogue);
    void fitFigures();
    void take(const Seen& seen);
    void fill(QStandardItem* parent, const Place& place);
    void takeFolders(const Place& place, const Browsed& browsed);
    void showChosen();
    /// What lies under a point; nothing for everything, or for what can not be told.
    std::optional<Place> placeAt(const QPoint& point) const;
    QStandardItem* itemOf(const Place& place) const;

    Workbench& workbench_;
    QStandardItemModel* model_;
    std::map<VolumeId, std::string> labels_;
    Place chosen_;
    std::set<Place> open_;
    bool filling_ = false;
    Latest asked_;
};

} // namespace sober::app
