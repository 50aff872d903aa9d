#include "app/language/local_form.h"

#include <QDate>
#include <QLocale>
#include <QRegularExpression>

namespace sober::app {
namespace {

/// Day, short month and year, in the order the language has them.
QString dayInLocalForm(const QDate& day) {
    const QLocale locale;
    auto form = locale.dateFormat(QLocale::LongFormat);
    form.remove(QRegularExpression(QStringLiteral("dddd,?\\s*|\\s*dddd")));
    return locale.toString(day, form.replace(QStringLiteral("MMMM"), QStringLiteral("MMM"))).trimmed();
}

} // namespace

bool isAsTheCoreHasIt() {
    const auto language = QLocale().language();
    return language == QLocale::C || language == QLocale::English;
}

QString inLocalForm(const QString& text) {
    if (isAsTheCoreHasIt()) {
        return text;
    }
    const QLocale locale;
    static const QRegularExpression day(
        QStringLiteral("\\b(\\d{1,2}) (Jan|Feb|Mar|Apr|May|Jun|Jul|Aug|Sep|Oct|Nov|Dec) (\\d{4})\\b"));
    static const QRegularExpression figure(
        QStringLiteral("(?<![\\w.,/:-])(\\d{1,3}(?:,\\d{3})+|\\d+)(\\.\\d+)?(?![\\w/:-]|[.,]\\d)"));
    QString out;
    qsizetype from = 0;
    const auto figures = [&](const QString& piece) {
        qsizetype at = 0;
        for (auto each = figure.globalMatch(piece); each.hasNext();) {
            const auto match = each.next();
            out += piece.mid(at, match.capturedStart() - at);
            auto whole = match.captured(1);
            whole.replace(QLatin1Char(','), locale.groupSeparator());
            out += whole;
            if (const auto rest = match.captured(2); !rest.isEmpty()) {
                out += locale.decimalPoint() + rest.mid(1);
            }
            at = match.capturedEnd();
        }
        out += piece.mid(at);
    };
    for (auto each = day.globalMatch(text); each.hasNext();) {
        const auto match = each.next();
        figures(text.mid(from, match.capturedStart() - from));
        const auto read = QLocale::c().toDate(match.captured(0), QStringLiteral("d MMM yyyy"));
        out += read.isValid() ? dayInLocalForm(read) : match.captured(0);
        from = match.capturedEnd();
    }
    figures(text.mid(from));
    return out;
}

} // namespace sober::app
