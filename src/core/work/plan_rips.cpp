#include "core/work/plan_rips.h"

#include "core/base/presence.h"
#include "core/base/times.h"
#include "core/catalogue/docket_store.h"
#include "core/disc/cue_sheet.h"
#include "core/disc/disc_tags.h"
#include "core/transfer/filing.h"
#include "core/work/become_volume.h"

#include <algorithm>
#include <set>

namespace sober {
namespace {

constexpr const char* ripLayout = "albumartist|artist / album / disc \"-\" track.2 \" \" title";
constexpr const char* sheetStem = "disc";
constexpr const char* reportStem = "how it was read";

class RipPlanner {
  public:
    RipPlanner(Catalogue& catalogue, const RipPlan& plan, std::vector<MadeRip>& made, DiscRead& read,
               RunControl& control)
        : catalogue_(catalogue), plan_(plan), made_(made), read_(read), control_(control) {}

    Outcome run() {
        const auto placed = place();
        return placed ? putOnDocket() : placed;
    }

  private:
    /// Several forms get a folder each, so that no player meets a recording twice.
    Outcome place() {
        const auto target = placeOnVolume(catalogue_, plan_.to, control_);
        const auto layout = Layout::named(plan_.layout.empty() ? ripLayout : plan_.layout);
        if (!target || !layout) {
            return target ? layout.error() : target.error();
        }
        std::vector<Holding> holdings;
        for (const auto& each : made_) {
            holdings.push_back(holdingOfTrack(read_.disc, each.track));
        }
        auto known = holdings;
        if (read_.disc.names.disc > 0 && (read_.disc.names.discs > 1 || read_.disc.names.disc > 1) &&
            !known.empty()) {
            known.push_back(known.front()); // the other discs of the set count, too
            known.back().filing.disc = "another";
        }
        const Filing filing(known);
        const auto replacements = usualReplacements();
        std::vector<TargetName> names;
        for (std::size_t i = 0; i < made_.size(); ++i) {
            auto filed = filing.nameFor(holdings[i], holdings[i].path, *layout, *target->rules, replacements);
            const auto form = std::ranges::find(plan_.forms, made_[i].form, &RipForm::words);
            filed.name.ending = endingOf(form->form);
            filed.name.folder =
                plan_.forms.size() > 1 ? joinPath(form->name, filed.name.folder) : filed.name.folder;
            names.push_back(std::move(filed.name));
        }
        fitAll(*target->rules, replacements, names, [&](const BytePath& path, std::size_t /*which*/) {
            return presenceOf(joinPath(target->folder, path)) != Presence::gone;
        });
        for (std::size_t i = 0; i < made_.size(); ++i) {
            made_[i].place = joinPath(target->folder, pathOf(names[i]));
            for (auto& track : read_.disc.tracks) {
                if (track.number == made_[i].track || made_[i].track == wholeDisc) {
                    track.files.push_back(made_[i].place);
                }
            }
        }
        return done();
    }

    DocketAction actionFor(ActionKind kind, const BytePath& place, std::string change) {
        DocketAction action;
        action.kind = kind;
        action.reason = "disc " + (read_.disc.names.title.empty() ? read_.disc.id : read_.disc.names.title);
        action.added = timeNow();
        action.place = place;
        action.target = place;
        action.change = std::move(change);
        read_.places.push_back(place);
        return action;
    }

    Outcome putOnDocket() {
        std::vector<DocketAction> actions;
        for (const auto& each : made_) {
            actions.push_back(actionFor(ActionKind::rip, each.place, packRippedFile(each.file)));
        }
        for (const auto& form : plan_.forms) {
            if (const auto first = std::ranges::find(made_, form.words, &MadeRip::form);
                first != made_.end()) {
                const BytePath folder(parentOf(first->place));
                actions.push_back(actionFor(
                    ActionKind::writeList, freeName(folder, sheetStem, ".cue"),
                    sheetOfRips(read_.disc, form, made_,
                                first->track == wholeDisc ? std::string(nameOf(first->place)) : std::string(),
                                plan_.begins)));
            }
        }
        if (!made_.empty()) {
            const BytePath folder(parentOf(made_.front().place));
            read_.report = freeName(folder, reportStem, ".txt");
            actions.push_back(actionFor(ActionKind::writeList, read_.report, reportText(read_.disc)));
            actions.push_back(actionFor(ActionKind::writeList, freeName(folder, reportStem, ".json"),
                                        reportJson(read_.disc)));
        }
        const auto replaced = takeEarlierOff();
        return replaced ? DocketStore(catalogue_).add(actions) : replaced;
    }

