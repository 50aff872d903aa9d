#pragma once

#include "core/catalogue/findings.h"
#include "core/catalogue/holding_filter.h"
#include "core/catalogue/records.h"

#include <QWidget>

#include <optional>
#include <string>
#include <vector>

class QCheckBox;
class QComboBox;
class QLineEdit;

namespace sober::app {

/// The row of boxes that says which holdings the desk Claims shows.
class ClaimFilters : public QWidget {
    Q_OBJECT

  public:
    explicit ClaimFilters(QWidget* parent);

    HoldingFilter filter() const;
    /// The boxes for volume, folder and codec are filled from the catalogue: what they shall show is kept
    /// until then.
    void setFilter(const HoldingFilter& filter);

    /// What the catalogue has to choose from.
    struct Choices {
        std::vector<Volume> volumes;
        std::vector<std::string> codecs;
        std::vector<FolderFigures> folders;
    };
    void fill(const Choices& choices);

  signals:
    void changed();

  private:
    HoldingFilter shownFilter() const;

    QLineEdit* text_;
    QComboBox* volume_;
    QComboBox* folder_;
    QComboBox* codec_;
    QComboBox* verdict_;
    QComboBox* which_;
    QCheckBox* acceptedToo_;
    std::optional<HoldingFilter> wanted_;
    HoldingFilter beside_; ///< of the chosen standing list: what no box here shows goes on being asked for
    bool filling_ = false;
};

} // namespace sober::app
