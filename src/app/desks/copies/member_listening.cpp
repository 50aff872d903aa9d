#include "app/desks/copies/member_listening.h"

#include "app/listening/listening_bar.h"
#include "app/words.h"

#include <algorithm>

namespace sober::app {

MemberListening::MemberListening(Workbench& workbench, QWidget* parent)
    : QObject(parent), workbench_(workbench), bar_(new ListeningBar(parent)) {}

void MemberListening::clear() {
    heard_.reset();
    away_ = 0;
    bar_->setFile({});
}

void MemberListening::listenTo(const MemberRow& row) {
    const auto member = row.at;
    if (!row.atHand) {
        if (away_ != row.holding().id) {
            bar_->setAway(workbench_, row.holding().id, tr("%1 is away.").arg(shown(row.volume)));
        }
        away_ = row.holding().id;
        heard_.reset();
        return;
    }
    away_ = 0;
    const auto path = row.path();
    const auto& known = row.detail->known;
    double gain = 0;
    double later = 0;
    if (!known.isEmpty()) {
        double quietest = 0;
        for (std::size_t at = 0; at < row.detail->members.size(); ++at) {
            if (known.facts(at).examined && !known.facts(at).evidence.levels.silent) {
                quietest = std::min(quietest, known.facts(at).evidence.levels.rms);
            }
        }
        if (known.facts(member).examined) {
            gain = quietest - known.facts(member).evidence.levels.rms;
        }
        if (heard_ && *heard_ < row.detail->members.size() && *heard_ != member) {
            if (const auto comparison = known.comparison(*heard_, member)) {
                later = -comparison->offset;
            }
        }
    }
    heard_ = member;
    bar_->switchTo(path, later, std::min(gain, 0.0));
}

} // namespace sober::app
