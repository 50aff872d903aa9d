#include "app/desks/transfer/characters_window.h"

#include "app/desks/desk.h"
#include "app/theme/theme.h"
#include "app/words.h"

#include <QFormLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QRegularExpressionValidator>
#include <QVBoxLayout>

namespace sober::app {
namespace {

/// A name is never parted by what stands for one of its characters, nor refused for it.
QLineEdit* textField(const QString& name, QWidget* parent) {
    static const QRegularExpression held(QStringLiteral(R"([^/\\|:"<>?*;\x00-\x1f]*)"));
    auto* field = new QLineEdit(parent);
    field->setAccessibleName(name);
    field->setFont(Theme::bytes(11));
    field->setMaxLength(8);
    field->setMaximumWidth(90);
    field->setValidator(new QRegularExpressionValidator(held, field));
    return field;
}

} // namespace

CharactersWindow::CharactersWindow(const NameReplacements& replacements, QWidget* parent) : QDialog(parent) {
    const auto title = tr("Characters that names there cannot hold");
    setWindowTitle(title);
    setAttribute(Qt::WA_DeleteOnClose);
    auto* layout = titledLayout(title, this);
    auto* why = new QLabel(
        tr("Each that the target cannot hold is written there by what stands beside it, or left out where "
           "nothing does."),
        this);
    why->setWordWrap(true);
    layout->addWidget(why);
    auto* form = new QFormLayout;
    for (const auto& [character, text] : usualReplacements().characters) {
        const QString shown(QLatin1Char{character});
        auto* field = textField(tr("What stands for %1").arg(shown), this);
        auto* label = new QLabel(shown, this);
        label->setFont(Theme::bytes(12));
        label->setBuddy(field);
        form->addRow(label, field);
        fields_.emplace_back(character, field);
    }
    other_ = textField(tr("What stands for all others"), this); // last in the order of keys
    other_->setPlaceholderText(QString::fromStdString(usualReplacements().other)); // a name needs one
    form->addRow(tr("all others"), other_);
    layout->addLayout(form);
    auto* usual = new QPushButton(tr("As usual"), this);
    auto* take = new QPushButton(tr("Use these"), this);
    take->setDefault(true);
    addEnding(*layout, this, take, usual);
    connect(usual, &QPushButton::clicked, this, [this] { fill(usualReplacements()); });
    connect(take, &QPushButton::clicked, this, &QDialog::accept);
    fill(replacements);
}

void CharactersWindow::fill(const NameReplacements& replacements) {
    for (const auto& [character, field] : fields_) {
        const auto found = replacements.characters.find(character);
        field->setText(found != replacements.characters.end() ? QString::fromStdString(found->second)
                                                              : QString());
    }
    other_->setText(QString::fromStdString(replacements.other));
}

NameReplacements CharactersWindow::replacements() const {
    NameReplacements replacements;
    for (const auto& [character, field] : fields_) {
        replacements.characters[character] = field->text().toStdString();
    }
    replacements.other =
        (other_->text().isEmpty() ? other_->placeholderText() : other_->text()).toStdString();
    return replacements;
}

} // namespace sober::app
