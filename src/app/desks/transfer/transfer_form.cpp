#include "app/desks/transfer/transfer_form.h"

#include "app/ask_path.h"
#include "app/desks/desk.h"
#include "app/desks/transfer/characters_window.h"
#include "app/theme/theme.h"
#include "app/words.h"
#include "app/wrap_row.h"

#include <QComboBox>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QIntValidator>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>
#include <array>

namespace sober::app {
namespace {

constexpr std::array ruleWords{"auto", "fat32", "fat16", "exfat", "ntfs", "ext4", "iso9660"};
constexpr const char* usualOrder = R"(albumartist|artist / album / disc "-" track.2 " " title|name)";
constexpr std::size_t previewed = 2;

/// The forms on offer, the first as it is.
QString formName(std::size_t at) {
    const std::array names{QObject::tr("audio as it is"),      QObject::tr("lossless as FLAC"),
                           QObject::tr("lossless as MP3 V0"),  QObject::tr("lossless as Vorbis q7"),
                           QObject::tr("lossless as AAC 192"), QObject::tr("lossless as Opus 128"),
                           QObject::tr("all as Opus 96")};
    return names[at];
}

} // namespace

TransferForm::TransferForm(QWidget* parent)
    : QWidget(parent),
      folder_(new QLineEdit(this)),
      rules_(new QComboBox(this)),
      room_(new QLineEdit(this)),
      longest_(new QLineEdit(this)),
      mode_(new QComboBox(this)),
      layout_(new QComboBox(this)),
      order_(new QLineEdit(this)),
      fields_(new QPushButton(tr("Add a part…"), this)),
      preview_(quietLabel({}, this)),
      lists_(new QComboBox(this)),
      forms_(new QComboBox(this)) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    auto* form = new QFormLayout;
    form->setContentsMargins(0, 0, 0, 0);
    form->setHorizontalSpacing(10);
    form->setVerticalSpacing(6);
    form->setLabelAlignment(Qt::AlignLeft);
    buildWhere(*form);
    buildHow(*form);
    layout->addLayout(form);
    preview_->setFont(Theme::bytes(11));
    preview_->setTextFormat(Qt::PlainText);
    preview_->setAccessibleName(tr("What files will be called"));
    preview_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
    preview_->setMinimumHeight(30);
    preview_->setAlignment(Qt::AlignLeft | Qt::AlignTop);
    layout->addWidget(preview_);
    layout->addStretch(1);
    followLayout();
}

