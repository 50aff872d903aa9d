#include "core/intake/tag_table.h"

#include "core/base/text.h"

#include <algorithm>
#include <charconv>

namespace sober {
namespace {

std::string joined(const std::vector<std::string>& values) {
    std::string text;
    for (const auto& value : values) {
        text += (text.empty() ? "" : std::string(TagTable::between)) + value;
    }
    return text;
}

std::vector<std::string> parted(std::string_view text, std::string_view by) {
    std::vector<std::string> parts;
    for (std::size_t at = 0; at <= text.size();) {
        const auto end = std::min(text.find(by, at), text.size());
        parts.emplace_back(text.substr(at, end - at));
        at = end + by.size();
    }
    return parts;
}

std::size_t fieldNumber(std::string_view name) {
    return static_cast<std::size_t>(std::ranges::find(TagTable::fields, name) - TagTable::fields.begin());
}

} // namespace

TagTable::TagTable(std::vector<TaggedFile> files, std::vector<std::vector<TagProposal>> proposals)
    : files_(std::move(files)), proposals_(std::move(proposals)) {
    proposals_.resize(files_.size());
}

std::string TagTable::textBefore(const Cell& cell) const {
    const auto& all = files_[cell.row].tags.fields;
    const auto found = all.find(std::string(fields[cell.field]));
    return found != all.end() ? joined(found->second) : std::string();
}

std::string TagTable::textAt(const Cell& cell) const {
    const auto found = edited_.find(cell);
    return found != edited_.end() ? found->second : textBefore(cell);
}

const TagProposal* TagTable::proposalFor(const Cell& cell) const {
    const auto found = std::ranges::find(proposals_[cell.row], fields[cell.field], &TagProposal::field);
    return found != proposals_[cell.row].end() && found->shall != textAt(cell) ? &*found : nullptr;
}

void TagTable::write(const Cell& cell, const std::string& text) {
    if (text == textBefore(cell)) {
        edited_.erase(cell);
    } else {
        edited_[cell] = text;
    }
}

void TagTable::apply(Step step) {
    std::erase_if(step.cells, [](const auto& each) { return std::get<1>(each) == std::get<2>(each); });
    std::erase_if(step.pictures, [&](std::size_t row) { return pictures_.contains(row); });
    if (step.cells.empty() && step.pictures.empty()) {
        return;
    }
    steps_.resize(done_);
    steps_.push_back(std::move(step));
    doAgain();
}

void TagTable::set(std::span<const Cell> cells, const std::string& text) {
    Step step;
    for (const auto& cell : cells) {
        step.cells.emplace_back(cell, textAt(cell), std::string(trimmed(text)));
    }
    apply(std::move(step));
}

void TagTable::fillDown(std::span<const Cell> cells) {
    std::map<std::size_t, Cell> topmost; // by column
    for (const auto& cell : cells) {
        const auto known = topmost.try_emplace(cell.field, cell).first;
        known->second = std::min(known->second, cell);
    }
    Step step;
    for (const auto& cell : cells) {
        step.cells.emplace_back(cell, textAt(cell), textAt(topmost.at(cell.field)));
    }
    apply(std::move(step));
}

void TagTable::paste(const Cell& first, std::string_view text) {
    while (text.ends_with('\n') || text.ends_with('\r')) {
        text.remove_suffix(1);
    }
    Step step;
    const auto lines = parted(text, "\n");
    for (std::size_t line = 0; line < lines.size() && first.row + line < rows(); ++line) {
        const auto values = parted(lines[line], "\t");
        for (std::size_t at = 0; at < values.size() && first.field + at < fields.size(); ++at) {
            const Cell cell{first.row + line, first.field + at};
            step.cells.emplace_back(cell, textAt(cell), std::string(trimmed(values[at])));
        }
    }
    apply(std::move(step));
}

void TagTable::numberDown(std::span<const Cell> cells) {
    std::vector<Cell> sorted(cells.begin(), cells.end());
    std::ranges::sort(sorted);
    unsigned number = 1;
    if (!sorted.empty()) {
        const auto text = textAt(sorted.front());
        std::from_chars(text.data(), text.data() + text.size(), number);
    }
    Step step;
    for (const auto& cell : sorted) {
        if (cell.field == sorted.front().field) {
            step.cells.emplace_back(cell, textAt(cell), std::to_string(number++));
        }
    }
    apply(std::move(step));
}

void TagTable::takeProposals(std::span<const std::size_t> rows) {
    Step step;
    for (const auto row : rows) {
        for (const auto& proposal : proposals_[row]) {
            const Cell cell{row, fieldNumber(proposal.field)};
            if (cell.field < fields.size()) {
                step.cells.emplace_back(cell, textAt(cell), proposal.shall);
            } else if (proposal.picture) {
                step.pictures.push_back(row);
            }
        }
    }
    apply(std::move(step));
}

void TagTable::takeBack() {
    if (!canTakeBack()) {
        return;
    }
    const auto& step = steps_[--done_];
    for (const auto& [cell, before, after] : step.cells) {
        write(cell, before);
    }
    for (const auto row : step.pictures) {
        pictures_.erase(row);
    }
}

void TagTable::doAgain() {
    if (!canDoAgain()) {
        return;
    }
    const auto& step = steps_[done_++];
    for (const auto& [cell, before, after] : step.cells) {
        write(cell, after);
    }
    pictures_.insert(step.pictures.begin(), step.pictures.end());
}

TagChange TagTable::changeOf(std::size_t row) const {
    TagChange change;
    for (auto each = edited_.lower_bound({row, 0}); each != edited_.end() && each->first.row == row; ++each) {
        auto& values = change.fields[std::string(fields[each->first.field])];
        for (auto& value : parted(each->second, between)) {
            if (!value.empty()) {
                values.push_back(std::move(value));
            }
        }
    }
    if (pictures_.contains(row)) {
        const auto found = std::ranges::find_if(
            proposals_[row], [](const TagProposal& each) { return each.picture.has_value(); });
        change.picture = found->picture;
        change.onlyPicture = found->reason == ProposedFor::largePicture;
    }
    return change;
}

std::size_t TagTable::changedRows() const {
    std::set<std::size_t> changed = pictures_;
    for (const auto& [cell, text] : edited_) {
        changed.insert(cell.row);
    }
    return changed.size();
}

} // namespace sober
