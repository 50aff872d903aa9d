#include "app/desks/copies_desk.h"

#include "app/desks/file_manager.h"
#include "app/desks/policy_window.h"
#include "app/desks/set_words.h"
#include "app/desks/standing_list_box.h"
#include "app/desks/tags_window.h"
#include "app/listening/listening_bar.h"
#include "app/theme/theme.h"
#include "app/words.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/volumes.h"
#include "core/evidence/worker/evidence_worker.h"

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
#include <QStackedWidget>
#include <QTimer>
#include <QVBoxLayout>

#include <algorithm>

namespace sober::app {
namespace {

QString tagText(const Tags& tags) {
    QStringList parts;
    for (const auto* tag : {&tags.artist, &tags.title}) {
        if (!tag->empty()) {
            parts << shown(*tag);
        }
    }
    return parts.join(QStringLiteral(" – "));
}

QString claimText(const Claims& claims) {
    const QString codec = shown(claims.codec.substr(0, claims.codec.find('_'))).toUpper();
    return claims.lossless ? QStringLiteral("%1 %2/%3")
                                 .arg(codec)
                                 .arg(claims.bitDepth)
                                 .arg(claims.sampleRate / 1000.0, 0, 'g', 4)
                           : QStringLiteral("%1 %2").arg(codec).arg(claims.bitrate / 1000);
}

} // namespace

CopiesDesk::CopiesDesk(Workbench& workbench)
    : Desk(workbench, tr("Copies"), tr("Which of these do I keep?")),
      pictures_(new QStackedWidget(this)),
      chart_(new SetChart(this)),
      lineage_(new LineageChart(this)),
      overlay_(new OverlayChart(this)),
      listening_(new ListeningBar(this)),
      text_(new QLineEdit(this)),
      volume_(new QComboBox(this)),
      order_(new QComboBox(this)),
      which_(new QComboBox(this)),
      sameness_(new QComboBox(this)),
      lists_(new StandingListBox(workbench, this)),
      reasons_(new QLabel(this)),
      equal_(quietLabel({}, this)) {
    equal_->setAccessibleName(tr("Alike in all members"));
    equal_->setWordWrap(true);
    auto* pair = new QWidget(this);
    auto* side = new QHBoxLayout(pair);
    side->setContentsMargins(0, 0, 0, 0);
    side->setSpacing(16);
    side->addWidget(lineage_, 3);
    side->addWidget(overlay_, 2);
    pictures_->addWidget(chart_);
    pictures_->addWidget(pair);
    body()->addWidget(pictures_);
    buildLists();
    buildButtons();
    connect(chart_, &SetChart::memberChosen, this, [this](HoldingId id) { chooseMember(id); });
    connect(lineage_, &LineageChart::memberChosen, this, [this](HoldingId id) { chooseMember(id); });
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

    std::vector<Column<SetRow>> setColumns{
        {tr("Recording"),
         [](const SetRow& row) {
             const Mark mark = row.decision.leftAlone    ? Mark::sound
                               : isDecided(row.decision) ? Mark::keep
                                                         : Mark::copies;
             return Cell{shown(row.name), mark, false, isDecided(row.decision), {}};
         }},
        {tr("Same"),
         [](const SetRow& row) {
             return Cell{
                 samenessShort(row.set.sameness), row.set.doubt ? Mark::doubtful : Mark::none, false, false,
                 shown(samenessWords(row.set.sameness)) +
                     (row.set.doubt ? tr("; holds something damaged or not what it claims") : QString())};
         }},
        {tr("Held"),
         [](const SetRow& row) {
             return Cell{
                 shown(humanCount(row.set.members)) + QStringLiteral(" ×"), Mark::none, false, false, {}};
         },
         true},
        {tr("Frees"),
         [](const SetRow& row) {
             const bool exact = row.set.sameness == Sameness::bytes;
             return Cell{row.set.reclaimable == 0 ? tr("nothing")
                                                  : (exact ? QString() : QStringLiteral("≈ ")) +
                                                        shown(humanBytes(row.set.reclaimable)),
                         Mark::none, false, row.set.reclaimable == 0,
                         exact ? QString() : tr("What keeping one copy of the main recording would free")};
         },
         true}};
    sets_ = new IdListModel<SetRow>(
        workbench(), std::move(setColumns),
        [](const Catalogue& catalogue, std::span<const SetId> ids) -> Result<std::vector<SetRow>> {
            const Findings findings(catalogue);
            const auto sets = findings.sets(ids);
            if (!sets) {
                return sets.error();
            }
            std::vector<SetRow> rows;
            for (const auto& set : *sets) {
                const auto memberIds = findings.membersOf(set.id);
                const auto decision = findings.decisionOn(set);
                if (!memberIds || !decision) {
                    return memberIds ? decision.error() : memberIds.error();
                }
                const auto members = Holdings(catalogue).byIds(
                    std::span(*memberIds).first(std::min<std::size_t>(1, memberIds->size())));
                if (!members) {
                    return members.error();
                }
                std::string name = "(gone)";
                if (!members->empty()) {
                    const auto& first = members->front();
                    name = first.tags.title.empty() ? displayPath(nameOf(first.path)) : first.tags.title;
                }
                rows.push_back({set, name, *decision});
            }
            return rows;
        },
        this);
    setList_ = new ListView(tr("Copy sets"), this);
    setList_->setModel(sets_);
    setList_->setWidths({150, 92, 44, 82}, 0);
    setList_->setEmptyText(tr("No identical copies here. Survey more volumes, or show all sets."));
    setList_->installEventFilter(this);

    std::vector<Column<MemberRow>> memberColumns{
        {tr("Decision"),
         [](const MemberRow& row) {
             return Cell{decisionText(*row.detail, row.at), markFor(*row.detail, row.at), false, false, {}};
         }},
        {tr("Volume"),
         [](const MemberRow& row) {
             return Cell{shown(row.volume) + (row.atHand ? QString() : tr(" (away)")),
                         Mark::none,
                         false,
                         !row.atHand,
                         {}};
         }},
        {tr("Path"),
         [](const MemberRow& row) {
             return Cell{shownPath(row.holding().path), Mark::none, true, false,
                         shownPath(joinPath(row.root, row.holding().path))};
         }},
        {tr("Sound"),
         [](const MemberRow& row) {
             const auto& known = row.detail->known;
             const auto& claims = row.holding().claims;
             const QString stated = claimText(claims);
             if (known.isEmpty() || !known.facts(row.at).examined) {
                 return Cell{stated, Mark::none, false, false, {}};
             }
             const auto& evidence = known.facts(row.at).evidence;
             return Cell{stated + QStringLiteral("  ") + shown(humanSeconds(evidence.seconds)),
                         !evidence.sound() ? Mark::damaged : markOf(evidence.verdict.verdict), false, false,
                         evidence.sound() ? verdictWord(evidence.verdict.verdict) : tr("damaged")};
         }},
        {tr("Written"),
         [](const MemberRow& row) {
             return Cell{shown(localDay(row.holding().mtime)), Mark::none, false, false,
                         shown(localMinute(row.holding().mtime))};
         }},
        {tr("Tags"),
         [](const MemberRow& row) {
             return Cell{tagText(row.holding().tags), Mark::none, false, false, {}};
         }},
        {tr("Names"),
         [](const MemberRow& row) {
             return Cell{row.holding().links > 1 ? tr("%1 linked").arg(row.holding().links)
                                                 : QStringLiteral("1"),
                         Mark::none, false, row.holding().links == 1,
                         row.holding().links > 1
                             ? tr("One file with several names: retiring one of them frees nothing")
                             : QString()};
         }},
        {tr("References"), [](const MemberRow& row) {
             const auto& lists = row.detail->references[row.at];
             QStringList names;
             for (const auto& list : lists) {
                 names << shownPath(list);
             }
             names.removeDuplicates();
             return Cell{lists.empty() ? tr("none") : shown(humanCount(lists.size())), Mark::none, false,
                         lists.empty(), names.join(QLatin1Char('\n'))};
         }}};
    members_ = new RowListModel<MemberRow>(
        std::move(memberColumns), [](const MemberRow& row) { return std::to_string(row.holding().id); },
        this);
    memberList_ = new ListView(tr("Members of the set"), this);
    memberList_->setModel(members_);
    memberList_->setSelectionMode(QAbstractItemView::SingleSelection);
    memberList_->setContextMenuPolicy(Qt::CustomContextMenu);
    memberList_->setWidths({136, 76, 150, 164, 104, 100, 66, 84}, 2);
    reasons_->setWordWrap(true);
    reasons_->setMinimumHeight(40);
    reasons_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
    reasons_->setAccessibleName(tr("Reasons"));

    auto* filters = new QHBoxLayout;
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
    rightLayout->addWidget(listening_);
    buttons_ = new QHBoxLayout;
    buttons_->setSpacing(8);
    rightLayout->addLayout(buttons_);
    split->addWidget(setList_);
    split->addWidget(right);
    split->setStretchFactor(0, 2);
    split->setStretchFactor(1, 3);
    split->setSizes({372, 668});
    body()->addWidget(split, 1);
    setFocusProxy(setList_);

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
    connect(listen, &QShortcut::activated, listening_, &ListeningBar::toggle);
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
    workbench().ask<Order>(
        this,
        [filter, order](const Catalogue& catalogue) -> Result<Order> {
            auto ids = Findings(catalogue).setOrder(order, filter);
            auto volumes = Volumes(catalogue).all();
            if (!ids || !volumes) {
                return ids ? volumes.error() : ids.error();
            }
            return Order{std::move(*ids), std::move(*volumes)};
        },
        [this, asked = ++orderAsked_](const Order& found) {
            if (asked == orderAsked_) {
                takeOrder(found);
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
        volume_->addItem(shown(volume.label), QVariant::fromValue<qlonglong>(volume.id));
    }
    volume_->setCurrentIndex(chosen.isValid() ? std::max(0, volume_->findData(chosen)) : 0);

    const int row = setList_->currentRow();
    detail_.reset();
    sets_->setIds(found.ids);
    if (found.ids.empty()) {
        members_->setRows({});
        chart_->setDetail(std::nullopt, {});
        lineage_->setDetail(std::nullopt);
        pictures_->setCurrentIndex(0);
        listening_->setFile({});
        reasons_->clear();
    } else {
        setList_->selectRow(std::clamp(row, 0, static_cast<int>(found.ids.size()) - 1));
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
        rows.push_back({i, detail_, volume != volumes_.end() ? volume->label : std::string(),
                        volume != volumes_.end() && volume->atHand,
                        volume != volumes_.end() ? volume->root : BytePath()});
    }
    members_->setRows(std::move(rows));
    sayOnce();
    chart_->setDetail(found, volumes_);
    lineage_->setDetail(found.known.isEmpty() ? std::nullopt : std::optional(found));
    pictures_->setCurrentIndex(found.known.isEmpty() ? 0 : 1);
    if (!sameSet) {
        heard_.reset();
        listening_->setFile({});
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
                members_->headerData(column, Qt::Horizontal, Qt::DisplayRole).toString().toLower(),
                words(0, column));
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
        chart_->setCurrent(0);
        return;
    }
    chart_->setCurrent(*member);
    lineage_->setCurrent(*member);
    showPair();
    const auto advice = std::ranges::find(detail_->advice, *member, &MemberAdvice::holding);
    if (advice == detail_->advice.end()) {
        return;
    }
    QStringList reasons;
    for (const auto& reason : advice->reasons) {
        reasons << shown(reason);
    }
    const QString word = advice->advice == Advice::keep     ? tr("Advised to keep: %1.")
                         : advice->advice == Advice::retire ? tr("Advised to retire: %1.")
                                                            : tr("Yours to decide: %1.");
    reasons_->setText(word.arg(reasons.join(QStringLiteral("; "))));
}

std::size_t CopiesDesk::keeperPlace() const {
    const auto keeper = std::ranges::find(detail_->advice, Advice::keep, &MemberAdvice::advice);
    return keeper != detail_->advice.end() ? static_cast<std::size_t>(keeper - detail_->advice.begin()) : 0;
}

/// The chosen member beside the keeper: spectra, what subtraction leaves, and the sound.
void CopiesDesk::showPair() {
    const int row = memberList_->currentRow();
    if (!detail_ || row < 0) {
        return;
    }
    const auto member = static_cast<std::size_t>(row);
    listenTo(member);
    if (detail_->known.isEmpty()) {
        return;
    }
    const auto keeper = keeperPlace();
    const auto sideOf = [&](std::size_t at) -> std::optional<OverlayChart::Side> {
        const auto& facts = detail_->known.facts(at);
        if (!facts.examined || !facts.evidence.spectrum) {
            return std::nullopt;
        }
        return OverlayChart::Side{shownPath(BytePath(nameOf(detail_->members[at].path))),
                                  *facts.evidence.spectrum};
    };
    overlay_->setSides(sideOf(keeper), member == keeper ? std::nullopt : sideOf(member));
    const auto link = detail_->known.between(keeper, member);
    auto comparison = detail_->known.comparison(keeper, member);
    ++pairAsked_;
    if (member == keeper) {
        overlay_->setComparison(std::nullopt, tr("This is the keeper; choose another member."));
    } else if (link && *link <= Sameness::samples) {
        overlay_->setComparison(std::nullopt, tr("The same samples: nothing is left."));
    } else if (comparison && !comparison->overTime.empty()) {
        overlay_->setComparison(std::move(comparison));
    } else {
        comparePair(keeper, member);
    }
}

void CopiesDesk::comparePair(std::size_t keeper, std::size_t member) {
    const auto& rows = members_->rows();
    if (!rows[keeper].atHand || !rows[member].atHand) {
        overlay_->setComparison(std::nullopt, tr("One of both is away."));
        return;
    }
    overlay_->setComparison(std::nullopt, tr("Comparing…"));
    const auto pathOf = [&](std::size_t at) { return joinPath(rows[at].root, rows[at].holding().path); };
    const auto chain = detail_->known.comparison(keeper, member);
    workbench().look<DecodeComparison>(
        this,
        [first = pathOf(keeper), second = pathOf(member), coarse = chain ? chain->offset : 0.0](
            RunControl& control) { return EvidenceWorker().compare(first, second, coarse, control); },
        [this, asked = pairAsked_](const DecodeComparison& made) {
            if (asked == pairAsked_) {
                overlay_->setComparison(made);
            }
        });
}

/// At the level of the quietest member, and where something plays at the same musical moment.
void CopiesDesk::listenTo(std::size_t member) {
    const auto& row = members_->rows()[member];
    if (!row.atHand) {
        listening_->setFile({}, tr("%1 is away.").arg(shown(row.volume)));
        heard_.reset();
        return;
    }
    const auto path = joinPath(row.root, row.holding().path);
    const auto& known = detail_->known;
    double gain = 0;
    double later = 0;
    if (!known.isEmpty()) {
        double quietest = 0;
        for (std::size_t at = 0; at < detail_->members.size(); ++at) {
            if (known.facts(at).examined && !known.facts(at).evidence.levels.silent) {
                quietest = std::min(quietest, known.facts(at).evidence.levels.rms);
            }
        }
        if (known.facts(member).examined) {
            gain = quietest - known.facts(member).evidence.levels.rms;
        }
        if (heard_ && *heard_ < detail_->members.size() && *heard_ != member) {
            if (const auto comparison = known.comparison(*heard_, member)) {
                later = -comparison->offset;
            }
        }
    }
    heard_ = member;
    listening_->switchTo(path, later, std::min(gain, 0.0));
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
