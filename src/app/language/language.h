#pragma once

#include <QString>
#include <QStringList>

#include <string>

class QApplication;

namespace sober::app {

/// A language the window can be had in.
struct Language {
    QString code; ///< of ISO 639, "de"; empty: as the desktop has it
    QString name; ///< as its speakers call it
};

/// All there are, English first.
QList<Language> allLanguages();

/// What was chosen in the settings; empty: as the desktop has it.
QString languageChosen();
void chooseLanguage(const QString& code);

/// Puts the chosen language on, with Qt's own words, the direction it is written in and the form of figures
/// and dates. Called before any window is made: those that are there already stay as they are.
void putLanguageOn(QApplication& application);

/// The same for a language that is named; where there is no such translation, the words stay English from
/// left to right, and only figures and dates follow.
void putLanguageOn(QApplication& application, const QString& code);

/// The language that the words are in, of ISO 639: "en" where there is no translation into the one wanted.
QString languageOn();

/// What the core says, in the language that is on.
QString told(const std::string& sentence);

} // namespace sober::app
