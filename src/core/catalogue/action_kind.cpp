#include "core/catalogue/action_kind.h"

#include <algorithm>

namespace sober {
namespace {

struct Words {
    ActionKind kind;
    std::string_view word;
    std::string_view past;
    std::string_view premisEvent;
};

constexpr std::array<Words, everyKind.size()> table{{
    {ActionKind::retire, "retire", "retired", "deaccession"},
    {ActionKind::writeOff, "write-off", "written off", "deaccession"},
    {ActionKind::accept, "accept", "accepted", "quality review"},
    {ActionKind::acceptChange, "accept-change", "accepted as it is", "quality review"},
    {ActionKind::restore, "restore", "restored", "recovery"},
    {ActionKind::repair, "repair", "repaired", "recovery"},
    {ActionKind::rewrite, "rewrite", "written anew", "modification"},
    {ActionKind::retag, "retag", "given its tags", "metadata modification"},
    {ActionKind::repoint, "repoint", "changed as decided", "metadata modification"},
    {ActionKind::move, "move", "moved", "transfer"},
    {ActionKind::bringBack, "bring-back", "brought back", "recovery"},
    {ActionKind::copy, "copy", "copied", "replication"},
    {ActionKind::encode, "encode", "written in another form", "migration"},
    {ActionKind::writeList, "write-list", "written", "creation"},
    {ActionKind::replaceList, "replace-list", "written anew", "modification"},
    {ActionKind::salvage, "salvage", "salvaged", "recovery"},
    {ActionKind::discard, "discard", "let go of", "deletion"},
    {ActionKind::rip, "rip", "taken from its disc", "capture"},
    {ActionKind::replace, "replace", "replaced", "modification"},
    {ActionKind::clearFolder, "clear-folder", "cleared away", "deletion"},
}};

const Words& wordsOf(ActionKind kind) {
    return *std::ranges::find(table, kind, &Words::kind);
}

} // namespace

std::string_view word(ActionKind kind) {
    return wordsOf(kind).word;
}

std::optional<ActionKind> actionKindOf(std::string_view word) {
    const auto* const found = std::ranges::find(table, word, &Words::word);
    return found != table.end() ? std::optional(found->kind) : std::nullopt;
}

std::string_view pastOf(ActionKind kind) {
    return wordsOf(kind).past;
}

std::string_view premisEventOf(ActionKind kind) {
    return wordsOf(kind).premisEvent;
}

} // namespace sober
