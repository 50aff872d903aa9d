#include "core/remedy/actions/accept.h"
#include "core/remedy/actions/action_type.h"
#include "core/remedy/actions/clear_folder.h"
#include "core/remedy/actions/copy.h"
#include "core/remedy/actions/discard.h"
#include "core/remedy/actions/encode.h"
#include "core/remedy/actions/mend.h"
#include "core/remedy/actions/move.h"
#include "core/remedy/actions/replace.h"
#include "core/remedy/actions/repoint.h"
#include "core/remedy/actions/retag.h"
#include "core/remedy/actions/retire.h"
#include "core/remedy/actions/rewrite.h"
#include "core/remedy/actions/rip.h"
#include "core/remedy/actions/salvage.h"
#include "core/remedy/actions/write_list.h"
#include "core/remedy/actions/write_off.h"

#include <map>

namespace sober {

const ActionType& typeOf(ActionKind kind) {
    static const std::map<ActionKind, ActionType> table{
        {ActionKind::retire, retireType()},           {ActionKind::writeOff, writeOffType()},
        {ActionKind::accept, acceptType()},           {ActionKind::acceptChange, acceptChangeType()},
        {ActionKind::restore, restoreType()},         {ActionKind::repair, repairType()},
        {ActionKind::rewrite, rewriteType()},         {ActionKind::retag, retagType()},
        {ActionKind::repoint, repointType()},         {ActionKind::move, moveType()},
        {ActionKind::bringBack, bringBackType()},     {ActionKind::copy, copyType()},
        {ActionKind::encode, encodeType()},           {ActionKind::writeList, writeListType()},
        {ActionKind::replaceList, replaceListType()}, {ActionKind::salvage, salvageType()},
        {ActionKind::discard, discardType()},         {ActionKind::rip, ripType()},
        {ActionKind::replace, replaceType()},         {ActionKind::clearFolder, clearFolderType()},
    };
    return table.at(kind);
}

} // namespace sober
