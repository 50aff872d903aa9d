#include "ui/long_language.h"

#include "app/lists/list_view.h"
#include "app/words_button.h"

#include <QAbstractButton>
#include <QComboBox>
#include <QFontMetrics>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QRegularExpression>
#include <QScrollArea>
#include <QScrollBar>
#include <QTableView>
#include <QTextDocument>
#include <QTreeView>

namespace sober::test {
namespace {

const QString separator = QStringLiteral(" → ");

QString placeOf(const QWidget& widget) {
    return QString::fromLatin1(widget.metaObject()->className()).section(QStringLiteral("::"), -1);
}

/// Of rich text what is read.
QString plain(const QString& text) {
    if (!Qt::mightBeRichText(text)) {
        return text;
    }
    QTextDocument document;
    document.setHtml(text);
    return document.toPlainText();
}

void addCells(QStringList& all, const QAbstractItemView& view) {
    constexpr int aScreen = 20;
    const auto* model = view.model();
    for (int column = 0; model != nullptr && column < model->columnCount(); ++column) {
        all << QStringLiteral("heading") + separator + model->headerData(column, Qt::Horizontal).toString();
        for (int row = 0; row < std::min(aScreen, model->rowCount()); ++row) {
            const auto index = model->index(row, column);
            if (!index.data(app::bytesRole).toBool()) {
                all << QStringLiteral("cell below ") + model->headerData(column, Qt::Horizontal).toString() +
                           separator + index.data().toString();
            }
        }
    }
}

} // namespace

QString LongLanguage::translate(const char* context, const char* text, const char*, int) const {
    const QString source = QString::fromUtf8(text);
    if (QLatin1String(context).startsWith(QLatin1Char('Q')) &&
        QLatin1String(context) != QLatin1String("QObject")) {
        return {}; // Qt's own words and names of keys
    }
    if (source.startsWith(QLatin1Char('<'))) {
        return source + first + last;
    }
    QString longer;
    static const QString filling = QStringLiteral("ober anem ilda ");
    static const QRegularExpression unit(
        QStringLiteral("^(%?[0-9,.:-]+|%|kHz|Hz|dB|dBFS|min|h|s|ms|kbit/s|×|\\s)+$"));
    if (unit.match(source).hasMatch()) {
        return first + source + last; // units are as short everywhere
    }
    const auto letters = QString(source).remove(QRegularExpression(QStringLiteral("%[0-9n]|\\s+$"))).size();
    for (qsizetype i = 0; i < letters * 2 / 5; ++i) {
        longer += filling[i % filling.size()];
    }
    const auto ending = source.size() - source.trimmed().size() > 0 && source.endsWith(QLatin1Char(' '));
    return first + (ending ? source.chopped(1) : source) +
           (longer.isEmpty() ? QString() : QLatin1Char(' ') + longer) + last +
           (ending ? QStringLiteral(" ") : QString());
}

QStringList textsOf(const QWidget& window) {
    QStringList all;
    auto widgets = window.findChildren<QWidget*>();
    for (const auto* widget : widgets) {
        if (!widget->isVisible()) {
            continue;
        }
        const auto place = placeOf(*widget);
        const auto add = [&](const QString& what, const QString& text) {
            all << place + QLatin1Char(' ') + what + separator + plain(text);
        };
        add(QStringLiteral("tip"), widget->toolTip());
        add(QStringLiteral("name"), widget->accessibleName());
        if (const auto* label = qobject_cast<const QLabel*>(widget)) {
            add(QStringLiteral("text"), label->text());
        } else if (const auto* button = qobject_cast<const QAbstractButton*>(widget)) {
            add(QStringLiteral("text"), button->text());
        } else if (const auto* box = qobject_cast<const QComboBox*>(widget)) {
            for (int i = 0; i < box->count(); ++i) {
                add(QStringLiteral("item"), box->itemText(i));
            }
        } else if (const auto* line = qobject_cast<const QLineEdit*>(widget)) {
            add(QStringLiteral("hint"), line->placeholderText());
        } else if (const auto* view = qobject_cast<const QAbstractItemView*>(widget);
                   view != nullptr && (qobject_cast<const QTableView*>(widget) != nullptr ||
                                       qobject_cast<const QTreeView*>(widget) != nullptr)) {
            addCells(all, *view);
        }
    }
    return all;
}

QStringList unmarked(const QStringList& texts, const std::set<QString>& data) {
    // Figures with their units, keys, names of codecs and forms, paths and lists of them: the same in every
    // language.
    static const QRegularExpression same(
        QStringLiteral("\\b(kB|MB|GB|TB|MiB|h|min|s|kHz|Hz|dB|dBFS|Ctrl|Alt|Shift|Del|Ins|F1|[A-Z]|MP3|FLAC|"
                       "PCM|AAC|ALAC|OPUS|VORBIS|WAV|AIFF|WMA|AC3|"
                       "mp3|flac|wav|m4a|ogg|opus|aiff?|aac|wma|ape|wv|V0|q7|Jan|Feb|Mar|Apr|May|Jun|Jul|Aug|"
                       "Sep|Oct|Nov|Dec)\\b|kbit/s"));
    static const QRegularExpression letters(QStringLiteral("\\p{L}{2}"));
    std::set<QString> found;
    for (const auto& each : texts) {
        const auto text = each.section(separator, 1);
        if (text.contains(LongLanguage::first) || data.contains(text) || text.contains(QLatin1Char('/'))) {
            continue;
        }
        if (QString(text).remove(same).contains(letters)) {
            found.insert(each);
        }
    }
    return {found.begin(), found.end()};
}

QStringList cutIn(const QWidget& window) {
    QStringList cut;
    for (const auto* widget : window.findChildren<QWidget*>()) {
        if (!widget->isVisible() || widget->visibleRegion().isEmpty()) {
            continue;
        }
        const auto say = [&](const QString& text, int has, int needs) {
            cut << QStringLiteral("%1: %2 has %3 of %4").arg(placeOf(*widget), text).arg(has).arg(needs);
        };
        if (const auto* label = qobject_cast<const QLabel*>(widget)) {
            if (label->wordWrap()) {
                if (label->heightForWidth(label->width()) > label->height() + 1) {
                    say(label->text(), label->height(), label->heightForWidth(label->width()));
                }
            } else if (label->sizePolicy().horizontalPolicy() != QSizePolicy::Ignored &&
                       label->sizeHint().width() > label->width() + 1) {
                say(label->text(), label->width(), label->sizeHint().width());
            }
        } else if (const auto* words = qobject_cast<const app::WordsButton*>(widget)) {
            if (words->heightForWidth(words->width()) > words->height()) {
                say(words->text(), words->height(), words->heightForWidth(words->width()));
            }
        } else if (const auto* button = qobject_cast<const QAbstractButton*>(widget)) {
            if (!button->text().isEmpty() && button->sizeHint().width() > button->width() + 1) {
                say(button->text(), button->width(), button->sizeHint().width());
            }
        } else if (const auto* box = qobject_cast<const QComboBox*>(widget)) {
            constexpr int arrow = 30;
            const int needed = box->fontMetrics().horizontalAdvance(box->currentText()) + arrow;
            if (box->currentText().contains(LongLanguage::first) && needed > box->width()) {
                say(box->currentText(), box->width(), needed);
            }
        } else if (const auto* heading = qobject_cast<const QHeaderView*>(widget);
                   heading != nullptr && heading->orientation() == Qt::Horizontal &&
                   heading->model() != nullptr) {
            for (int i = 0; i < heading->count(); ++i) {
                const auto text = heading->model()->headerData(i, Qt::Horizontal).toString();
                constexpr int beside = 12;
                const int needed = heading->fontMetrics().horizontalAdvance(text) + beside;
                if (!heading->isSectionHidden(i) && needed > heading->sectionSize(i)) {
                    say(text, heading->sectionSize(i), needed);
                }
            }
        }
        // What is pushed out of the window is cut, too, unless a bar leads there.
        bool canBeReached = false;
        for (const auto* each = widget->parentWidget(); each != nullptr; each = each->parentWidget()) {
            const auto* area = qobject_cast<const QScrollArea*>(each);
            canBeReached = canBeReached || (area != nullptr && area->horizontalScrollBar()->maximum() > 0);
        }
        if (!canBeReached && qobject_cast<const QAbstractButton*>(widget) != nullptr) {
            const auto right = widget->mapTo(&window, QPoint(widget->width(), 0)).x();
            if (right > window.width()) {
                say(QStringLiteral("outside: ") + static_cast<const QAbstractButton*>(widget)->text(),
                    window.width(), right);
            }
        }
    }
    return cut;
}

} // namespace sober::test
