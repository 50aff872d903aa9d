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
    static const QRegularExpression day(QStringLiteral(
        "^(\\d{1,2} (?:Jan|Feb|Mar|Apr|May|Jun|Jul|Aug|Sep|Oct|Nov|Dec) \\d{4})(, \\d\\d:\\d\\d)?$"));
    if (const auto match = day.match(text); match.hasMatch()) {
        const auto read = QLocale::c().toDate(match.captured(1), QStringLiteral("d MMM yyyy"));
        return read.isValid() ? dayInLocalForm(read) + match.captured(2) : text;
    }
    static const QRegularExpression figures(QStringLiteral(
        "^-?(?:\\d{1,3}(?:,\\d{3})+|\\d+)(?:\\.\\d+)?(?: (?:[kMGT]B|h|min|m?s|k?Hz|dB|%|kbit/s))?"
        "(?: \\d+ (?:min|s))?$"));
    if (!figures.match(text).hasMatch()) {
        return text;
    }
    const QLocale locale;
    QString out;
    for (const auto letter : text) {
        out += letter == QLatin1Char(',')   ? locale.groupSeparator()
               : letter == QLatin1Char('.') ? locale.decimalPoint()
                                            : QString(letter);
    }
    return out;
}

} // namespace sober::app
