#pragma once

#include "core/catalogue/holding_filter.h"

#include <QWidget>

class QComboBox;
class QLineEdit;

namespace sober::app {

/// What somebody looks for: words, and boxes and spans that narrow it.
class NarrowingRow : public QWidget {
    Q_OBJECT

  public:
    explicit NarrowingRow(QWidget* parent);

    /// `filter` with what is asked for here beside it; nothing where a span cannot be understood.
    std::optional<HoldingFilter> narrowed(HoldingFilter filter) const;
    QString words() const;
    /// The codecs that can be chosen; what is chosen stays so where it is among them.
    void setCodecs(const std::vector<std::string>& codecs);
    /// Puts the cursor where words are typed.
    void beginTyping();

  signals:
    void changed();
    void downPressed(); ///< out of the words, into what was found

  private:
    void buildBoxes();

    QLineEdit* words_;
    QComboBox* codec_;
    QComboBox* verdict_;
    QComboBox* listed_;
    QLineEdit* bitrate_;
    QLineEdit* length_;
    QLineEdit* years_;
};

} // namespace sober::app