void TransferForm::buildWhere(QFormLayout& form) {
    folder_->setAccessibleName(tr("The folder or drive that it goes to"));
    folder_->setPlaceholderText(tr("a folder or drive"));
    auto* browse = new QPushButton(tr("Choose…"), this);
    auto* where = new QHBoxLayout;
    where->setSpacing(6);
    where->addWidget(folder_, 1);
    where->addWidget(browse);
    form.addRow(tr("Where to"), where);
    rules_->setAccessibleName(tr("What it can hold"));
    rules_->addItems({tr("as it is found"), tr("a card with FAT32"), tr("a small card with FAT16"),
                      tr("a card with exFAT"), tr("a drive with NTFS"), tr("a drive with ext4"),
                      tr("a disc (ISO 9660)")});
    room_->setAccessibleName(tr("Room on a device that is not here, in megabytes"));
    room_->setPlaceholderText(tr("MB free"));
    room_->setMaximumWidth(90);
    room_->setToolTip(tr("For a device that is not here: how many megabytes are free on it"));
    longest_->setAccessibleName(tr("The longest path that the player reads, in characters"));
    longest_->setPlaceholderText(tr("longest path that the player reads"));
    longest_->setToolTip(
        tr("Where the player reads no longer paths: how many characters folders and name may have together"));
    longest_->setValidator(new QIntValidator(1, 32'767, longest_));
    auto* characters = new QPushButton(tr("Characters…"), this);
    characters->setToolTip(tr("What stands for characters that names there cannot hold"));
    connect(characters, &QPushButton::clicked, this, &TransferForm::askForCharacters);
    auto* device = new WrapRow;
    device->setSpacing(6);
    device->addWidget(rules_, 1);
    device->addWidget(room_);
    form.addRow(tr("Which is"), device);
    auto* names = new WrapRow;
    names->setSpacing(6);
    names->addWidget(longest_, 1);
    names->addWidget(characters);
    form.addRow(tr("Names"), names);
    connect(browse, &QPushButton::clicked, this, [this] {
        askForFolder(this, tr("Where to"), [this](const BytePath& folder) { setTarget(folder); });
    });
    connect(folder_, &QLineEdit::textChanged, this, &TransferForm::changed);
    connect(rules_, &QComboBox::currentIndexChanged, this, &TransferForm::changed);
    connect(room_, &QLineEdit::textChanged, this, &TransferForm::changed);
    connect(longest_, &QLineEdit::textChanged, this, &TransferForm::changed);
}

void TransferForm::buildHow(QFormLayout& form) {
    mode_->setAccessibleName(tr("What becomes of the old"));
    mode_->addItems({tr("Copy: the old stays until it is let go"), tr("Put in order in place, by renames"),
                     tr("In steps: each old one goes once its copy is proven")});
    form.addRow(tr("How"), mode_);
    layout_->setAccessibleName(tr("In which order"));
    layout_->addItems({tr("in the folders as they are"), tr("all in one folder"), tr("in an order by tags")});
    form.addRow(tr("Order"), layout_);
    order_->setAccessibleName(tr("The order, from its parts"));
    order_->setText(QString::fromLatin1(usualOrder));
    order_->setFont(Theme::bytes(11));
    auto* order = new WrapRow;
    order->setSpacing(6);
    order->addWidget(order_, 1);
    order->addWidget(fields_);
    addFieldMenu();
    form.addRow(tr("Its parts"), order);
    lists_->setAccessibleName(tr("The lists' form"));
    lists_->addItems({tr("lists as they are"), tr("lists as M3U8"), tr("lists as XSPF"), tr("lists as PLS")});
    forms_->setAccessibleName(tr("In which form"));
    for (std::size_t i = 0; i <= offeredForms.size(); ++i) {
        forms_->addItem(formName(i));
    }
    auto* last = new WrapRow;
    last->setSpacing(6);
    last->addWidget(forms_, 3);
    last->addWidget(lists_, 2);
    form.addRow(tr("Form"), last);
    connect(forms_, &QComboBox::currentIndexChanged, this, [this] {
        preview();
        emit changed();
    });
    connect(mode_, &QComboBox::currentIndexChanged, this, &TransferForm::changed);
    connect(layout_, &QComboBox::currentIndexChanged, this, [this] {
        followLayout();
        emit changed();
    });
    connect(order_, &QLineEdit::textChanged, this, [this] {
        preview();
        emit changed();
    });
    connect(lists_, &QComboBox::currentIndexChanged, this, &TransferForm::changed);
}

void TransferForm::addFieldMenu() {
    auto* menu = new QMenu(fields_);
    const std::array<std::pair<QString, const char*>, 13> parts{
        {{tr("album artist, else artist"), "albumartist|artist"},
         {tr("artist"), "artist"},
         {tr("album"), "album"},
         {tr("disc, where there are several"), "disc"},
         {tr("track, two digits"), "track.2"},
         {tr("title, else the file's name"), "title|name"},
         {tr("date"), "date"},
         {tr("year"), "year"},
         {tr("genre"), "genre"},
         {tr("composer"), "composer"},
         {tr("the folders as they are"), "folders"},
         {tr("a new folder from here on"), "/"},
         {tr("text between two parts"), "\" - \""}}};
    for (const auto& [words, part] : parts) {
        menu->addAction(words, this, [this, part = QString::fromLatin1(part)] {
            order_->insert((order_->cursorPosition() > 0 ? QStringLiteral(" ") : QString()) + part +
                           QLatin1Char(' '));
            order_->setFocus();
        });
    }
    fields_->setMenu(menu);
}

QString TransferForm::layoutText() const {
    return layout_->currentIndex() == 0   ? QStringLiteral("keep")
           : layout_->currentIndex() == 1 ? QStringLiteral("flat")
                                          : order_->text();
}

void TransferForm::followLayout() {
    const bool byTags = layout_->currentIndex() == 2;
    order_->setEnabled(byTags);
    fields_->setEnabled(byTags);
    preview();
}

TransferRequest TransferForm::request() const {
    TransferRequest request;
    const auto text = folder_->text().toStdString();
    request.to = displayPath(chosen_) == text ? chosen_ : text;
    request.rules = ruleWords[static_cast<std::size_t>(rules_->currentIndex())];
    bool isNumber = false;
    if (const double megabytes = room_->text().toDouble(&isNumber); isNumber && megabytes >= 0) {
        request.room = static_cast<std::uint64_t>(megabytes * 1e6);
    }
    request.longestPath = longest_->text().toUInt();
    request.replacements = replacements_;
    request.mode = static_cast<TransferMode>(mode_->currentIndex());
    request.layout = layoutText().toStdString();
    constexpr std::array<std::optional<PlaylistFormat>, 4> forms{std::nullopt, PlaylistFormat::m3u,
                                                                 PlaylistFormat::xspf, PlaylistFormat::pls};
    request.lists.format = forms[static_cast<std::size_t>(lists_->currentIndex())];
    if (const int form = forms_->currentIndex(); form > 0) {
        if (const auto rule = formRuleFrom(offeredForms[static_cast<std::size_t>(form) - 1])) {
            request.forms.push_back(*rule);
        }
    }
    return request;
}

bool TransferForm::hasPlace() const {
    return folder_->text().startsWith(QLatin1Char('/'));
}

void TransferForm::setTarget(const BytePath& folder) {
    chosen_ = folder;
    folder_->setText(shownPath(folder));
}

void TransferForm::setPlan(const TransferPlan* plan) {
    if (plan != nullptr) {
        sample_ = plan->sample;
        targetRules_ = plan->place.rules;
        rules_->setToolTip(told(wordsOf(*targetRules_)));
        showCosts(*plan);
    }
    preview();
}

void TransferForm::askForCharacters() {
    auto* window = new CharactersWindow(replacements_, this);
    connect(window, &QDialog::accepted, this, [this, window] {
        replacements_ = window->replacements();
        preview();
        emit changed();
    });
    window->open();
}

/// What each form would need there, in the box itself.
void TransferForm::showCosts(const TransferPlan& plan) {
    for (std::size_t i = 0; i < plan.costs.size() && static_cast<int>(i) < forms_->count(); ++i) {
        const auto needs = plan.costs[i].second;
        forms_->setItemText(static_cast<int>(i),
                            tr("%1: %2%3")
                                .arg(formName(i), told(humanBytes(needs)),
                                     needs > plan.transfer.free ? tr(", too much") : QString()));
    }
    forms_->setToolTip(
        plan.losslessTimes > 0
            ? tr("Lossless takes %1 times a good lossy file among what comes; rule of thumb: 4 to 5")
                  .arg(figure(plan.losslessTimes, 1))
            : tr("Lossless takes 4 to 5 times a good lossy file (rule of thumb)"));
}

void TransferForm::resizeEvent(QResizeEvent* event) {
    QWidget::resizeEvent(event);
    preview();
}

/// On the custodian's own files, as it is typed.
void TransferForm::preview() {
    const auto* rules = targetRules_ != nullptr ? targetRules_ : targetRulesNamed("ext4");
    const auto previews =
        previewNames(sample_, layoutText().toStdString(), *rules, replacements_, request().forms);
    if (!previews) {
        preview_->setText(told(previews.error().sentence));
        return;
    }
    QStringList lines;
    QStringList elided;
    for (std::size_t i = 0; i < std::min(previewed, previews->size()); ++i) {
        lines << QStringLiteral("→ ") + shownPath((*previews)[i].to);
        elided << preview_->fontMetrics().elidedText(lines.back(), Qt::ElideMiddle, preview_->width());
    }
    preview_->setText(elided.join(QLatin1Char('\n')));
    preview_->setToolTip(lines.join(QLatin1Char('\n')));
}

} // namespace sober::app
