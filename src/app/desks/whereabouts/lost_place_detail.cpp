#include "app/desks/whereabouts/lost_place_detail.h"

#include "app/desks/desk.h"
#include "app/listening/listening_bar.h"
#include "app/words.h"
#include "app/wrap_label.h"

#include <QLabel>
#include <QPushButton>
#include <QShortcut>
#include <QVBoxLayout>

#include <algorithm>

namespace sober::app {

LostPlaceDetail::LostPlaceDetail(std::function<QString(const BytePath&)> placeText, QWidget* parent)
    : QWidget(parent), placeText_(std::move(placeText)) {
    setFixedWidth(456);
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(8);
    detail_ = new WrapLabel(this);
    detail_->setWordWrap(true);
    detail_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
    detail_->keepHeight(60);
    detail_->setSizePolicy(QSizePolicy::Preferred, QSizePolicy::Expanding);
    detail_->setAccessibleName(tr("What is known of the selected place"));
    layout->addWidget(detail_);
    std::vector<Column<CandidateRow>> columns{
        {tr("Candidate"),
         [this](const CandidateRow& row) {
             return Cell{placeText_(row.file.path), Mark::none, true, false, shownPath(row.file.path)};
         }},
        {tr("Tags"),
         [](const CandidateRow& row) {
             const auto tags = QStringLiteral("%1, %2").arg(shown(row.file.title), shown(row.file.artist));
             return Cell{row.file.title.empty() ? tr("none") : tags, Mark::none, false,
                         row.file.title.empty(), tags};
         }},
        {tr("Length"),
         [](const CandidateRow& row) {
             return Cell{row.file.seconds > 0 ? told(humanSeconds(row.file.seconds)) : QString(),
                         Mark::none,
                         false,
                         false,
                         {}};
         },
         true},
        {tr("Checksum"), [](const CandidateRow& row) {
             return Cell{row.file.content ? shown(row.file.content->hex().substr(0, 8)) : tr("not read"),
                         Mark::none, row.file.content.has_value(), !row.file.content,
                         row.file.content ? shown(row.file.content->hex()) : QString()};
         }}};
    candidates_ = new RowListModel<CandidateRow>(
        std::move(columns), [](const CandidateRow& row) { return row.file.path; }, this);
    candidateList_ = new ListView(tr("Candidates"), this);
    candidateList_->setModel(candidates_);
    candidateList_->setWidths({160, 120, 60, 84}, 0);
    candidateList_->setEmptyText(tr("No file of that name was met."));
    layout->addWidget(candidateList_, 1);
    judged_ = quietLabel({}, this);
    judged_->setWordWrap(true);
    judged_->setAccessibleName(tr("How the candidate fits"));
    layout->addWidget(judged_);
    listening_ = new ListeningBar(this);
    layout->addWidget(listening_);
    choose_ = keyButton(tr("This is it"), QKeySequence(Qt::Key_T), parent);
    choose_->setToolTip(tr("Link the selected place to the selected candidate; its folder tree follows"));
    layout->addWidget(choose_, 0, Qt::AlignRight);
    connect(choose_, &QPushButton::clicked, this, [this] {
        if (const auto* file = candidate()) {
            emit chosen(lost_, file->file.path);
        }
    });
    connect(candidateList_->selectionModel(), &QItemSelectionModel::currentRowChanged, this,
            [this] { showCandidate(); });
    auto* listen = new QShortcut(QKeySequence(Qt::Key_P), parent);
    listen->setContext(Qt::WidgetWithChildrenShortcut);
    connect(listen, &QShortcut::activated, listening_, &ListeningBar::toggle);
}

void LostPlaceDetail::show(const PlaceRow* row, const std::shared_ptr<const Relinking>& found,
                           const RelinkKnown& known) {
    lost_ = row != nullptr ? row->path : BytePath();
    linked_ = row != nullptr && row->link ? row->target : BytePath();
    std::vector<CandidateRow> candidates;
    QStringList lines;
    if (row != nullptr && found && row->lost < found->lost.size()) {
        const auto& lost = found->lost[row->lost];
        lines << tr("%1 of %2")
                     .arg(told(counted(row->references, "reference")),
                          shown(known.playersOf(*found, row->lost)));
        const auto& former = lost.former.empty() ? FormerHolding{} : lost.former.front();
        const auto& title = lost.title.empty() ? former.title : lost.title;
        const auto& artist = lost.artist.empty() ? former.artist : lost.artist;
        const double seconds = former.seconds > 0 ? former.seconds : lost.seconds;
        QStringList words;
        for (const auto& word : {title, artist}) {
            if (!word.empty()) {
                words << shown(word);
            }
        }
        if (seconds > 0) {
            words << told(humanSeconds(seconds));
        }
        lines << (words.isEmpty() ? tr("nothing but its name is known") : words.join(QStringLiteral(", ")));
        lines
            << (lost.former.empty()
                    ? tr("never catalogued there")
                    : tr("catalogued there once, checksum %1").arg(shown(former.content.hex().substr(0, 8))));
        if (row->link) {
            for (const auto& words_ : found->links[*row->link].evidence) {
                lines << told(displayPath(words_));
            }
        } else if (row->choice) {
            const auto& choice = found->ambiguous[*row->choice];
            for (std::size_t i = 0; i < choice.candidates.size(); ++i) {
                candidates.push_back({choice.candidates[i], choice.judgements[i]});
            }
        } else if (!row->reason.empty()) {
            lines << told(displayPath(row->reason));
        }
    }
    detail_->setText(lines.join(QLatin1Char('\n')));
    const bool has = !candidates.empty();
    candidates_->setRows(std::move(candidates));
    candidateList_->setVisible(row == nullptr || !row->link);
    choose_->setEnabled(has);
    if (has) {
        candidateList_->selectRow(std::max(0, candidateList_->currentRow()));
    }
    showCandidate();
}

const LostPlaceDetail::CandidateRow* LostPlaceDetail::candidate() const {
    const int at = candidateList_->currentRow();
    return at >= 0 && at < static_cast<int>(candidates_->rows().size())
               ? &candidates_->rows()[static_cast<std::size_t>(at)]
               : nullptr;
}

/// What speaks for and against the selected candidate, and its sound; of a link the sound of its file.
void LostPlaceDetail::showCandidate() {
    const auto* file = candidate();
    QStringList words;
    if (file != nullptr) {
        for (const auto& each : file->judged.evidence) {
            words << told(displayPath(each));
        }
    }
    judged_->setText(words.join(QStringLiteral("; ")));
    listening_->setFile(file != nullptr ? file->file.path : linked_);
}

} // namespace sober::app
