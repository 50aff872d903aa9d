#pragma once

#include "app/shelf/volume_changes.h"
#include "app/workbench.h"

#include <QWidget>

class QVBoxLayout;

namespace sober::app {

/// One volume drawn as an archive box: its label, how full its drive is, at hand or away.
class VolumeBox : public QWidget {
    Q_OBJECT

  public:
    VolumeBox(Volume volume, QWidget* parent);
    const Volume& volume() const { return volume_; }

  signals:
    void menuWanted(const QPoint& at);

  protected:
    void paintEvent(QPaintEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void contextMenuEvent(QContextMenuEvent* event) override;

  private:
    Volume volume_;
};

/// The volumes, under the spine.
class Shelf : public QWidget {
    Q_OBJECT

  public:
    Shelf(Workbench& workbench, QWidget* parent);
    void reload();

  signals:
    void surveyWanted(const sober::SurveyRequest& request);

  private:
    void showVolumes(const std::vector<Volume>& volumes);
    void openMenu(const Volume& volume, const QPoint& at);
    void openChoices(const Volume& volume);

    Workbench& workbench_;
    VolumeChanges* changes_;
    QVBoxLayout* boxes_;
};

} // namespace sober::app
