#include "app/theme/theme.h"

#include <QDir>
#include <QFontDatabase>
#include <QPalette>
#include <QProxyStyle>
#include <QVariant>

namespace sober::app {
namespace {

constexpr const char* paperProperty = "sober.paper";

QString styleSheet(const Inks& inks) {
    QString sheet = QStringLiteral(R"(
QMainWindow, QDialog, QWidget#desk, QWidget#spine { background: @paper; }
QDialog { border: 1px solid @quiet; }
QToolTip { background: @sheet; color: @ink; border: 1px solid @rule; padding: 4px; }
QMenuBar { background: @paper; color: @ink; border-bottom: 1px solid @rule; }
QMenuBar::item { padding: 4px 10px; background: transparent; }
QMenuBar::item:selected { background: @wash; }
QMenu { background: @sheet; color: @ink; border: 1px solid @rule; }
QMenu::item { padding: 5px 24px 5px 16px; }
QMenu::item:selected { background: @wash; color: @ink; }
QMenu::item:disabled { color: @quiet; }
QMenu::separator { height: 1px; background: @rule; margin: 4px 0; }
QPushButton { background: @sheet; color: @ink; border: 1px solid @rule; border-radius: 2px; padding: 4px 12px; min-height: 18px; }
QPushButton:hover { border-color: @accent; }
QPushButton:focus { border: 1px solid @accent; }
QPushButton:pressed { background: @wash; }
QPushButton:checked { background: @wash; border-color: @accent; }
QPushButton:disabled { color: @quiet; background: @paper; }
QPushButton[weight="main"] { background: @accent; color: @sheet; border-color: @accent; }
QPushButton[weight="main"]:focus { border: 1px solid @ink; }
QPushButton[weight="main"]:disabled { background: @paper; color: @quiet; border-color: @rule; }
QLineEdit, QComboBox, QSpinBox, QPlainTextEdit { background: @sheet; color: @ink; border: 1px solid @rule; border-radius: 2px; padding: 3px 6px; selection-background-color: @accent; selection-color: @sheet; min-height: 20px; }
QLineEdit:focus, QComboBox:focus, QSpinBox:focus, QPlainTextEdit:focus { border-color: @accent; }
QLineEdit:disabled, QComboBox:disabled { background: @paper; color: @quiet; }
QComboBox { padding-right: 20px; }
QComboBox::drop-down { border: none; width: 20px; }
QComboBox::down-arrow { image: none; width: 0; height: 0; border-left: 4px solid @sheet; border-right: 4px solid @sheet; border-top: 5px solid @quiet; margin-right: 8px; }
QComboBox QAbstractItemView { background: @sheet; color: @ink; border: 1px solid @rule; selection-background-color: @wash; selection-color: @ink; outline: none; }
QTableView, QTreeView { background: @sheet; color: @ink; border: 1px solid @rule; gridline-color: transparent; selection-background-color: @wash; selection-color: @ink; outline: none; }
QTableView:focus, QTreeView:focus { border-color: @accent; }
QHeaderView { background: @sheet; }
QHeaderView::section { background: @sheet; color: @quiet; border: none; border-bottom: 1px solid @rule; padding: 4px 8px; }
QTableCornerButton::section { background: @sheet; border: none; }
QScrollBar:vertical { background: transparent; width: 10px; margin: 0; }
QScrollBar:horizontal { background: transparent; height: 10px; margin: 0; }
QScrollBar::handle { background: @rule; border-radius: 3px; min-height: 28px; min-width: 28px; margin: 2px; }
QScrollBar::handle:hover { background: @quiet; }
QScrollBar::add-line, QScrollBar::sub-line { width: 0; height: 0; }
QScrollBar::add-page, QScrollBar::sub-page { background: transparent; }
QProgressBar { background: @paper; border: 1px solid @rule; border-radius: 2px; max-height: 8px; min-height: 8px; }
QProgressBar::chunk { background: @accent; }
QSplitter::handle { background: transparent; }
QSplitter::handle:horizontal { width: 12px; }
QSplitter::handle:vertical { height: 8px; }
QLabel[tone="quiet"] { color: @quiet; }
QLabel[tone="damaged"] { color: @damaged; }
QLabel[tone="accent"] { color: @accent; }
QCheckBox, QRadioButton { color: @ink; spacing: 8px; }
QScrollArea { border: none; background: transparent; }
QFrame#hairline { background: @rule; border: none; }
QFrame#strip { background: @sheet; border: none; border-top: 1px solid @rule; }
)");
    const std::pair<const char*, QColor> names[] = {
        {"@paper", inks.paper}, {"@sheet", inks.sheet},   {"@ink", inks.ink},   {"@quiet", inks.quiet},
        {"@rule", inks.rule},   {"@accent", inks.accent}, {"@wash", inks.wash}, {"@damaged", inks.damaged},
    };
    for (const auto& [name, color] : names) {
        sheet.replace(QLatin1String(name), color.name());
    }
    return sheet;
}

/// Nothing moves by itself: no sliding, fading or pulsing, for those whom that disturbs and all others.
class StillStyle : public QProxyStyle {
  public:
    StillStyle() : QProxyStyle(QStringLiteral("Fusion")) {}
    int styleHint(StyleHint hint, const QStyleOption* option, const QWidget* widget,
                  QStyleHintReturn* result) const override {
        return hint == SH_Widget_Animate || hint == SH_Widget_Animation_Duration
                   ? 0
                   : QProxyStyle::styleHint(hint, option, widget, result);
    }
};

QFont sized(const QString& family, int pixels, QFont::Weight weight) {
    QFont font(family);
    font.setPixelSize(pixels);
    font.setWeight(weight);
    return font;
}

} // namespace

void Theme::addFonts(const QString& folder) {
    for (const auto& file : QDir(folder).entryInfoList(QDir::Files)) {
        QFontDatabase::addApplicationFont(file.absoluteFilePath());
    }
}

void Theme::apply(QApplication& application, Paper paper) {
    const auto& inks = inksOf(paper);
    application.setProperty(paperProperty, static_cast<int>(paper));
    application.setStyle(new StillStyle);
    for (const auto effect : {Qt::UI_AnimateMenu, Qt::UI_FadeMenu, Qt::UI_AnimateCombo, Qt::UI_AnimateTooltip,
                              Qt::UI_FadeTooltip, Qt::UI_AnimateToolBox}) {
        QApplication::setEffectEnabled(effect, false);
    }
    application.setFont(text());
    QPalette palette;
    palette.setColor(QPalette::Window, inks.paper);
    palette.setColor(QPalette::WindowText, inks.ink);
    palette.setColor(QPalette::Base, inks.sheet);
    palette.setColor(QPalette::AlternateBase, inks.paper);
    palette.setColor(QPalette::Text, inks.ink);
    palette.setColor(QPalette::Button, inks.sheet);
    palette.setColor(QPalette::ButtonText, inks.ink);
    palette.setColor(QPalette::ToolTipBase, inks.sheet);
    palette.setColor(QPalette::ToolTipText, inks.ink);
    palette.setColor(QPalette::PlaceholderText, inks.quiet);
    palette.setColor(QPalette::Highlight, inks.wash);
    palette.setColor(QPalette::HighlightedText, inks.ink);
    palette.setColor(QPalette::Link, inks.accent);
    application.setPalette(palette);
    application.setStyleSheet(styleSheet(inks));
}

Paper Theme::paper() {
    return static_cast<Paper>(qApp->property(paperProperty).toInt());
}

QFont Theme::text(int pixels) {
    return sized(QStringLiteral("Noto Sans"), pixels, QFont::Normal);
}
QFont Theme::strong(int pixels) {
    return sized(QStringLiteral("Noto Sans"), pixels, QFont::DemiBold);
}
QFont Theme::title(int pixels) {
    return sized(QStringLiteral("Noto Serif"), pixels, QFont::Medium);
}
QFont Theme::bytes(int pixels) {
    return sized(QStringLiteral("Noto Sans Mono"), pixels, QFont::Normal);
}

} // namespace sober::app
