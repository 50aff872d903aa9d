#pragma once

#include "core/survey/survey.h"

#include <QDialog>

class QCheckBox;
class QComboBox;
class QLabel;
class QLineEdit;
class QPlainTextEdit;
class QSpinBox;

namespace sober::app {

/// What a survey of one volume takes in: kept with the volume.
class ChoicesWindow : public QDialog {
    Q_OBJECT

  public:
    /// `holdings` are how many of it are known, to say how much room excerpts would take.
    ChoicesWindow(const Volume& volume, std::uint64_t holdings, QWidget* parent);

  signals:
    void surveyWanted(const sober::SurveyRequest& request);

  private:
    SurveyRequest request() const;

    Volume volume_;
    QLineEdit* label_;
    QComboBox* effort_;
    QCheckBox* leaveHidden_;
    QCheckBox* followLinks_;
    QCheckBox* keepExcerpts_;
    QCheckBox* lookInside_;
    QLabel* room_;
    QPlainTextEdit* patterns_;
    QSpinBox* minSize_;
    QSpinBox* maxSize_;
    QSpinBox* depth_;
};

} // namespace sober::app
