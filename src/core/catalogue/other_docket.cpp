#include "core/catalogue/other_docket.h"

#include "core/catalogue/guarded.h"
#include "core/catalogue/span_text.h"
#include "core/catalogue/volumes.h"

namespace sober {
namespace {

/// Actions that are wholly said by their holding or place, their change and their target.
bool isSaidByItself(const DocketAction& action) {
    return action.holding != 0 ? !isTransfers(action.kind) && action.kind != ActionKind::replace
                               : action.kind == ActionKind::repoint;
}

enum class Known {
    no,
    alike,
    otherwise,
};

/// What this catalogue's docket and ledger say of what the other has decided.
class DecidedHere {
  public:
    explicit DecidedHere(const Catalogue& here)
        : standing_(here.database(), "SELECT kind, target FROM docket WHERE holding = ?"),
          standingPlace_(here.database(), "SELECT target FROM docket WHERE holding IS NULL AND place = ?"),
          reference_(here.database(), "SELECT 1 FROM list_references WHERE path = ? LIMIT 1"),
          done_(here.database(), "SELECT 1 FROM ledger_actions a JOIN ledger l ON l.id = a.entry WHERE "
                                 "a.holding = ? AND a.kind = ? AND a.step = 2 AND l.time >= ?") {}

    Known of(const DocketAction& action) {
        standing_.reset();
        standing_.bind(1, action.holding);
        if (standing_.executeStep()) {
            return standing_.getColumn(0).getString() == word(action.kind) &&
                           bytesOf(standing_.getColumn(1)) == action.target
                       ? Known::alike
                       : Known::otherwise;
        }
        done_.reset();
        done_.bind(1, action.holding);
        done_.bind(2, std::string(word(action.kind)));
        done_.bind(3, action.added);
        return done_.executeStep() ? Known::alike : Known::no;
    }

    /// Of where references lead. One is led elsewhere only while one leads there, as far as the lists were
    /// read.
    Known ofPlace(const DocketAction& action) {
        standingPlace_.reset();
        bindBytes(standingPlace_, 1, action.place);
        if (standingPlace_.executeStep()) {
            return bytesOf(standingPlace_.getColumn(0)) == action.target ? Known::alike : Known::otherwise;
        }
        reference_.reset();
        bindBytes(reference_, 1, action.place);
        return reference_.executeStep() ? Known::no : Known::otherwise;
    }

  private:
    SQLite::Statement standing_;
    SQLite::Statement standingPlace_;
    SQLite::Statement reference_;
    SQLite::Statement done_;
};

} // namespace

Result<OtherDocket> docketOf(const Catalogue& other, const Catalogue& here,
                             const Counterparts& counterparts) {
    auto actions = DocketStore(other).all();
    const auto theirs = Volumes(other).all();
    const auto ours = Volumes(here).all();
    RETURN_IF_FAILED(actions);
    RETURN_IF_FAILED(theirs);
    RETURN_IF_FAILED(ours);
    return guarded(here, [&] {
        OtherDocket docket;
        DecidedHere decided(here);
        for (auto& action : *actions) {
            const auto holding = counterparts.holdings.find(action.holding);
            const bool isOfPlace = action.holding == 0;
            if (!isSaidByItself(action) || (!isOfPlace && holding == counterparts.holdings.end())) {
                ++docket.left;
                continue;
            }
            const bool isNew = !isOfPlace && holding->second == 0;
            action.id = 0;
            action.holding = isOfPlace ? 0 : holding->second;
            action.place = placeHere(action.place, *theirs, *ours, counterparts);
            action.target = placeHere(action.target, *theirs, *ours, counterparts);
            const auto known = isNew ? Known::no : isOfPlace ? decided.ofPlace(action) : decided.of(action);
            docket.known += known == Known::alike ? 1 : 0;
            docket.left += known == Known::otherwise ? 1 : 0;
            if (known == Known::no) {
                docket.taken.push_back(std::move(action));
            }
        }
        return docket;
    });
}

} // namespace sober
