#include "app/desks/salvage/find_evidence.h"

#include "app/desks/desk.h"
#include "app/listening/listening_bar.h"
#include "app/theme/theme.h"
#include "app/words.h"
#include "core/media/byte_source.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QVBoxLayout>

namespace sober::app {
namespace {

QString howWords(const Find& find) {
    switch (find.recognised) {
    case RecognisedBy::bytes:
        return FindEvidence::tr("all of its bytes are the same");
    case RecognisedBy::payload:
        return FindEvidence::tr("its audio data is the same, its tags are not");
    case RecognisedBy::samples:
        return FindEvidence::tr("its samples are the same");
    case RecognisedBy::blocks:
        return find.agreement >= 1
                   ? FindEvidence::tr("put together from its recorded parts, every byte of it")
                   : FindEvidence::tr("put together from its recorded parts, of which %1 % are there")
                         .arg(figure(find.agreement * 100, 0));
    case RecognisedBy::fingerprint:
        return FindEvidence::tr("it sounds the same (%1 % of the fingerprint agree)")
            .arg(figure(find.agreement * 100, 0));
    case RecognisedBy::tags:
        return FindEvidence::tr("only its tags say so");
    case RecognisedBy::nothing:
        break;
    }
    return {};
}

QString liesWords(const Find& find, const BytePath& image) {
    if (image.empty()) {
        return find.from.empty() ? FindEvidence::tr("in the trash as %1; where it was is not known")
                                       .arg(shownPath(find.file))
                                 : FindEvidence::tr("in the trash as %1; it was at %2")
                                       .arg(shownPath(find.file), shownPath(find.from));
    }
    std::size_t pieces = 0;
    std::uint64_t first = 0;
    for (const auto& range : find.extents) {
        if (range.first < ExtentSource::nowhere) {
            first = pieces == 0 ? range.first : first;
            ++pieces;
        }
    }
    const auto name =
        find.from.empty() ? QString() : FindEvidence::tr(", once called %1").arg(shownPath(find.from));
    return pieces == 1 ? FindEvidence::tr("in one piece from byte %1 on%2").arg(told(humanCount(first)), name)
                       : FindEvidence::tr("in %1 pieces, the first from byte %2 on%3")
                             .arg(pieces)
                             .arg(told(humanCount(first)), name);
}

} // namespace

QString findName(const Find& find, const KnownFind& known) {
    const auto& title =
        find.tags.title.empty() && known.holding ? known.holding->tags.title : find.tags.title;
    return !title.empty()       ? shown(title)
           : !find.name.empty() ? shownPath(find.name)
           : known.holding      ? shownPath(BytePath(nameOf(known.place)))
                                : FindEvidence::tr("without a name");
}

QString wholeWords(const Find& find) {
    if (!find.examined) {
        return FindEvidence::tr("not examined yet");
    }
    if (find.complete && *find.complete < 1) {
        return FindEvidence::tr("%1 % of it").arg(figure(*find.complete * 100, 0));
    }
    return !find.ends ? find.begins ? FindEvidence::tr("broken off") : FindEvidence::tr("a middle part")
           : find.overwritten    ? FindEvidence::tr("written over in part")
           : find.sound == false ? FindEvidence::tr("damaged")
                                 : FindEvidence::tr("whole");
}

FindEvidence::FindEvidence(QWidget* parent)
    : QWidget(parent),
      title_(strongLabel({}, this)),
      lies_(paragraph(tr("Where it lies"), this)),
      known_(paragraph(tr("What it is recognised as"), this)),
      whole_(paragraph(tr("How whole it is"), this)),
      listening_(new ListeningBar(this)) {
    title_->setTextFormat(Qt::PlainText);
    title_->setAccessibleName(tr("The chosen find"));
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(0, 4, 0, 0);
    row->setSpacing(20);
    auto* first = new QVBoxLayout;
    first->setSpacing(4);
    first->addWidget(title_);
    first->addWidget(lies_);
    first->addWidget(listening_);
    first->addStretch(1);
    row->addLayout(first, 5);
    auto* second = new QVBoxLayout;
    second->setSpacing(4);
    second->addWidget(quietLabel(tr("In the collection"), this));
    second->addWidget(known_);
    second->addWidget(whole_);
    second->addStretch(1);
    row->addLayout(second, 5);
    setFixedHeight(132); // so that the list stays as it is
    setFind(std::nullopt, {}, {});
}

void FindEvidence::setFind(const std::optional<Find>& find, const KnownFind& known, const BytePath& image) {
    if (!find) {
        shown_ = 0;
        title_->setText(tr("Choose a find to see where it lies and what it is."));
        for (auto* label : {lies_, known_, whole_}) {
            label->clear();
        }
        listening_->setFile({}, tr("nothing is chosen"));
        return;
    }
    QString title = findName(*find, known);
    for (const auto& field : {find->tags.artist, find->tags.album}) {
        title += field.empty() ? QString() : QStringLiteral(" · ") + shown(field);
    }
    title_->setText(title);
    lies_->setText(liesWords(*find, image));
    switch (known.standing) {
    case FindStanding::missing:
        known_->setText(tr("This is the missing %1: %2.").arg(shownPath(known.place), howWords(*find)));
        break;
    case FindStanding::held:
        known_->setText(tr("Held already at %1: %2.").arg(shownPath(known.place), howWords(*find)));
        break;
    case FindStanding::retired:
        known_->setText(
            tr("It was retired or written off at %1: %2.").arg(shownPath(known.place), howWords(*find)));
        break;
    case FindStanding::unknown:
        known_->setText(find->examined ? tr("Nothing in the catalogue is this recording: it is new.")
                                       : tr("It was not examined yet."));
        break;
    }
    const auto taken = find->taken.empty() ? QString() : tr(" It was put at %1.").arg(shownPath(find->taken));
    whole_->setText(tr("%1, %2, %3.")
                        .arg(wholeWords(*find), told(humanBytes(find->bytes)),
                             find->seconds > 0 ? told(humanSeconds(find->seconds))
                                               : tr("of a length that is not known")) +
                    taken);
    if (shown_ != find->id) {
        shown_ = find->id;
        if (image.empty()) {
            listening_->setFile(find->file);
        } else {
            listening_->setPart({image, find->others, find->extents});
        }
    }
}

} // namespace sober::app
