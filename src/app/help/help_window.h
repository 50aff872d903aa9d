#pragma once

#include "app/language/language.h"

#include <QDialog>

class QLineEdit;
class QListWidget;
class QTextBrowser;

namespace sober::app {

/// One section of the guide, or what stands beside it.
struct GuidePage {
    QString heading;
    QString text; ///< with its heading
    Qt::TextFormat format = Qt::MarkdownText;
    QString words = {}; ///< the text without marks, to be searched
};

/// The sections of the guide that is shipped within the program, in their order: in a language (of ISO 639),
/// in English where there is none in that.
QList<GuidePage> guidePages(const QString& language = languageOn());
/// The heading of the section about a desk in the language that is on; "" for one that the guide does not
/// know.
QString guideHeadingOf(const QWidget& desk);

/// The guide beside its headings, with a line that searches it; then all keys, and what the program is made
/// of.
class HelpWindow : public QDialog {
    Q_OBJECT

  public:
    /// `keys` is the page of all keys, as HTML.
    HelpWindow(const QString& keys, QWidget* parent);
    /// Shows the section of that heading, the first for one that is not there.
    void showPage(const QString& heading);

  private:
    void narrow(const QString& words);
    void showCurrent();

    QList<GuidePage> pages_;
    QLineEdit* search_;
    QListWidget* headings_;
    QTextBrowser* text_;
};

/// Every key of a window's menus and of the buttons that name one, by where it is.
QString keysPage(const QWidget& window);

} // namespace sober::app
