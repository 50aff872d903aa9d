#include "app/desks/desk.h"

#include "app/theme/theme.h"
#include "app/wrap_label.h"
#include "app/wrap_row.h"

#include <QComboBox>
#include <QDialog>
#include <QHBoxLayout>
#include <QKeySequence>
#include <QLabel>
#include <QPushButton>
#include <QShortcut>
#include <QVBoxLayout>

#include <algorithm>

namespace sober::app {

Desk::Desk(Workbench& workbench, const QString& name, const QString& question)
    : workbench_(workbench), name_(name), body_(new QVBoxLayout(this)), heading_(new WrapRow) {
    setObjectName(QStringLiteral("desk"));
    setAccessibleName(name);
    body_->setContentsMargins(20, 12, 20, 12);
    body_->setSpacing(8);
    auto* title = new QLabel(name, this);
    title->setFont(Theme::title());
    auto* asked = quietLabel(question, this);
    heading_->setSpacing(12);
    heading_->addWidget(title);
    heading_->addWidget(asked, 0, Qt::AlignBottom);
    heading_->addStretch(1);
    body_->addLayout(heading_);
}

void Desk::contentChanged() {
    stale_ = true;
    if (isVisible() && workbench_.isOpen()) {
        stale_ = false;
        reload();
    }
}

void Desk::docketChanged() {
    if (isVisible() && !stale_ && workbench_.isOpen()) {
        reloadDecisions();
    } else {
        stale_ = true;
    }
}

void Desk::showEvent(QShowEvent* event) {
    QWidget::showEvent(event);
    if (stale_ && workbench_.isOpen()) {
        stale_ = false;
        reload();
    }
}

QPushButton* keyButton(const QString& text, const QKeySequence& key, QWidget* parent) {
    auto* button =
        new QPushButton(QStringLiteral("%1   %2").arg(text, key.toString(QKeySequence::NativeText)), parent);
    button->setAccessibleName(text);
    button->setFocusPolicy(Qt::TabFocus);
    auto* shortcut = new QShortcut(key, parent);
    shortcut->setContext(Qt::WidgetWithChildrenShortcut);
    QObject::connect(shortcut, &QShortcut::activated, button, [button] {
        if (button->isEnabled()) {
            button->click();
        }
    });
    return button;
}

void addEnding(QVBoxLayout& layout, QDialog* window, QPushButton* main, QWidget* beside,
               const QString& leave) {
    auto* row = new QHBoxLayout;
    auto* close = new QPushButton(leave.isEmpty() ? Desk::tr("Cancel") : leave, window);
    main->setProperty("weight", "main");
    if (beside != nullptr) {
        row->addWidget(beside);
    }
    row->addStretch(1);
    row->addWidget(close);
    row->addWidget(main);
    layout.addLayout(row);
    QObject::connect(close, &QPushButton::clicked, window, &QDialog::reject);
}

QVBoxLayout* titledLayout(const QString& title, QWidget* window) {
    auto* layout = new QVBoxLayout(window);
    layout->setContentsMargins(20, 16, 20, 16);
    layout->setSpacing(12);
    auto* label = new QLabel(title, window);
    label->setFont(Theme::title(20));
    layout->addWidget(label);
    return layout;
}

void beAtLeast(int width, QDialog& window) {
    window.setMinimumWidth(std::max(width, window.minimumSizeHint().width()));
}

void fitWords(QComboBox& box, const QStringList& later) {
    const auto lettersFor = [](const QString& word) {
        // A box counts in letters of this width, and needs two for its arrow.
        const auto metrics = QFontMetrics(Theme::text());
        return metrics.horizontalAdvance(word) / std::max(1, metrics.horizontalAdvance(QLatin1Char('X'))) + 2;
    };
    int least = 8;
    for (const auto& word : later + QStringList{box.itemText(0)}) {
        least = std::max(least, lettersFor(word));
    }
    const auto fit = [&box, least, lettersFor] {
        constexpr int most = 28;
        box.setMinimumContentsLength(std::clamp(lettersFor(box.currentText()), least, std::max(least, most)));
    };
    box.setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    QObject::connect(&box, &QComboBox::currentTextChanged, &box, fit);
    fit();
}

QLabel* paragraph(const QString& name, QWidget* parent) {
    auto* label = new WrapLabel(parent);
    label->setAccessibleName(name);
    label->setWordWrap(true);
    label->setTextFormat(Qt::PlainText);
    label->setTextInteractionFlags(Qt::TextSelectableByMouse);
    label->setFocusPolicy(Qt::NoFocus);
    label->setAlignment(Qt::AlignTop);
    return label;
}

QLabel* quietLabel(const QString& text, QWidget* parent) {
    auto* label = new WrapLabel(text, parent);
    label->setProperty("tone", "quiet");
    return label;
}

QLabel* strongLabel(const QString& text, QWidget* parent) {
    auto* label = new WrapLabel(text, parent);
    label->setFont(Theme::strong());
    return label;
}

} // namespace sober::app
