#include "core/remedy/journal/current_places.h"

#include "core/base/text.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/volumes.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>

namespace sober {
namespace {

/// The top folder of the file system whose own trash holds `aside`; nothing for the home trash.
std::optional<BytePath> topOfTrash(const BytePath& aside) {
    const auto trash = aside.find("/.Trash");
    return trash != BytePath::npos ? std::optional(aside.substr(0, trash)) : std::nullopt;
}

/// Where the top folder is now, if the volume's root went from `before` to `now` along with it.
std::optional<BytePath> movedTop(const BytePath& top, const BytePath& before, const BytePath& now) {
    const auto rootBelowTop = relativeTo(before, top);
    if (!rootBelowTop) {
        return std::nullopt;
    }
    if (rootBelowTop->empty()) {
        return now;
    }
    const BytePath ending = "/" + *rootBelowTop;
    return now.ends_with(ending) ? std::optional(now.substr(0, now.size() - ending.size())) : std::nullopt;
}

} // namespace

std::string waitingSentence(const PlacedAction& placed) {
    const auto& action = placed.action;
    return !placed.atHand
               ? fmt::format("{} waits to be settled: {} is away.", displayPath(action.place), placed.volume)
           : !action.waits.empty()
               ? action.waits
               : displayPath(action.place) + " waits to be settled; the next work here does that.";
}

void followRoot(LedgerAction& action, const BytePath& before, const BytePath& now) {
    const auto follow = [&](BytePath& path) {
        const auto within = path.empty() ? std::nullopt : relativeTo(path, before);
        path = within ? joinPath(now, *within) : path;
    };
    follow(action.place);
    follow(action.made);
    if (action.kind == ActionKind::replace) {
        follow(action.stays);
    }
    if (const auto top = topOfTrash(action.aside)) {
        if (const auto topNow = movedTop(*top, before, now)) {
            action.aside = *topNow + action.aside.substr(top->size());
            action.note = *topNow + action.note.substr(top->size());
        }
    }
}

Result<PlacedAction> asPlacedNow(const Catalogue& catalogue, LedgerAction action) {
    const auto volumes = Volumes(catalogue).all();
    const auto holdings = Holdings(catalogue).byIds(std::array{action.holding});
    if (!volumes || !holdings) {
        return volumes ? holdings.error() : volumes.error();
    }
    PlacedAction placed{std::move(action), true, {}};
    if (holdings->empty()) {
        return placed;
    }
    const auto& holding = holdings->front();
    const auto volume = std::ranges::find(*volumes, holding.volume, &Volume::id);
    const BytePath ending = "/" + holding.path;
    auto& here = placed.action;
    // Its other place may end alike: a file that went up a folder and kept its name.
    const bool went = here.step == ActionStep::carriedOut || here.step == ActionStep::undoStarted;
    const auto& likelier = went ? standsAt(here) : here.place;
    const auto& known = likelier.ends_with(ending) ? likelier : went ? here.place : standsAt(here);
    placed.forgotten = holding.state == HoldingState::forgotten;
    if (volume == volumes->end() || !known.ends_with(ending)) {
        return placed;
    }
    placed.atHand = volume->reaches(holding.path);
    placed.volume = volume->label;
    const BytePath rootBefore = known.substr(0, known.size() - ending.size());
    if (!placed.atHand || rootBefore == volume->root) {
        return placed;
    }
    followRoot(here, rootBefore, volume->root);
    return placed;
}

} // namespace sober
