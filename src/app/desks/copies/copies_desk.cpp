#include "app/desks/copies/copies_desk.h"

#include "app/desks/copies/copy_columns.h"
#include "app/desks/copies/member_listening.h"
#include "app/desks/copies/policy_window.h"
#include "app/desks/copies/set_pictures.h"
#include "app/desks/copies/set_words.h"
#include "app/desks/file_manager.h"
#include "app/desks/standing_list_box.h"
#include "app/desks/tags/tags_window.h"
#include "app/hand_focus_on.h"
#include "app/listening/listening_bar.h"
#include "app/theme/theme.h"
#include "app/words.h"
#include "app/wrap_label.h"
#include "app/wrap_row.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/volumes.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QPushButton>
#include <QSettings>
#include <QShortcut>
#include <QSplitter>
#include <QTimer>
#include <QVBoxLayout>

#include <algorithm>

namespace sober::app {
CopiesDesk::CopiesDesk(Workbench& workbench)
    : Desk(workbench, tr("Copies"), tr("Which of these do I keep?")),
      pictures_(new SetPictures(workbench, this)),
      listening_(new MemberListening(workbench, this)),
      text_(new QLineEdit(this)),
      volume_(new QComboBox(this)),
      order_(new QComboBox(this)),
      which_(new QComboBox(this)),
      sameness_(new QComboBox(this)),
      lists_(new StandingListBox(workbench, this)),
      reasons_(new WrapLabel(this)),
      equal_(quietLabel({}, this)) {
    equal_->setAccessibleName(tr("Alike in all members"));
    equal_->setWordWrap(true);
    body()->addWidget(pictures_);
    buildLists();
    buildButtons();
    connect(pictures_, &SetPictures::memberChosen, this, [this](HoldingId id) { chooseMember(id); });
}

void CopiesDesk::buildLists() {
    text_->setPlaceholderText(tr("Part of a name, title, artist or album"));
    text_->setAccessibleName(tr("Filter the sets by text"));
    for (auto* box : {volume_, order_, which_, sameness_}) {
        box->setSizeAdjustPolicy(QComboBox::AdjustToContents);
    }
    sameness_->setAccessibleName(tr("How the members are the same"));
    sameness_->addItem(tr("all copies"));
    for (const auto sameness : {Sameness::bytes, Sameness::payload, Sameness::samples, Sameness::lossyCopy,
                                Sameness::otherMaster, Sameness::part, Sameness::tagsOnly}) {
        sameness_->addItem(samenessShort(sameness), static_cast<int>(sameness));
    }
    volume_->setAccessibleName(tr("Filter the sets by volume"));
    order_->setAccessibleName(tr("Order of the sets"));
    order_->addItem(tr("most bytes first"), static_cast<int>(SetOrder::mostBytes));
    order_->addItem(tr("most copies first"), static_cast<int>(SetOrder::mostMembers));
    order_->addItem(tr("doubtful first"), static_cast<int>(SetOrder::mostDoubt));
    order_->addItem(tr("weakest link first"), static_cast<int>(SetOrder::weakestFirst));
    which_->setAccessibleName(tr("Decided or not"));
    which_->addItem(tr("all sets"), false);
    which_->addItem(tr("undecided sets"), true);

    sets_ = new IdListModel<SetRow>(workbench(), CopyColumns::ofSets(), CopyColumns::rowsOf, this);
    setList_ = new ListView(tr("Copy sets"), this);
    setList_->setModel(sets_);
    setList_->setWidths({150, 92, 44, 82}, 0);
    setList_->setEmptyText(tr("No identical copies here. Survey more volumes, or show all sets."));
    setList_->installEventFilter(this);

    members_ = new RowListModel<MemberRow>(
        CopyColumns::ofMembers(), [](const MemberRow& row) { return std::to_string(row.holding().id); },
        this);
    memberList_ = new ListView(tr("Members of the set"), this);
    memberList_->setModel(members_);
    memberList_->setSelectionMode(QAbstractItemView::SingleSelection);
    memberList_->setContextMenuPolicy(Qt::CustomContextMenu);
    memberList_->setWidths({136, 96, 150, 164, 104, 100, 66, 84}, 2);
    reasons_->setWordWrap(true);
    reasons_->keepHeight(40);
    reasons_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
    reasons_->setAccessibleName(tr("Reasons"));

    auto* filters = new WrapRow;
    filters->setSpacing(8);
    filters->addWidget(text_, 1);
    filters->addWidget(lists_);
    filters->addWidget(volume_);
    filters->addWidget(sameness_);
    filters->addWidget(which_);
    filters->addWidget(order_);
    body()->addLayout(filters);

    auto* split = new QSplitter(Qt::Horizontal, this);
    split->setChildrenCollapsible(false);
    auto* right = new QWidget(split);
    auto* rightLayout = new QVBoxLayout(right);
    rightLayout->setContentsMargins(0, 0, 0, 0);
    rightLayout->setSpacing(8);
    rightLayout->addWidget(equal_);
    rightLayout->addWidget(memberList_, 1);
    rightLayout->addWidget(reasons_);
    rightLayout->addWidget(listening_->bar());
    buttons_ = new WrapRow;
    buttons_->setSpacing(8);
    rightLayout->addLayout(buttons_);
    split->addWidget(setList_);
    split->addWidget(right);
    split->setStretchFactor(0, 2);
    split->setStretchFactor(1, 3);
    split->setSizes({372, 668});
    body()->addWidget(split, 1);
    handFocusOn(this, setList_);

    auto* typing = new QTimer(this);
    typing->setSingleShot(true);
    typing->setInterval(250);
    connect(text_, &QLineEdit::textChanged, typing, qOverload<>(&QTimer::start));
    connect(typing, &QTimer::timeout, this, [this] { askOrder(); });
    connect(lists_, &StandingListBox::listChanged, this, [this] { askOrder(); });
    const QSettings settings;
    order_->setCurrentIndex(settings.value(QStringLiteral("copies/order"), 0).toInt());
    which_->setCurrentIndex(settings.value(QStringLiteral("copies/which"), 0).toInt());
    split->restoreState(settings.value(QStringLiteral("copies/split")).toByteArray());
    for (auto* box : {volume_, order_, which_, sameness_}) {
        connect(box, &QComboBox::currentIndexChanged, this, [this] {
            QSettings().setValue(QStringLiteral("copies/order"), order_->currentIndex());
            QSettings().setValue(QStringLiteral("copies/which"), which_->currentIndex());
            askOrder();
        });
    }
    connect(split, &QSplitter::splitterMoved, this,
            [split] { QSettings().setValue(QStringLiteral("copies/split"), split->saveState()); });
    connect(setList_->selectionModel(), &QItemSelectionModel::currentRowChanged, this,
            [this] { askDetail(); });
    connect(sets_, &QAbstractItemModel::dataChanged, this, [this] {
        if (!detail_) {
            askDetail();
        }
    });
    connect(memberList_->selectionModel(), &QItemSelectionModel::currentRowChanged, this,
            [this] { showReasons(); });
    connect(memberList_, &QWidget::customContextMenuRequested, this,
            [this](const QPoint& at) { memberMenu(at); });
}

void CopiesDesk::buildButtons() {
    auto* keep = keyButton(tr("Keep"), QKeySequence(Qt::Key_K), this);
    keep->setToolTip(tr("Keep the chosen member and retire the others"));
    auto* retire = keyButton(tr("Retire"), QKeySequence(Qt::Key_R), this);
    retire->setToolTip(tr("Put the chosen member on the docket, or take it off again"));
    auto* advised = keyButton(tr("As advised"), QKeySequence(Qt::Key_D), this);
    advised->setToolTip(tr("Decide this set as advised and go to the next"));
    auto* leave = keyButton(tr("Leave"), QKeySequence(Qt::Key_L), this);
    leave->setToolTip(tr("Keep every member of this set"));
    auto* tags = keyButton(tr("Tags…"), QKeySequence(Qt::Key_T), this);
    tags->setToolTip(tr("Take over what the others know that the one that stays does not"));
    connect(tags, &QPushButton::clicked, this, [this] { openTags(); });
    auto* open = keyButton(tr("Undecide"), QKeySequence(Qt::Key_U), this);
    auto* next = keyButton(tr("Next"), QKeySequence(Qt::Key_N), this);
    for (auto* button : {keep, retire, advised, leave, open, tags, next}) {
        buttons_->addWidget(button);
    }
    buttons_->addStretch(1);
    auto* many = keyButton(tr("Decide many…"), QKeySequence(Qt::Key_M), this);
    heading()->addWidget(many, 0, Qt::AlignBottom);
    connect(keep, &QPushButton::clicked, this, [this] {
        if (const auto member = currentMember()) {
            decideHere([id = *member](const Catalogue& catalogue, const SetDetail& detail,
                                      const std::vector<Volume>& volumes) {
                return keepOnly(catalogue, detail, id, volumes);
            });
        }
    });
    connect(retire, &QPushButton::clicked, this, [this] {
        if (const auto member = currentMember()) {
            const bool onDocket = std::ranges::find(detail_->onDocket, *member) != detail_->onDocket.end();
            decideHere([id = *member, onDocket](const Catalogue& catalogue, const SetDetail& detail,
                                                const std::vector<Volume>&) {
                return setRetire(catalogue, detail, id, !onDocket);
            });
        }
    });
    connect(advised, &QPushButton::clicked, this, [this] { takeSuggestion(); });
    connect(leave, &QPushButton::clicked, this, [this] {
        decideHere([](const Catalogue& catalogue, const SetDetail& detail, const std::vector<Volume>&) {
            return leaveAlone(catalogue, detail);
        });
    });
    connect(open, &QPushButton::clicked, this, [this] {
        decideHere([](const Catalogue& catalogue, const SetDetail& detail, const std::vector<Volume>&) {
            return forgetChoice(catalogue, detail);
        });
    });
    connect(next, &QPushButton::clicked, this, [this] { nextSet(); });
    connect(many, &QPushButton::clicked, this, [this] { openPolicies(); });
    auto* listen = new QShortcut(QKeySequence(Qt::Key_P), this);
    listen->setContext(Qt::WidgetWithChildrenShortcut);
    connect(listen, &QShortcut::activated, listening_->bar(), &ListeningBar::toggle);
}

void CopiesDesk::setFilterText(const QString& text) {
    text_->setText(text);
}

void CopiesDesk::reload() {
    lists_->reload();
    askOrder();
}

void CopiesDesk::reloadDecisions() {
    sets_->refresh();
    askDetail();
}

void CopiesDesk::askOrder() {
    SetFilter filter;
    filter.text = text_->text().toStdString();
    if (volume_->currentData().isValid()) {
        filter.volume = volume_->currentData().toLongLong();
    }
    filter.undecidedOnly = which_->currentData().toBool();
    if (sameness_->currentData().isValid()) {
        filter.sameness = static_cast<Sameness>(sameness_->currentData().toInt());
    }
    filter.list = lists_->filter();
    const auto order = static_cast<SetOrder>(order_->currentData().toInt());
    const auto ask = [this, filter, order](std::optional<int> most,
                                           const std::function<void(const Order&)>& then) {
        workbench().askLatest<Order>(
            orderAsked_, this,
            [filter, order, most](const Catalogue& catalogue) -> Result<Order> {
                const Findings findings(catalogue);
                auto ids = most ? findings.firstSets(order, filter, *most) : findings.setOrder(order, filter);
                auto volumes = Volumes(catalogue).all();
                if (!ids || !volumes) {
                    return ids ? volumes.error() : ids.error();
                }
                return Order{std::move(*ids), std::move(*volumes)};
            },
            then);
    };
    const auto take = [this](const Order& found) { takeOrder(found); };
    if (filter.text.empty()) {
        ask(std::nullopt, take);
        return;
    }
    constexpr int aScreen = 60;
    ask(aScreen, [ask, take](const Order& first) {
        take(first);
        if (first.ids.size() == aScreen) { // else these are all
            ask(std::nullopt, take);
        }
    });
}

void CopiesDesk::takeOrder(const Order& found) {
    volumes_ = found.volumes;
    const QSignalBlocker quiet(volume_);
    const QVariant chosen = volume_->currentData();
    volume_->clear();
    volume_->addItem(tr("all volumes"));
    for (const auto& volume : volumes_) {
        volume_->addItem(volumeName(volume), QVariant::fromValue<qlonglong>(volume.id));
    }
    volume_->setCurrentIndex(chosen.isValid() ? std::max(0, volume_->findData(chosen)) : 0);

    const int row = setList_->currentRow();
    const auto shownSet = row >= 0 && row < static_cast<int>(sets_->ids().size())
                              ? sets_->ids()[static_cast<std::size_t>(row)]
                              : SetId{0};
    detail_.reset();
    sets_->setIds(found.ids);
    if (found.ids.empty()) {
        members_->setRows({});
        pictures_->clear();
        listening_->clear();
        reasons_->clear();
    } else {
        const auto still = std::ranges::find(found.ids, shownSet);
        setList_->selectRow(still != found.ids.end()
                                ? static_cast<int>(still - found.ids.begin())
                                : std::clamp(row, 0, static_cast<int>(found.ids.size()) - 1));
    }
}

void CopiesDesk::askDetail() {
    const int row = setList_->currentRow();
    const auto* shownRow = row >= 0 ? sets_->row(row) : nullptr;
    if (shownRow == nullptr) {
        detail_.reset();
        return;
    }
    workbench().ask<SetDetail>(
        this,
        [set = shownRow->set, volumes = volumes_](const Catalogue& catalogue) {
            return detailOf(catalogue, set, volumes);
        },
        [this, asked = ++detailAsked_](const SetDetail& found) {
            if (asked == detailAsked_) {
                takeDetail(found);
            }
        });
}

void CopiesDesk::takeDetail(const SetDetail& found) {
    const auto before = currentMember();
    const bool sameSet = detail_ && detail_->set.content == found.set.content;
    detail_ = std::make_shared<const SetDetail>(found);
    std::vector<MemberRow> rows;
    for (std::size_t i = 0; i < found.members.size(); ++i) {
        const auto volume = std::ranges::find(volumes_, found.members[i].volume, &Volume::id);
        rows.push_back({i, detail_, volume != volumes_.end() ? numberedLabel(*volume) : std::string(),
                        volume != volumes_.end() && volume->atHand,
                        volume != volumes_.end() ? volume->root : BytePath()});
    }
    members_->setRows(std::move(rows));
    sayOnce();
    pictures_->setDetail(detail_, volumes_);
    if (!sameSet) {
        listening_->clear();
    }
    if (sameSet && before) {
        chooseMember(*before);
    } else if (!found.members.empty()) {
        const auto advised = std::ranges::find(found.advice, Advice::keep, &MemberAdvice::advice);
        chooseMember(advised != found.advice.end() ? advised->holding : found.members.front().id);
    }
    showReasons();
}

/// What is the same of all members is said once, above the list; its columns hold what differs.
void CopiesDesk::sayOnce() {
    QStringList equal;
    const int count = members_->rowCount({});
    const auto words = [&](int row, int column) {
        return members_->index(row, column).data(Qt::DisplayRole).toString();
    };
    for (int column = 1; column < members_->columnCount({}); ++column) {
        bool same = count > 1;
        for (int row = 1; row < count && same; ++row) {
            same = words(row, column) == words(0, column);
        }
        memberList_->setColumnHidden(column, same);
        if (same && !words(0, column).isEmpty()) {
            equal << tr("%1: %2").arg(
                members_->headerData(column, Qt::Horizontal, Qt::DisplayRole).toString(), words(0, column));
        }
    }
    equal_->setText(equal.isEmpty() ? QString() : tr("Alike in all – ") + equal.join(QStringLiteral("; ")));
    equal_->setVisible(!equal.isEmpty());
}

void CopiesDesk::chooseMember(HoldingId holding) {
    if (!detail_) {
        return;
    }
    const auto found = std::ranges::find(detail_->members, holding, &Holding::id);
    if (found != detail_->members.end()) {
        memberList_->selectRow(static_cast<int>(found - detail_->members.begin()));
    }
}

std::optional<HoldingId> CopiesDesk::currentMember() const {
    const int row = memberList_->currentRow();
    if (!detail_ || row < 0 || row >= static_cast<int>(detail_->members.size())) {
        return std::nullopt;
    }
    return detail_->members[static_cast<std::size_t>(row)].id;
}

void CopiesDesk::moveMember(int by) {
    if (detail_ && !detail_->members.empty()) {
        memberList_->selectRow(
            std::clamp(memberList_->currentRow() + by, 0, static_cast<int>(detail_->members.size()) - 1));
    }
}

void CopiesDesk::nextSet() {
    const int row = setList_->currentRow();
    if (row + 1 < sets_->rowCount({})) {
        setList_->selectRow(row + 1);
    }
}

void CopiesDesk::showReasons() {
    const auto member = currentMember();
    if (!member) {
        reasons_->clear();
        pictures_->setCurrent(std::nullopt, members_->rows());
        return;
    }
    const auto place = static_cast<std::size_t>(memberList_->currentRow());
    pictures_->setCurrent(place, members_->rows());
    listening_->listenTo(members_->rows()[place]);
    const auto advice = std::ranges::find(detail_->advice, *member, &MemberAdvice::holding);
    if (advice == detail_->advice.end()) {
        return;
    }
    QStringList reasons;
    for (const auto& reason : advice->reasons) {
        reasons << told(reason);
    }
    const QString word = advice->advice == Advice::keep     ? tr("Advised to keep: %1.")
                         : advice->advice == Advice::retire ? tr("Advised to retire: %1.")
                                                            : tr("Yours to decide: %1.");
    reasons_->setText(word.arg(reasons.join(QStringLiteral("; "))));
}

void CopiesDesk::decideHere(
    std::function<Outcome(const Catalogue&, const SetDetail&, const std::vector<Volume>&)> work) {
    if (!detail_) {
        return;
    }
    workbench().decide([detail = detail_, volumes = volumes_,
                        work = std::move(work)](const Catalogue& catalogue) -> Outcome {
        const auto fresh = detailOf(catalogue, detail->set, volumes);
        return fresh ? work(catalogue, *fresh, volumes) : Outcome(fresh.error());
    });
}

void CopiesDesk::takeSuggestion() {
    if (!detail_) {
        return;
    }
    if (std::ranges::find(detail_->advice, Advice::retire, &MemberAdvice::advice) == detail_->advice.end()) {
        reasons_->setText(tr("The evidence does not say which to retire: this one is yours to decide."));
        return;
    }
    decideHere([](const Catalogue& catalogue, const SetDetail& detail, const std::vector<Volume>& volumes) {
        return takeAdvice(catalogue, detail, volumes);
    });
    nextSet();
}

void CopiesDesk::openPolicies() {
    std::vector<SetId> chosen;
    const auto selected = setList_->selectionModel()->selectedRows();
    for (const auto& index : selected) {
        chosen.push_back(sets_->ids()[static_cast<std::size_t>(index.row())]);
    }
    auto* window = new PolicyWindow(workbench(), sets_->ids(),
                                    chosen.size() > 1 ? chosen : std::vector<SetId>{}, volumes_, this);
    window->setAttribute(Qt::WA_DeleteOnClose);
    window->open();
}

void CopiesDesk::openTags() {
    const auto keeper = detail_ ? stayingMember(*detail_) : std::nullopt;
    if (!keeper) {
        reasons_->setText(tr("Decide first which one stays: tags are taken over into that one."));
        return;
    }
    auto* window = new TagsWindow(workbench(), detail_, *keeper, volumes_, this);
    window->setAttribute(Qt::WA_DeleteOnClose);
    window->open();
}

void CopiesDesk::memberMenu(const QPoint& at) {
    const int row = memberList_->rowAt(at.y());
    if (row < 0) {
        return;
    }
    const auto& member = members_->rows()[static_cast<std::size_t>(row)];
    showFileMenu(*this, joinPath(member.root, member.holding().path),
                 memberList_->viewport()->mapToGlobal(at));
}

bool CopiesDesk::eventFilter(QObject* watched, QEvent* event) {
    if (watched == setList_ && event->type() == QEvent::KeyPress) {
        const int key = static_cast<QKeyEvent*>(event)->key();
        if (key == Qt::Key_Right || key == Qt::Key_Left) {
            moveMember(key == Qt::Key_Right ? 1 : -1);
            return true;
        }
    }
    return Desk::eventFilter(watched, event);
}

} // namespace sober::app
