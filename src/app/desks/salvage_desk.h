#pragma once

#include "app/charts/salvage_strip.h"
#include "app/desks/desk.h"
#include "app/lists/id_list_model.h"
#include "app/lists/list_view.h"
#include "core/salvage/recogniser.h"
#include "core/work/take_finds.h"

#include <map>

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
    struct FindRow {
        Find find;
        KnownFind known;
        bool waits = false; ///< it stands on the docket
    };
    /// What is chosen of what was found.
    struct Narrowing {
        int standing = 0; ///< 0: all; else one more than FindStanding
        int whole = 0;    ///< 0: all, 1: whole, 2: not whole
        std::string format;
        bool isTogether = true; ///< what sounds or is called the same is one line
    };
    struct Seen {
        std::vector<SalvageSource> images;
        std::optional<SalvageSource> source;
        SalvageStrip::Band band;
        std::vector<FindId> ids;
        std::vector<std::string> formats;
        std::map<FindId, std::size_t> alike; ///< of a line that stands for several: how many more there are
        BytePath near;                       ///< a folder near which images may lie
    };
    static Result<Seen> look(const Catalogue& catalogue, const BytePath& source, const Narrowing& narrowing);
    static Result<std::vector<FindRow>> fetchRows(const Catalogue& catalogue,
                                                  std::span<const std::int64_t> ids);

    void buildHeading();
    void buildTools();
    void buildRows();
    void show(const Seen& seen);
    void showSources(const Seen& seen);
    Narrowing narrowing() const;
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
    TakeRequest takeRequest_; ///< that was asked for last
    unsigned asked_ = 0;
    bool filling_ = false; ///< the boxes, not a person
};

} // namespace sober::app
