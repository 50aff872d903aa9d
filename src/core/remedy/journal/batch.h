#pragma once

#include "core/remedy/changes/trash.h"
#include "core/remedy/changes/unflushed.h"
#include "core/remedy/journal/carried_out.h"
#include "core/remedy/journal/doing.h"
#include "core/remedy/journal/following.h"
#include "core/remedy/journal/hooks.h"

#include <map>
#include <set>

namespace sober {

/// Actions of one kind that are carried out together: all are proven, written down, made, and only then
/// changed; their folders are flushed once, and one transaction says that they are done. One that fails is
/// taken back and leaves the others.
class Batch {
  public:
    Batch(DoingContext& context, const CarryOutHooks& hooks, CarriedOut& result, WrittenLists& written)
        : context_(context), ledger_(context.catalogue), hooks_(hooks), result_(result), written_(written) {}

    /// `onFile` hears of each before it is looked at. An Error is the catalogue's: what was begun waits to be
    /// settled then.
    Outcome run(std::span<const PlannedAction* const> actions,
                const std::function<void(const PlannedAction&)>& onFile);

  private:
    void prove(std::span<const PlannedAction* const> actions,
               const std::function<void(const PlannedAction&)>& onFile);
    Outcome writeDown();
    Outcome leadBefore();
    Outcome leadAfter();
    Outcome lead(References when);
    Outcome makeAll();
    static void make(Doing& doing, DoingContext& context);
    void makeBesideEachOther(const std::vector<Doing*>& doings);
    void confirmAll();
    std::optional<Error> whyNoMore(const Doing& doing);
    Outcome noteAll();
    void changeAll();
    void change(Doing& doing);
    Outcome record();
    Outcome giveUpAll();
    Outcome markGivenUp();

    void choosePlaces(Doing& doing);
    /// Which folders will have to be made for what comes to stand somewhere.
    void foreseeFolders(const std::vector<Doing*>& doings);
    Outcome note(Doing& doing);
    void takeLeg(Doing& doing, const Leg& leg);
    /// Those that were not given up.
    std::vector<Doing*> going();

    DoingContext& context_;
    LedgerStore ledger_;
    const CarryOutHooks& hooks_;
    CarriedOut& result_;
    WrittenLists& written_;
    std::vector<Doing> doings_;
    std::optional<Following> following_;
    Unflushed unflushed_;
    std::map<BytePath, Result<Trash>> trashes_; ///< by folder
    std::set<BytePath> notes_;                  ///< that were chosen
    std::set<BytePath> folders_;                ///< that were not there before
};

} // namespace sober
