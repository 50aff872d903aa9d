#pragma once

#include "core/salvage/recogniser.h"

#include <QWidget>

class QLabel;

namespace sober::app {

class ListeningBar;

/// One find of salvage: what it is, where it lies, how it was recognised, and its sound as far as it is
/// there.
class FindEvidence : public QWidget {
    Q_OBJECT

  public:
    explicit FindEvidence(QWidget* parent = nullptr);
    /// `image`: in which it lies, "" for what lies in a trash.
    void setFind(const std::optional<Find>& find, const KnownFind& known, const BytePath& image);

  private:
    QLabel* title_;
    QLabel* lies_;
    QLabel* known_;
    QLabel* whole_;
    ListeningBar* listening_;
    FindId shown_ = 0;
};

/// "whole", "73 %, the rest is lost", "broken off".
QString wholeWords(const Find& find);
/// Its title, its name, or that of what it is recognised as.
QString findName(const Find& find, const KnownFind& known);

} // namespace sober::app
