#pragma once

#include "app/charts/transfer_chart.h"
#include "app/desks/condition/steps_row.h"
#include "app/desks/desk.h"
#include "app/desks/transfer/transfer_changes.h"
#include "app/desks/transfer/transfer_form.h"
#include "app/desks/transfer/transfer_sources.h"
#include "core/work/settle_transfer.h"

class QComboBox;
class QTimer;

namespace sober::app {

/// Will it fit, and what will break?
class TransferDesk : public Desk {
    Q_OBJECT

  public:
    explicit TransferDesk(Workbench& workbench);
    /// What was found at another desk comes along.
    void bringAlong(const QString& name, const HoldingFilter& filter);

  protected:
    void reload() override;
    void reloadDecisions() override { reload(); }

  private:
    /// A transfer that was kept, as it stands.
    struct Kept {
        SettledTransfer settled;
        std::shared_ptr<const TransferParts> parts;
        std::vector<TransferChart::Place> places;
        std::uint64_t arrived = 0; ///< bytes
    };
    static Result<std::vector<Transfer>> transfers(const Catalogue& catalogue);
    static Result<Kept> look(const Catalogue& catalogue, TransferId id);
    void buildUpper();
    void buildButtons();
    void takeTransfers(const std::vector<Transfer>& transfers);
    void chooseTransfer();
    void beginNew();
    void planSoon();
    void takePlan(std::shared_ptr<const TransferPlan> plan);
    void takeKept(const Kept& kept);
    void showSteps(std::optional<TransferState> state);
    void followWork();
    void run();
    void prove();
    void release();
    void takeProof(const TransferProof& proof);

    QWidget* choosing_ = nullptr; ///< what, where to and how, of a new one
    TransferSources* sources_;
    TransferForm* form_;
    TransferChart* chart_;
    TransferChanges* changes_;
    QComboBox* box_;
    QLabel* figures_;
    StepsRow* steps_;
    QPushButton* unlisted_;
    QPushButton* keepers_;
    QPushButton* keep_;
    QPushButton* run_;
    QPushButton* prove_;
    QPushButton* release_;
    QPushButton* rest_;
    QPushButton* report_;
    QPushButton* forget_;
    QTimer* soon_;
    std::vector<TransferId> ids_; ///< as the box shows them after "a new one"
    TransferId current_ = 0;
    bool showNewest_ = false;
    std::shared_ptr<const TransferPlan> plan_;
    std::optional<Transfer> kept_;
    unsigned asked_ = 0;
};

} // namespace sober::app
