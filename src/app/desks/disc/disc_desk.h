#pragma once

#include "app/desks/desk.h"
#include "app/desks/disc/disc_rows.h"
#include "app/lists/list_view.h"
#include "app/lists/row_list_model.h"

class QAction;
class QComboBox;
class QLabel;
class QPushButton;

namespace sober::app {

class DiscBand;
class ListeningBar;

/// A disc in a tray: what it is, how well it is read, what is written of it. A page of Intake.
class DiscDesk : public Desk {
    Q_OBJECT

  public:
    explicit DiscDesk(Workbench& workbench);
    /// A drive, or the cue sheet of an image.
    void setDisc(const BytePath& disc);
    void setTarget(const BytePath& folder);

  signals:
    void arrivalsWanted();
    /// What could be better of an album, now that it was read.
    void replacementWanted(const QString& text);

  protected:
    void reload() override {}

  private:
    /// What is known of the disc, and the services that were set up.
    struct Look {
        DiscLook look;
        std::string ripRegister;
        std::string lookup;
        BytePath into; ///< where arrivals are filed: offered as the place
    };

    void buildHeading();
    void buildChoices();
    void buildRows();
    void buildEvidence();
    void look();
    void show(const Look& look);
    void showNames();
    void showChosen();
    void take(const RippedTrack& track);
    void ended(const DiscRead& read);
    void read();
    void askForServices();
    void editNames();
    void sayForms();
    std::vector<std::string> chosenForms() const;

    DiscBand* band_;
    QLabel* about_ = nullptr;
    QComboBox* names_ = nullptr;
    QPushButton* forms_ = nullptr;
    QPushButton* into_ = nullptr;
    QLabel* formNames_ = nullptr;
    QLabel* intoName_ = nullptr;
    std::vector<QAction*> formActions_;
    QAction* oneFile_ = nullptr;
    QAction* plainTags_ = nullptr;
    RowListModel<DiscLine>* rows_ = nullptr;
    ListView* list_ = nullptr;
    QLabel* title_ = nullptr;
    QLabel* evidence_ = nullptr;
    ListeningBar* listening_ = nullptr;
    BytePath disc_;
    BytePath target_;
    std::optional<Look> look_;
    std::vector<DiscNames> choices_;
    bool areNamesChosen_ = false; ///< by somebody, and not offered alone
};

} // namespace sober::app
