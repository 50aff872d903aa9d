#pragma once

#include "app/words.h"
#include "app/workbench.h"
#include "core/audit/refresh_findings.h"

namespace sober::app {

/// Runs `work(catalogue, control)` on the long thread, brings the findings up to date, and calls
/// `then(result)` here.
template <typename Work, typename Then>
void Workbench::runLong(LongWork kind, Work work, Then then) {
    begin(kind);
    long_->post([this, work, then, control = control_] {
        auto result = work(**writer_, *control);
        const auto refreshed = refreshFindings(**writer_);
        QMetaObject::invokeMethod(this, [this, then, result, refreshed] {
            end();
            if (!result) {
                emit failed(told(result.error().sentence));
            }
            if (!refreshed) {
                emit failed(told(refreshed.error().sentence));
            }
            emit contentChanged();
            emit docketChanged();
            if (result) {
                then(*result);
            }
        });
    });
}

} // namespace sober::app
