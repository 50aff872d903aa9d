#include "app/language/language.h"

#include "app/language/local_form.h"
#include "app/language/sentence_book.h"

#include <QApplication>
#include <QFile>
#include <QLibraryInfo>
#include <QLocale>
#include <QSettings>
#include <QTranslator>

#include <memory>

namespace sober::app {
namespace {

const QString translatorName = QStringLiteral("language");

const SentenceBook& sentenceBook() {
    static const SentenceBook book = [] {
        QFile file(QStringLiteral(":/language/sentences.txt"));
        const auto lines = file.open(QIODevice::ReadOnly) ? file.readAll() : QByteArray();
        return SentenceBook({lines.constData(), static_cast<std::size_t>(lines.size())});
    }();
    return book;
}

} // namespace

QList<Language> allLanguages() {
    return {{QStringLiteral("en"), QStringLiteral("English")},
            {QStringLiteral("de"), QStringLiteral("Deutsch")}};
}

QString languageChosen() {
    return QSettings().value(QStringLiteral("language")).toString();
}

void chooseLanguage(const QString& code) {
    QSettings().setValue(QStringLiteral("language"), code);
}

void putLanguageOn(QApplication& application) {
    auto code = languageChosen();
    if (code.isEmpty()) {
        // The first of the desktop's languages that there is.
        code = QLocale::system().name();
        for (const auto& wanted : QLocale::system().uiLanguages()) {
            const auto language = wanted.section(QLatin1Char('-'), 0, 0);
            const auto all = allLanguages();
            if (std::any_of(all.begin(), all.end(),
                            [&](const Language& each) { return each.code == language; })) {
                code = wanted;
                break;
            }
        }
    }
    putLanguageOn(application, code);
}

void putLanguageOn(QApplication& application, const QString& code) {
    const QLocale wanted(code);
    // The desktop's own form of figures where it speaks that language: Swiss figures for a Swiss.
    const QLocale desktop = QLocale::system();
    const QLocale locale = desktop.language() == wanted.language() ? desktop : wanted;
    QLocale::setDefault(locale);
    for (auto* before : application.findChildren<QTranslator*>(translatorName)) {
        QApplication::removeTranslator(before);
        delete before;
    }
    // By its name, not by the desktop's list: who has English first and German second wants English.
    const auto put = [&](const QString& name, const QString& folder) {
        auto translator = std::make_unique<QTranslator>(&application);
        translator->setObjectName(translatorName);
        const bool isThere = translator->load(name + QLatin1Char('_') + wanted.name(), folder);
        if (isThere) {
            QApplication::installTranslator(translator.release());
        }
        return isThere;
    };
    const bool isSpoken = put(QStringLiteral("sober"), QStringLiteral(":/language"));
    if (isSpoken) {
        put(QStringLiteral("qtbase"), QLibraryInfo::path(QLibraryInfo::TranslationsPath));
    }
    QApplication::setLayoutDirection(isSpoken ? wanted.textDirection() : Qt::LeftToRight);
}

QString languageOn() {
    //: The code of the language that this is the translation into, of ISO 639.
    return QCoreApplication::translate("language", "en");
}

QString told(const std::string& sentence) {
    if (languageOn() == QStringLiteral("en") && isAsTheCoreHasIt()) {
        return QString::fromStdString(sentence);
    }
    return sentenceBook().told(
        sentence, [](const char* pattern) { return QCoreApplication::translate("core", pattern); },
        [](const char* pattern, int number) {
            const auto said = QCoreApplication::translate("counted", pattern, nullptr, number);
            // Untranslated, only the singular is known: the core's own form stays.
            return said == QString::fromLatin1(pattern).replace(QStringLiteral("%n"), QString::number(number))
                       ? QString()
                       : QString(said).replace(QString::number(number), QStringLiteral("%n"));
        });
}

} // namespace sober::app
