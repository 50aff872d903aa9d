#pragma once

#include "core/work/run_transfer.h"
#include "support/player_collection.h"

#include <map>
#include <string>

namespace sober::test {

/// A volume, two players' lists, and an action of one kind that waits on the docket. Everything that can fail
/// lies below its folder, the trash too.
class FaultScene : public PlayerCollection {
  public:
    FaultScene(ActionKind kind, bool listed);

    ActionKind kind() const { return kind_; }
    /// What is said to the command to have it done: to the docket, or to a transfer.
    std::vector<std::string> words() const;
    /// Does what is left of it, without faults.
    CarriedOut doTheRest();
    /// Takes back all that was done of it.
    /// What is done cannot be taken back.
    bool isForGood() const { return kind_ == ActionKind::discard; }
    void undoAll();
    /// As `sober` is called: what of the scene is carried out or taken back fails as the plan says. `counts`,
    /// where not empty, is where the calls are counted instead.
    struct Plan {
        std::string call;
        std::uint64_t nth = 0;
        std::string how;
        bool isKill() const { return how.starts_with("kill"); }
    };
    struct Said {
        int code = 0;
        std::string err;
    };
    Said say(const std::vector<std::string>& words, const Plan& plan);
    std::map<std::string, std::uint64_t> countCalls(const std::vector<std::string>& words);

    /// The files of the volume and the lists, by path.
    std::map<BytePath, std::string> contents() const;
    /// Every content that was there at first is there as often, on the volume or in the trash.
    std::string whyContentLost() const;
    /// Every entry of the lists leads to a file with what it led to at first, or to what that became.
    std::string whyReferenceLost() const;
    /// What must hold whenever nothing is going on; the first that does not, else "".
    std::string whyNotWhole();

    /// To be said once it was carried out without a fault.
    void noteFinal() { final_ = contents(), finalLeads_ = leads(); }
    const std::map<BytePath, std::string>& original() const { return original_; }
    const std::map<BytePath, std::string>& final() const { return final_; }

  private:
    void prepare();
    void prepareMissing(bool copyStays);
    void planTransfer();
    void planSalvage();
    void planDiscard();
    void planReplace();
    void planRip();
    void putKindOnDocket(ActionKind kind, const std::vector<BytePath>& names);
    /// The content at which each entry of each list leads, in their order; "" for nowhere.
    std::vector<std::string> leads() const;
    BytePath trash() const { return *this / "home/data/Trash"; }

    ActionKind kind_;
    bool listed_;
    TransferId transfer_ = 0;           ///< of what is a transfer's
    std::optional<EntryId> preparedBy_; ///< the last entry that belongs to the preparation
    std::map<BytePath, std::string> original_;
    std::map<BytePath, std::string> final_;
    std::vector<std::string> originalLeads_;
    std::vector<std::string> finalLeads_;
};

} // namespace sober::test
