#pragma once

#include <QString>
#include <QStringList>
#include <QTranslator>

#include <set>

class QWidget;

namespace sober::test {

/// A made-up language: every string with marks around it and longer by 40 %, as some languages are. What is
/// shown without marks was never asked for, or was put together in some other way.
class LongLanguage : public QTranslator {
  public:
    using QTranslator::QTranslator;

    static constexpr QChar first{0x2039};
    static constexpr QChar last{0x203A};

    bool isEmpty() const override { return false; }
    QString translate(const char* context, const char* text, const char* disambiguation,
                      int number) const override;
};

/// What a person reads of a window, one line for each text with where it stands: labels, buttons, boxes,
/// headings, cells, tips, names that are read out.
QStringList textsOf(const QWidget& window);

/// Those of them that hold words and no mark, and are none of the `data`.
QStringList unmarked(const QStringList& texts, const std::set<QString>& data);

/// What has less room than its words need: labels, buttons, boxes and headings of columns.
QStringList cutIn(const QWidget& window);

} // namespace sober::test
