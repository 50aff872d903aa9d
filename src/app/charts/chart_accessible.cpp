#include "app/charts/chart_accessible.h"

#include "app/charts/chart.h"

#include <QAccessible>
#include <QAccessibleWidget>

namespace sober::app {
namespace {

class ChartAccessible final : public QAccessibleWidget {
  public:
    explicit ChartAccessible(Chart* chart) : QAccessibleWidget(chart, QAccessible::Chart) {}

    QString text(QAccessible::Text kind) const override {
        if (kind == QAccessible::Value) {
            return static_cast<const Chart*>(widget())->inWords();
        }
        const auto said = QAccessibleWidget::text(kind);
        return kind == QAccessible::Description && said.isEmpty() ? text(QAccessible::Value) : said;
    }
};

QAccessibleInterface* accessibleOf(const QString& /*name*/, QObject* object) {
    auto* chart = qobject_cast<Chart*>(object);
    return chart != nullptr ? new ChartAccessible(chart) : nullptr; // NOLINT: Qt's cache owns it
}

} // namespace

void tellOfCharts() {
    QAccessible::installFactory(&accessibleOf); // once, however often it is said
}

} // namespace sober::app
