#pragma once

#include "core/audit/tag_takeover.h"

#include <QWidget>

#include <functional>
#include <set>

class QComboBox;
class QGridLayout;

namespace sober::app {

/// Field by field what a file says, what others say, and what it shall say.
class TakeoverForm : public QWidget {
    Q_OBJECT

  public:
    /// Where they say different things.
    enum class Prefer {
        own,
        others,
    };
    using NameOfOther = std::function<QString(std::size_t)>;

    explicit TakeoverForm(QWidget* parent) : QWidget(parent) {}

    void show(TagTakeover takeover, NameOfOther nameOfOther, Prefer prefer);
    const TagTakeover& takeover() const { return takeover_; }
    TagChange chosen() const;
    /// The others that something was chosen from.
    std::set<std::size_t> chosenFrom() const;

  signals:
    void changed();

  private:
    void addField(QGridLayout& grid, const FieldOffer& offer, Prefer prefer);
    void addPictures(QGridLayout& grid);
    QString namesOf(const std::vector<std::size_t>& others) const;

    TagTakeover takeover_;
    NameOfOther nameOfOther_;
    std::vector<QComboBox*> fields_; ///< in the order of the takeover's fields
    QComboBox* picture_ = nullptr;
};

QString shortened(const QString& text, int most = 48);

} // namespace sober::app
