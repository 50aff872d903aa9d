#pragma once

#include "core/transfer/target_names.h"

#include <QDialog>

#include <vector>

class QLineEdit;

namespace sober::app {

/// What stands in names at a target for the characters that it cannot hold.
class CharactersWindow : public QDialog {
    Q_OBJECT

  public:
    CharactersWindow(const NameReplacements& replacements, QWidget* parent);
    /// As they are written now.
    NameReplacements replacements() const;

  private:
    void fill(const NameReplacements& replacements);

    std::vector<std::pair<char, QLineEdit*>> fields_;
    QLineEdit* other_ = nullptr;
};

} // namespace sober::app
