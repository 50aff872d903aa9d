#include "app/desks/copies/set_pictures.h"

#include "app/words.h"
#include "core/evidence/worker/evidence_worker.h"

#include <QHBoxLayout>

#include <algorithm>

namespace sober::app {

SetPictures::SetPictures(Workbench& workbench, QWidget* parent)
    : QStackedWidget(parent),
      workbench_(workbench),
      chart_(new SetChart(this)),
      lineage_(new LineageChart(this)),
      overlay_(new OverlayChart(this)) {
    auto* pair = new QWidget(this);
    auto* side = new QHBoxLayout(pair);
    side->setContentsMargins(0, 0, 0, 0);
    side->setSpacing(16);
    side->addWidget(lineage_, 3);
    side->addWidget(overlay_, 2);
    addWidget(chart_);
    addWidget(pair);
    connect(chart_, &SetChart::memberChosen, this, &SetPictures::memberChosen);
    connect(lineage_, &LineageChart::memberChosen, this, &SetPictures::memberChosen);
}

void SetPictures::clear() {
    detail_.reset();
    chart_->setDetail(std::nullopt, {});
    lineage_->setDetail(std::nullopt);
    setCurrentIndex(0);
}

void SetPictures::setDetail(std::shared_ptr<const SetDetail> detail, const std::vector<Volume>& volumes) {
    detail_ = std::move(detail);
    chart_->setDetail(*detail_, volumes);
    lineage_->setDetail(detail_->known.isEmpty() ? std::nullopt : std::optional(*detail_));
    setCurrentIndex(detail_->known.isEmpty() ? 0 : 1);
}

void SetPictures::setCurrent(std::optional<std::size_t> member, const std::vector<MemberRow>& rows) {
    if (!member || !detail_) {
        chart_->setCurrent(0);
        return;
    }
    chart_->setCurrent(detail_->members[*member].id);
    lineage_->setCurrent(detail_->members[*member].id);
    if (!detail_->known.isEmpty()) {
        showPair(*member, rows);
    }
}

std::size_t SetPictures::keeperPlace() const {
    const auto keeper = std::ranges::find(detail_->advice, Advice::keep, &MemberAdvice::advice);
    return keeper != detail_->advice.end() ? static_cast<std::size_t>(keeper - detail_->advice.begin()) : 0;
}

/// The chosen member beside the keeper: spectra, what subtraction leaves, and the sound.
void SetPictures::showPair(std::size_t member, const std::vector<MemberRow>& rows) {
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
        comparePair(rows[keeper], rows[member]);
    }
}

void SetPictures::comparePair(const MemberRow& keeper, const MemberRow& member) {
    if (!keeper.atHand || !member.atHand) {
        overlay_->setComparison(std::nullopt, tr("One of both is away."));
        return;
    }
    overlay_->setComparison(std::nullopt, tr("Comparing…"));
    const auto chain = detail_->known.comparison(keeper.at, member.at);
    workbench_.look<DecodeComparison>(
        this,
        [first = keeper.path(), second = member.path(), coarse = chain ? chain->offset : 0.0](
            RunControl& control) { return EvidenceWorker().compare(first, second, coarse, control); },
        [this, asked = pairAsked_](const DecodeComparison& made) {
            if (asked == pairAsked_) {
                overlay_->setComparison(made);
            }
        });
}

} // namespace sober::app
