#pragma once

#include "app/workbench.h"
#include "app/wrap_row.h"

#include <QWidget>

class QComboBox;
class QDialog;
class QLabel;
class QPushButton;
class QVBoxLayout;

namespace sober::app {

/// One place of work: its name, its question, then picture, list and evidence. A desk asks the
/// catalogue only while it is shown.
class Desk : public QWidget {
    Q_OBJECT

  public:
    Desk(Workbench& workbench, const QString& name, const QString& question);

    const QString& name() const { return name_; }
    /// The catalogue has changed: asks anew, now or when next shown.
    void contentChanged();
    /// Only what was decided has changed.
    void docketChanged();

  protected:
    virtual void reload() = 0;
    virtual void reloadDecisions() {}
    void showEvent(QShowEvent* event) override;

    Workbench& workbench() { return workbench_; }
    QVBoxLayout* body() { return body_; }
    /// The row of the heading, for what stands at its right.
    WrapRow* heading() { return heading_; }

  private:
    Workbench& workbench_;
    QString name_;
    QVBoxLayout* body_;
    WrapRow* heading_;
    bool stale_ = true;
};

/// A button that shows the key that does the same.
QPushButton* keyButton(const QString& text, const QKeySequence& key, QWidget* parent);

/// The layout of a window, from above to below, with its title in it.
QVBoxLayout* titledLayout(const QString& title, QWidget* window);

/// The last row of a window: what leaves it as it was (`leave`: "Cancel"), and what it is for. `beside`
/// stands at the left.
void addEnding(QVBoxLayout& layout, QDialog* window, QPushButton* main, QWidget* beside = nullptr,
               const QString& leave = {});

/// At least so many pixels wide, and as wide as its words need. Called when all is in it.
void beAtLeast(int width, QDialog& window);

/// Gives a box room for what it begins with (its first item, or what is `later` put first) and for what is
/// chosen in it, up to a point; not for the longest that could be.
void fitWords(QComboBox& box, const QStringList& later = {});

/// Plain text of several lines, read out by this name.
QLabel* paragraph(const QString& name, QWidget* parent);
QLabel* quietLabel(const QString& text, QWidget* parent);
QLabel* strongLabel(const QString& text, QWidget* parent);

} // namespace sober::app
