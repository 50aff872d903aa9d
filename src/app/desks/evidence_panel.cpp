#include "app/desks/evidence_panel.h"

#include "app/charts/claims_map.h"
#include "app/charts/spectrum_chart.h"
#include "app/charts/time_picture.h"
#include "app/charts/trace_chart.h"
#include "app/desks/desk.h"
#include "app/listening/listening_bar.h"
#include "app/theme/marks.h"
#include "app/theme/theme.h"
#include "app/words.h"
#include "app/wrap_label.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/volumes.h"
#include "core/evidence/worker/evidence_worker.h"

#include <QLabel>
#include <QVBoxLayout>

#include <algorithm>

namespace sober::app {
namespace {

constexpr std::size_t pictureColumns = 720;

Result<std::pair<TimeSpectrum, BytePath>> pictureOf(const BytePath& path, RunControl& control) {
    auto picture = EvidenceWorker().timePicture(path, pictureColumns, control);
    return picture ? Result(std::pair(std::move(*picture), path))
                   : Result<std::pair<TimeSpectrum, BytePath>>(picture.error());
}

QString capitalised(QString sentence) {
    sentence[0] = sentence.at(0).toUpper();
    return sentence;
}

QString verdictTitle(const Evidence& evidence) {
    const auto& verdict = evidence.verdict;
    QString text = verdictWord(verdict.verdict);
    if (verdict.confidence > 0) {
        text += EvidencePanel::tr(", %1 % sure").arg(figure(verdict.confidence * 100, 0));
    }
    if (!verdict.sourceCodec.empty()) {
        text += verdict.sourceBitrate > 0 ? EvidencePanel::tr(": was %1 at about %2 kbit/s")
                                                .arg(codecName(verdict.sourceCodec))
                                                .arg(verdict.sourceBitrate / 1000)
                                          : EvidencePanel::tr(": was %1").arg(codecName(verdict.sourceCodec));
    }
    return text;
}

} // namespace

Result<HoldingDetail> detailOfHolding(const Catalogue& catalogue, HoldingId id) {
    const Holdings holdings(catalogue);
    const EvidenceStore store(catalogue);
    const auto found = holdings.byIds(std::array{id});
    const auto volumes = Volumes(catalogue).all();
    if (!found || !volumes) {
        return found ? volumes.error() : found.error();
    }
    HoldingDetail detail;
    if (found->empty()) {
        return detail;
    }
    detail.holding = found->front();
    const auto volumeOf = [&](VolumeId volume) { return std::ranges::find(*volumes, volume, &Volume::id); };
    if (const auto volume = volumeOf(detail.holding.volume); volume != volumes->end()) {
        detail.volume = numberedLabel(*volume);
        detail.atHand = volume->atHand;
        detail.path = joinPath(volume->root, detail.holding.path);
    }
    auto evidence = store.of(id);
    auto acceptance = store.acceptanceOf(id);
    const auto better = store.betterThan(id);
    if (!evidence || !acceptance || !better) {
        return !evidence ? evidence.error() : !acceptance ? acceptance.error() : better.error();
    }
    detail.evidence = std::move(*evidence);
    detail.acceptance = std::move(*acceptance);
    if (*better) {
        const auto copy = holdings.byIds(std::array{**better});
        RETURN_IF_FAILED(copy);
        if (!copy->empty()) {
            const auto& other = copy->front();
            const auto volume = volumeOf(other.volume);
            detail.better = (volume != volumes->end() ? volume->label + "/" : std::string()) +
                            displayPath(other.path) + " (" + claimWords(other.claims).toStdString() + ")";
        }
    }
    return detail;
}

EvidencePanel::EvidencePanel(Workbench& workbench)
    : workbench_(workbench),
      verdict_(strongLabel({}, this)),
      reasons_(new WrapLabel(this)),
      accepted_(new WrapLabel(this)),
      spectrum_(new SpectrumChart(this)),
      trace_(new TraceChart(this)),
      picture_(new TimePicture(this)),
      facts_(new WrapLabel(this)),
      listening_(new ListeningBar(this)) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(6);
    for (auto* label : {verdict_, reasons_, accepted_, facts_}) {
        label->setWordWrap(true);
        label->setTextInteractionFlags(Qt::TextSelectableByMouse);
        label->setFocusPolicy(Qt::NoFocus);
    }
    verdict_->setAccessibleName(tr("Verdict"));
    reasons_->setAccessibleName(tr("Reasons of the verdict"));
    accepted_->setAccessibleName(tr("Why it was accepted"));
    accepted_->setProperty("tone", "accent");
    facts_->setAccessibleName(tr("Facts"));
    facts_->setProperty("tone", "quiet");
    verdict_->setToolTip(tr(
        "How sure it is says how clearly the evidence speaks, not how likely an error is: what is said below "
        "is what was measured."));
    facts_->setToolTip(
        tr("Claims: what the file states of itself; of a lossless one the bits of a sample and thousands of "
           "samples a second.\n"
           "Peak and mean: the loudest sample and the average, in decibels below full scale (dBFS).\n"
           "Bits used: how many of each sample's bits are not always zero.\n"
           "Clipped samples: three or more in a row at full scale, where the wave was cut off."));
    layout->addWidget(verdict_);
    layout->addWidget(reasons_);
    layout->addWidget(accepted_);
    layout->addWidget(spectrum_);
    layout->addWidget(trace_);
    layout->addWidget(picture_);
    layout->addWidget(listening_);
    layout->addWidget(facts_);
    layout->addStretch(1);
    connect(picture_, &TimePicture::pictureWanted, this, &EvidencePanel::makePicture);
    connect(picture_, &TimePicture::placeChosen, listening_, &ListeningBar::goTo);
    connect(listening_, &ListeningBar::placeChanged, picture_, &TimePicture::setPlace);
    setDetail(std::nullopt);
}

