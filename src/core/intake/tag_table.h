#pragma once

#include "core/intake/tag_proposals.h"

#include <array>

namespace sober {

/// Tags of many files as rows, to be edited like any table: one value into many cells, filled down, pasted,
/// and step by step taken back. Nothing is written: what was edited comes out as changes.
class TagTable {
  public:
    static constexpr std::array<std::string_view, 10> fields{
        "TITLE",      "ARTIST", "ALBUM", "ALBUMARTIST", "TRACKNUMBER",
        "DISCNUMBER", "DATE",   "GENRE", "COMPOSER",    "COMMENT"};
    /// What stands between several values of a field.
    static constexpr std::string_view between = "; ";

    struct Cell {
        std::size_t row = 0;
        std::size_t field = 0; ///< into `fields`
        auto operator<=>(const Cell&) const = default;
    };

    /// `proposals` in the order of `files`, or none.
    TagTable(std::vector<TaggedFile> files, std::vector<std::vector<TagProposal>> proposals);

    std::size_t rows() const { return files_.size(); }
    const BytePath& pathOf(std::size_t row) const { return files_[row].path; }
    std::string textAt(const Cell& cell) const;
    /// As the file says it.
    std::string textBefore(const Cell& cell) const;
    bool isChanged(const Cell& cell) const { return edited_.contains(cell); }
    /// What is proposed for a cell; nullptr where nothing is, or where it says that already.
    const TagProposal* proposalFor(const Cell& cell) const;

    /// The same text into all these cells; one step of taking back. Text as it is shown: spaces at its ends
    /// go, `between` parts values.
    void set(std::span<const Cell> cells, const std::string& text);
    /// In each column what stands in the topmost of these cells, into those below.
    void fillDown(std::span<const Cell> cells);
    /// Lines of cells parted by tabulators, from a cell on; what does not fit is left away.
    void paste(const Cell& first, std::string_view text);
    /// Counts up from what stands in the topmost cell of one column.
    void numberDown(std::span<const Cell> cells);
    /// All that is proposed for these rows.
    void takeProposals(std::span<const std::size_t> rows);

    bool canTakeBack() const { return done_ > 0; }
    bool canDoAgain() const { return done_ < steps_.size(); }
    void takeBack();
    void doAgain();

    /// What is to be written into a row's file.
    TagChange changeOf(std::size_t row) const;
    std::size_t changedRows() const;

  private:
    /// Texts by cell, before and after.
    struct Step {
        std::vector<std::tuple<Cell, std::string, std::string>> cells;
        std::vector<std::size_t> pictures; ///< rows that took the proposed picture
    };
    void write(const Cell& cell, const std::string& text);
    void apply(Step step);

    std::vector<TaggedFile> files_;
    std::vector<std::vector<TagProposal>> proposals_;
    std::map<Cell, std::string> edited_; ///< only where it is other than the file's
    std::set<std::size_t> pictures_;     ///< rows with the proposed picture
    std::vector<Step> steps_;
    std::size_t done_ = 0; ///< steps that hold now
};

} // namespace sober
