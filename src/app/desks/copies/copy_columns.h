#pragma once

#include "app/lists/list_view.h"
#include "app/lists/row_list_model.h"
#include "core/audit/set_choice.h"

#include <QCoreApplication>

namespace sober::app {

/// A copy set in the list of them.
struct SetRow {
    CopySet set;
    std::string name;
    SetDecision decision;
};

/// A member of the set that is looked at.
struct MemberRow {
    std::size_t at = 0;
    std::shared_ptr<const SetDetail> detail;
    std::string volume;
    bool atHand = true;
    BytePath root;

    const Holding& holding() const { return detail->members[at]; }
    /// Absolute.
    BytePath path() const { return joinPath(root, holding().path); }
};

/// What the two lists of the desk say in their columns.
class CopyColumns {
    Q_DECLARE_TR_FUNCTIONS(CopyColumns)

  public:
    static std::vector<Column<SetRow>> ofSets();
    static std::vector<Column<MemberRow>> ofMembers();
    /// The rows of sets, in their order.
    static Result<std::vector<SetRow>> rowsOf(const Catalogue& catalogue, std::span<const SetId> ids);
};

} // namespace sober::app