    /// What an earlier reading of this disc has put on the docket was made anew, under other names perhaps.
    Outcome takeEarlierOff() {
        const DocketStore docket(catalogue_);
        const auto waiting = docket.all();
        RETURN_IF_FAILED(waiting);
        std::set<BytePath> folders;
        std::vector<ActionId> earlier;
        for (const auto& action : *waiting) {
            const auto ripped =
                action.kind == ActionKind::rip ? unpackRippedFile(action.change) : std::nullopt;
            if (ripped && isWithin(ripped->file, plan_.spool)) {
                folders.insert(BytePath(parentOf(action.place)));
                earlier.push_back(action.id);
            }
        }
        for (const auto& action : *waiting) {
            const auto name = nameOf(action.place);
            const bool isOurs = name.starts_with(sheetStem) || name.starts_with(reportStem);
            if (action.kind == ActionKind::writeList && isOurs &&
                folders.contains(BytePath(parentOf(action.place)))) {
                earlier.push_back(action.id);
            }
        }
        const auto removed = docket.removeActions(earlier);
        return removed ? done() : Outcome(removed.error());
    }

    /// "disc 2.cue" where "disc.cue" is taken.
    static BytePath freeName(const BytePath& folder, const std::string& stem, const std::string& ending) {
        for (int number = 1;; ++number) {
            auto path = joinPath(folder, stem + (number == 1 ? "" : " " + std::to_string(number)) + ending);
            if (presenceOf(path) != Presence::there) {
                return path;
            }
        }
    }

    Catalogue& catalogue_;
    const RipPlan& plan_;
    std::vector<MadeRip>& made_;
    DiscRead& read_;
    RunControl& control_;
};

} // namespace

Result<std::vector<RipForm>> ripFormsFrom(const std::vector<std::string>& said) {
    std::vector<RipForm> forms;
    for (const auto& each : said) {
        const auto* const preset = std::ranges::find(discPresets, each, &DiscPreset::name);
        const std::string words = preset != std::end(discPresets) ? preset->form : each;
        const auto form = encodingFormFrom(words);
        RETURN_IF_FAILED(form);
        if (std::ranges::find(forms, words, &RipForm::words) != forms.end()) {
            continue;
        }
        auto name = words;
        std::ranges::replace(name, ':', ' ');
        std::ranges::replace(name, '/', ' ');
        std::erase(name, '%');
        forms.push_back({words, *form, std::move(name)});
    }
    return forms.empty()
               ? Result<std::vector<RipForm>>(Error{Cause::invalid, {}, "Say in which form, as flac."})
               : Result(std::move(forms));
}

std::string sheetOfRips(const RippedDisc& disc, const RipForm& form, std::span<const MadeRip> made,
                        const std::string& whole, int begins) {
    std::vector<CueTrack> tracks;
    for (const auto& track : disc.tracks) {
        const auto file = std::ranges::find_if(
            made, [&](const MadeRip& each) { return each.form == form.words && each.track == track.number; });
        const auto place = std::ranges::find(disc.contents.tracks, track.number, &DiscTrack::number);
        const bool isLossless = form.form.isLossless();
        if (!whole.empty() && place != disc.contents.tracks.end()) {
            tracks.push_back({track.number, whole, isLossless, place->firstSector - begins});
        } else if (whole.empty() && file != made.end()) {
            tracks.push_back({track.number, std::string(nameOf(file->place)), isLossless, 0});
        }
    }
    return cueSheet(disc.contents, disc.names, tracks);
}

Outcome planRips(Catalogue& catalogue, const RipPlan& plan, std::vector<MadeRip>& made, DiscRead& read,
                 RunControl& control) {
    return RipPlanner(catalogue, plan, made, read, control).run();
}

} // namespace sober
