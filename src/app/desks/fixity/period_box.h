#pragma once

#include "core/catalogue/records.h"

#include <QString>
#include <QWidget>

#include <vector>

class QComboBox;
class QSpinBox;

namespace sober::app {

/// After how many days a volume's holdings, or those of all volumes, are due to be read again.
class PeriodBox : public QWidget {
    Q_OBJECT

  public:
    struct Period {
        VolumeId volume = 0;
        QString label;
        int days = 0;

        bool operator==(const Period&) const = default;
    };
    explicit PeriodBox(QWidget* parent);

    void setPeriods(std::vector<Period> periods);

  signals:
    /// The user wants another period for these volumes.
    void periodChosen(const std::vector<sober::VolumeId>& volumes, int days);

  private:
    /// Of the chosen volume; of all of them the longest.
    int known() const;
    void showChosen();
    void choose();

    QComboBox* volumes_;
    QSpinBox* days_;
    std::vector<Period> periods_;
};

} // namespace sober::app
