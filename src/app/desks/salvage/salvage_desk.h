#pragma once

#include "app/desks/desk.h"
#include "app/desks/salvage/salvage_rows.h"
#include "app/lists/id_list_model.h"
#include "app/lists/list_view.h"
#include "core/work/take_finds.h"

class QCheckBox;
class QComboBox;
class QPushButton;

namespace sober::app {

class FindEvidence;

/// What can be had back: out of the trash of all that is at hand, of images and of drives.
class SalvageDesk : public Desk {
    Q_OBJECT

  public:
    explicit SalvageDesk(Workbench& workbench);

    /// Looks through an image, or goes on with it.
    void scan(const BytePath& image);

  protected:
    void reload() override;
    void reloadDecisions() override { finds_->refresh(); }

  private:
    void buildHeading();
    void buildTools();
    void buildRows();
    void show(const SalvageSeen& seen);
    void showSources(const SalvageSeen& seen);
    FindNarrowing narrowing() const;
    void askForImage();
    void askToMakeImage();
    void askToWriteImage();
    void showBytes();
    void showImaging(const ImageMap& map);
    void again();
    void take(bool home);
    void askForLayout(const BytePath& to);
    void askAboutTaken(const std::vector<PlannedTake>& planned);
    void leave();
    void tidy();
    void forget();
    void warnOfDrive();
    void sayTaken(const std::vector<PlannedTake>& planned);
    std::vector<FindId> selected() const;
    void showChosen();

    QComboBox* sources_;
    QPushButton* forget_ = nullptr;
    QComboBox* kinds_;
    QCheckBox* everywhere_;
    SalvageStrip* strip_;
    QComboBox* standing_;
    QComboBox* whole_;
    QComboBox* format_;
    QCheckBox* together_;
    IdListModel<FindRow>* finds_;
    ListView* list_;
    FindEvidence* evidence_;
    BytePath image_; ///< that is shown; "" is the trash
    BytePath near_;  ///< the folder that is shown first when one is asked for
    std::map<FindId, std::size_t> alike_;
    std::map<FindId, FindId> shownBy_;
    TakeRequest takeRequest_; ///< that was asked for last
    Latest asked_;
    bool filling_ = false; ///< the boxes, not a person
};

} // namespace sober::app
