#pragma once

#include "core/catalogue/policies.h"

#include <QWidget>

class QComboBox;
class QListWidget;
class QPushButton;

namespace sober::app {

/// Preferences in their order: added, taken away, moved up and down.
class PreferenceList : public QWidget {
    Q_OBJECT

  public:
    PreferenceList(std::vector<Volume> volumes, QWidget* parent);
    void setPreferences(std::vector<Preference> preferences);
    const std::vector<Preference>& preferences() const { return preferences_; }

  signals:
    void preferencesChanged(); ///< by the user

  private:
    void addChosen();
    void add(const Preference& preference);
    void move(int by);
    void removeCurrent();
    void show(int current);

    std::vector<Volume> volumes_;
    std::vector<Preference> preferences_;
    QListWidget* list_;
    QComboBox* choice_;
    QPushButton* up_;
    QPushButton* down_;
    QPushButton* remove_;
};

} // namespace sober::app
