#include "app/desks/tags/tag_table_window.h"

#include "app/desks/desk.h"
#include "app/desks/tags/tag_cell.h"
#include "app/desks/tags/tag_table_model.h"
#include "app/lists/cell_painter.h"
#include "app/words.h"
#include "app/wrap_row.h"
#include "core/audit/tag_takeover.h"
#include "core/intake/read_tags.h"

#include <QApplication>
#include <QClipboard>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QShortcut>
#include <QTableView>
#include <QVBoxLayout>

#include <algorithm>
#include <set>

namespace sober::app {

TagTableWindow::TagTableWindow(Workbench& workbench, Files files, QWidget* parent)
    : QDialog(parent),
      workbench_(workbench),
      files_(std::move(files)),
      view_(new QTableView(this)),
      evidence_(paragraph(tr("Evidence for the cell"), this)),
      outcome_(new QLabel(tr("Reading the tags …"), this)) {
    build(tr("Put on the docket"));
    connect(put_, &QPushButton::clicked, this, &TagTableWindow::putOnDocket);
    workbench_.look<std::shared_ptr<TagTable>>(
        this,
        [path = workbench_.cataloguePath(),
         files = files_](RunControl& control) -> Result<std::shared_ptr<TagTable>> {
            std::vector<BytePath> paths;
            std::ranges::transform(files, std::back_inserter(paths), &Files::value_type::second);
            const auto catalogue = Catalogue::openForReading(path);
            auto read = catalogue ? readAndPropose(*catalogue, paths, control)
                                  : Result<ProposedTags>(catalogue.error());
            RETURN_IF_FAILED(read);
            return std::make_shared<TagTable>(std::move(read->files), std::move(read->proposals));
        },
        [this](const std::shared_ptr<TagTable>& table) { show(*table); });
}

TagTableWindow::TagTableWindow(Workbench& workbench, const TagTable& table, const QString& takes,
                               std::function<void(const TagTable&)> agreed, QWidget* parent)
    : QDialog(parent),
      workbench_(workbench),
      view_(new QTableView(this)),
      evidence_(paragraph(tr("Evidence for the cell"), this)),
      outcome_(new QLabel(this)),
      isOfFiles_(false) {
    build(takes);
    connect(put_, &QPushButton::clicked, this, [this, agreed = std::move(agreed)] {
        agreed(model_->table());
        accept();
    });
    show(table);
}

void TagTableWindow::build(const QString& takes) {
    put_ = keyButton(takes, QKeySequence(Qt::CTRL | Qt::Key_Return), this);
    setWindowTitle(tr("Tags"));
    setAttribute(Qt::WA_DeleteOnClose);
    resize(1200, 640);
    auto* layout = titledLayout(windowTitle(), this);
    buildKeys(*layout);
    view_->setAccessibleName(tr("Tags, a row for each file"));
    view_->setItemDelegate(new TagCell(view_));
    view_->setShowGrid(false);
    view_->setWordWrap(false);
    view_->setTabKeyNavigation(true);
    view_->setHorizontalScrollMode(QAbstractItemView::ScrollPerPixel);
    view_->verticalHeader()->hide();
    view_->verticalHeader()->setDefaultSectionSize(heightOfRow);
    view_->horizontalHeader()->setHighlightSections(false);
    view_->horizontalHeader()->setDefaultAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    layout->addWidget(view_, 1);
    evidence_->setMinimumHeight(40);
    layout->addWidget(evidence_);
    put_->setEnabled(false);
    outcome_->setAccessibleName(tr("What would be written"));
    addEnding(*layout, this, put_, outcome_);
}

void TagTableWindow::putOnDocket() {
    std::vector<std::pair<HoldingId, TagChange>> changes;
    for (std::size_t row = 0; row < model_->table().rows(); ++row) {
        auto change = model_->table().changeOf(row);
        if (!change.isEmpty()) {
            changes.emplace_back(files_[row].first, std::move(change));
        }
    }
    workbench_.decide([changes = std::move(changes)](const Catalogue& catalogue) -> Outcome {
        return catalogue.together([&] {
            for (const auto& [holding, change] : changes) {
                if (const auto planned = planRetag(catalogue, holding, change, {}); !planned) {
                    return planned;
                }
            }
            return sober::done();
        });
    });
    accept();
}

void TagTableWindow::buildKeys(QVBoxLayout& layout) {
    auto* row = new WrapRow;
    row->setSpacing(8);
    const auto add = [&](const QString& text, const QKeySequence& key, const QString& tip, auto work) {
        auto* button = keyButton(text, key, this);
        button->setToolTip(tip);
        connect(button, &QPushButton::clicked, this, [this, work] { edit(work); });
        row->addWidget(button);
    };
    add(tr("Fill down"), QKeySequence(Qt::CTRL | Qt::Key_L),
        tr("The topmost of the selected cells into those below"),
        [this](TagTable& table) { table.fillDown(selectedCells()); });
    add(tr("Count down"), QKeySequence(Qt::CTRL | Qt::Key_K),
        tr("Numbers from the topmost of the selected cells on"),
        [this](TagTable& table) { table.numberDown(selectedCells()); });
    add(tr("Take proposals"), QKeySequence(Qt::CTRL | Qt::Key_P),
        tr("All that is proposed for the selected rows"),
        [this](TagTable& table) { table.takeProposals(selectedRows()); });
    add(tr("Take back"), QKeySequence(QKeySequence::Undo), tr("The last step"),
        [](TagTable& table) { table.takeBack(); });
    add(tr("Again"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_Z), tr("What was taken back"),
        [](TagTable& table) { table.doAgain(); });
    row->addStretch(1);
    row->addWidget(
        quietLabel(tr("What is typed goes into all selected cells of its column; “; ” parts values"), this));
    layout.addLayout(row);
    auto* copying = new QShortcut(QKeySequence(QKeySequence::Copy), view_);
    auto* pasting = new QShortcut(QKeySequence(QKeySequence::Paste), view_);
    auto* emptying = new QShortcut(QKeySequence(Qt::Key_Delete), view_);
    for (auto* each : {copying, pasting, emptying}) {
        each->setContext(Qt::WidgetShortcut);
    }
    connect(copying, &QShortcut::activated, this, &TagTableWindow::copy);
    connect(pasting, &QShortcut::activated, this, &TagTableWindow::paste);
    connect(emptying, &QShortcut::activated, this,
            [this] { edit([this](TagTable& table) { table.set(selectedCells(), {}); }); });
}

template <typename Work>
void TagTableWindow::edit(Work work) {
    if (model_ != nullptr) {
        model_->change(work);
    }
}

void TagTableWindow::show(const TagTable& table) {
    model_ = new TagTableModel(table, this);
    view_->setModel(model_);
    int column = 0;
    for (const int width : {220, 190, 170, 170, 140, 60, 50, 64, 110, 120, 160}) {
        const auto heading = model_->headerData(column, Qt::Horizontal, Qt::DisplayRole).toString();
        const int needed = view_->horizontalHeader()->fontMetrics().horizontalAdvance(heading) + 20;
        view_->setColumnWidth(column++, std::max(width, needed));
    }
    connect(model_, &QAbstractItemModel::dataChanged, this, &TagTableWindow::follow);
    connect(view_->selectionModel(), &QItemSelectionModel::selectionChanged, this, &TagTableWindow::follow);
    connect(view_->selectionModel(), &QItemSelectionModel::currentChanged, this, &TagTableWindow::follow);
    view_->setFocus();
    view_->setCurrentIndex(model_->index(0, 1));
    follow();
}

void TagTableWindow::follow() {
    model_->setSelected(selectedCells());
    const auto changed = model_->table().changedRows();
    outcome_->setText(changed == 0 ? tr("Nothing is edited yet.")
                      : !isOfFiles_
                          ? tr("%1 would be called otherwise.").arg(told(counted(changed, "track")))
                          : tr("%1 would be written anew, the audio data untouched. Nothing changes before "
                               "the docket is carried out.")
                                .arg(told(counted(changed, "file"))));
    put_->setEnabled(changed > 0);
    const auto at = view_->currentIndex();
    const auto* proposal = at.isValid() && TagTableModel::isField(at)
                               ? model_->table().proposalFor(TagTableModel::cellAt(at))
                               : nullptr;
    evidence_->setText(proposal != nullptr
                           ? tr("Proposed: %1. %2")
                                 .arg(proposal->shall.empty()
                                          ? tr("nothing")
                                          : QChar(0x201C) + shown(proposal->shall) + QChar(0x201D),
                                      told(proposal->why))
                           : QString());
}

std::vector<TagTable::Cell> TagTableWindow::selectedCells() const {
    std::vector<TagTable::Cell> cells;
    for (const auto& index : view_->selectionModel()->selectedIndexes()) {
        if (TagTableModel::isField(index)) {
            cells.push_back(TagTableModel::cellAt(index));
        }
    }
    std::ranges::sort(cells);
    return cells;
}

std::vector<std::size_t> TagTableWindow::selectedRows() const {
    std::set<std::size_t> rows;
    for (const auto& index : view_->selectionModel()->selectedIndexes()) {
        rows.insert(static_cast<std::size_t>(index.row()));
    }
    return {rows.begin(), rows.end()};
}

void TagTableWindow::copy() {
    QString text;
    std::size_t row = 0;
    for (const auto& cell : selectedCells()) {
        text += text.isEmpty() ? QString() : cell.row == row ? QStringLiteral("\t") : QStringLiteral("\n");
        row = cell.row;
        text += QString::fromStdString(model_->table().textAt(cell));
    }
    QApplication::clipboard()->setText(text);
}

void TagTableWindow::paste() {
    const auto cells = selectedCells();
    const auto text = QApplication::clipboard()->text().toStdString();
    const bool isOne = text.find_first_of("\t\n") == std::string::npos;
    if (!cells.empty()) {
        edit([&](TagTable& table) {
            if (isOne) {
                table.set(cells, text);
            } else {
                table.paste(cells.front(), text);
            }
        });
    }
}

} // namespace sober::app
