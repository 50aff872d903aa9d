#pragma once

#include <QDialog>

class QComboBox;

namespace sober::app {

/// Asks for one line of text; some that are often given are offered.
class AskWindow : public QDialog {
    Q_OBJECT

  public:
    struct Words {
        QString title;
        QString explanation;
        QString done; ///< on the button
        QStringList offered;
        QString text; ///< to begin with
        bool mayBeEmpty = false;
    };
    AskWindow(const Words& words, QWidget* parent);

  signals:
    void answered(const QString& text);

  private:
    QComboBox* line_;
};

} // namespace sober::app