void EvidencePanel::setDetail(const std::optional<HoldingDetail>& detail) {
    const bool same = detail && detail_ && detail->path == detail_->path &&
                      detail->holding.checksum == detail_->holding.checksum;
    detail_ = detail && detail->holding.id != 0 ? detail : std::nullopt;
    const Evidence* evidence = detail_ && detail_->evidence ? &*detail_->evidence : nullptr;
    for (auto* part : std::initializer_list<QWidget*>{spectrum_, trace_, picture_, listening_}) {
        part->setVisible(evidence != nullptr);
    }
    accepted_->setVisible(detail_ && detail_->acceptance);
    if (evidence == nullptr) {
        verdict_->setText(detail_ ? tr("Not examined") : QString());
        reasons_->setText(detail_ ? tr("Survey its volume at full effort, and what is in it is measured.")
                                  : tr("Choose a point or a line, and its evidence is shown here."));
        facts_->clear();
        listening_->setFile({});
        return;
    }
    verdict_->setText(capitalised(verdictTitle(*evidence)));
    QStringList reasons;
    for (const auto& reason : evidence->verdict.reasons) {
        reasons << told(reason);
    }
    if (!evidence->sound()) {
        const auto& first = evidence->problems.front();
        reasons << tr("not sound: %1 at %2").arg(told(first.detail), told(humanSeconds(first.at)));
    }
    reasons_->setText(capitalised(reasons.join(QStringLiteral("; ")) + QLatin1Char('.')));
    if (detail_->acceptance) {
        accepted_->setText(
            tr("Accepted as it is: %1 (%2).")
                .arg(shown(detail_->acceptance->reason), told(localDay(detail_->acceptance->accepted))));
    }
    spectrum_->setSpectrum(evidence->spectrum, evidence->bandwidth);
    trace_->setTrace(evidence->trace);
    facts_->setText(facts());
    if (!same) {
        ++pictureAsked_;
        picture_->setPicture(std::nullopt);
        picture_->setEmptyText(
            detail_->atHand ? tr("Click here to see its frequencies over time (decodes the file once).")
                            : tr("The volume is away: no frequencies over time."));
        if (detail_->atHand) {
            listening_->setFile(detail_->path);
        } else {
            listening_->setAway(workbench_, detail_->holding.id, tr("The volume is away."));
        }
    }
}

void EvidencePanel::makePicture() {
    if (!detail_ || !detail_->atHand) {
        return;
    }
    picture_->setEmptyText(tr("Decoding…"));
    workbench_.look<std::pair<TimeSpectrum, BytePath>>(
        this, [path = detail_->path](RunControl& control) { return pictureOf(path, control); },
        [this, asked = ++pictureAsked_](const std::pair<TimeSpectrum, BytePath>& made) {
            if (asked == pictureAsked_) {
                picture_->setPicture(made.first);
            }
        });
}

QString EvidencePanel::facts() const {
    const auto& evidence = *detail_->evidence;
    const auto& levels = evidence.levels;
    QStringList lines;
    const auto& claims = detail_->holding.claims;
    lines << tr("Claims %1 %2, %3")
                 .arg(claimWords(claims), claims.lossless ? tr("bits/kHz") : tr("kbit/s"),
                      told(humanSeconds(evidence.seconds)));
    QStringList measured{tr("peak %1 dBFS").arg(figure(levels.peak, 1)),
                         tr("mean %1 dBFS").arg(figure(levels.rms, 1))};
    if (levels.effectiveBitDepth > 0) {
        measured << tr("%1 bits used").arg(levels.effectiveBitDepth);
    }
    if (levels.clipped > 0) {
        measured
            << tr("%1 clipped samples").arg(told(humanCount(static_cast<std::uint64_t>(levels.clipped))));
    }
    if (levels.identicalChannels) {
        measured << tr("mono stored as stereo");
    }
    lines << tr("Measured %1").arg(measured.join(QStringLiteral(", ")));
    if (!detail_->better.empty()) {
        lines << tr("A better copy: %1").arg(shown(detail_->better));
    }
    lines << shown(detail_->volume) + QLatin1Char('/') + shownPath(detail_->holding.path);
    return lines.join(QLatin1Char('\n'));
}

} // namespace sober::app
