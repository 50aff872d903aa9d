#pragma once

#include "app/theme/inks.h"

#include <QApplication>
#include <QFont>

namespace sober::app {

/// The look of the whole program: paper, inks, fonts and the style sheet made from them.
class Theme {
  public:
    /// Puts a paper on; every window follows at once.
    static void apply(QApplication& application, Paper paper);
    /// Makes the fonts of a folder known, beside the system's.
    static void addFonts(const QString& folder);
    /// What is on now.
    static Paper paper();
    static const Inks& inks() { return inksOf(paper()); }

    static QFont text(int pixels = 13);
    static QFont strong(int pixels = 13);
    static QFont title(int pixels = 24);
    static QFont bytes(int pixels = 12);
};

} // namespace sober::app
