#include "app/help/help_window.h"

#include "app/desks/desk.h"
#include "app/theme/marks.h"
#include "app/theme/theme.h"

#include <QBuffer>
#include <QFile>
#include <QHBoxLayout>
#include <QLineEdit>
#include <QListWidget>
#include <QMap>
#include <QMenu>
#include <QMenuBar>
#include <QPainter>
#include <QPushButton>
#include <QSignalBlocker>
#include <QTextBlock>
#include <QTextBrowser>
#include <QTextDocument>
#include <QTextTable>
#include <QUrl>
#include <QVBoxLayout>

#include <algorithm>

namespace sober::app {
namespace {

/// The guide's text, with its pictures as wide as there is room.
class GuideText : public QTextBrowser {
  public:
    using QTextBrowser::QTextBrowser;

  protected:
    QVariant loadResource(int type, const QUrl& name) override {
        if (type != QTextDocument::ImageResource || name.scheme() == QStringLiteral("data")) {
            return QTextBrowser::loadResource(type, name);
        }
        QImage picture(QStringLiteral(":/help/") + name.path());
        constexpr int beside = 2 * margin + 24; // the margins, and the bar at the side
        const double sharp = devicePixelRatioF();
        const int room = static_cast<int>(std::max(200, width() - beside) * sharp);
        if (picture.width() > room) {
            picture = picture.scaledToWidth(room, Qt::SmoothTransformation);
        }
        picture.setDevicePixelRatio(sharp);
        return picture;
    }

  public:
    static constexpr int margin = 16;
};

/// What stands where no section of the guide does.
QString aboutPage() {
    return HelpWindow::
        tr("<h2>What it is made of</h2><p>Sober Archivist %1. Free software: you may redistribute and change "
           "it under "
           "the GNU General Public License, version 3 or later. There is no warranty.</p><p>It works with "
           "these "
           "libraries, each under its own licence:</p><ul><li>Qt %2 (LGPL 3)</li><li>FFmpeg: libavformat, "
           "libavcodec, libswresample, libswscale (LGPL 2.1 and GPL 2 or later)</li><li>SQLite (public "
           "domain), "
           "SQLiteCpp (MIT)</li><li>TagLib (LGPL 2.1, MPL 1.1)</li><li>Chromaprint (LGPL 2.1)</li><li>FFTW "
           "(GPL 2 "
           "or later)</li><li>OpenSSL (Apache 2.0), xxHash (BSD 2-clause)</li><li>libcdio and "
           "libcdio-paranoia (GPL "
           "3 or later)</li><li>The Sleuth Kit (IBM, CPL and GPL 2), libarchive (BSD "
           "2-clause)</li><li>oneTBB (Apache 2.0), {fmt} "
           "(MIT), "
           "nlohmann JSON (MIT), pugixml (MIT), CLI11 (BSD 3-clause)</li><li>utf8proc (MIT), zlib (zlib), "
           "Zstandard "
           "(BSD 3-clause), libogg (BSD 3-clause), libblkid, libmount and libsystemd (LGPL 2.1), libseccomp "
           "(LGPL 2.1), curl (curl)</li></ul>"
           "<p>Debian's packages of these hold the full texts, below /usr/share/doc.</p>")
            .arg(QStringLiteral(SOBER_VERSION), QString::fromLatin1(qVersion()));
}

/// Each mark as it is drawn, its word and what it says.
QString marksPage() {
    constexpr int side = 22;
    constexpr int sharp = 2;
    QString html =
        HelpWindow::tr("<h2>What the marks mean</h2><p>All are drawn from one ring, each with a form of "
                       "its own: none is told by its colour alone.</p><table cellpadding=\"4\">");
    for (const auto mark : allMarks) {
        QImage picture(side * sharp, side * sharp, QImage::Format_ARGB32_Premultiplied);
        picture.setDevicePixelRatio(sharp);
        picture.fill(Qt::transparent);
        QPainter painter(&picture);
        painter.setRenderHint(QPainter::Antialiasing);
        paintMark(painter, QRectF(0, 0, side, side), mark);
        painter.end();
        QByteArray bytes;
        QBuffer buffer(&bytes);
        buffer.open(QIODevice::WriteOnly);
        picture.save(&buffer, "PNG");
        html +=
            QStringLiteral("<tr><td><img width=\"%1\" height=\"%1\" src=\"data:image/png;base64,%2\"></td>"
                           "<td><b>%3</b></td><td>%4</td></tr>")
                .arg(QString::number(side), QString::fromLatin1(bytes.toBase64()),
                     wordFor(mark).toHtmlEscaped(), meaningOf(mark).toHtmlEscaped());
    }
    return html + QStringLiteral("</table>");
}

/// Room between paragraphs and within tables.
void setApart(QTextDocument& document) {
    for (auto block = document.begin(); block.isValid(); block = block.next()) {
        QTextCursor cursor(block);
        auto format = cursor.blockFormat();
        if (cursor.currentTable() == nullptr) {
            format.setBottomMargin(8);
        }
        cursor.setBlockFormat(format);
        if (auto* table = cursor.currentTable()) {
            auto frame = table->format();
            frame.setCellPadding(4);
            frame.setCellSpacing(0);
            frame.setBorderCollapse(true);
            frame.setBottomMargin(10);
            table->setFormat(frame);
        }
    }
}

void fill(QTextDocument& document, const GuidePage& page) {
    if (page.format == Qt::MarkdownText) {
        document.setMarkdown(page.text);
        setApart(document);
    } else {
        document.setHtml(page.text);
    }
}

} // namespace

QList<GuidePage> guidePages(const QString& language) {
    const auto translated = QStringLiteral(":/help/guide.%1.md").arg(language);
    QFile file(QFile::exists(translated) ? translated : QStringLiteral(":/help/guide.md"));
    QList<GuidePage> pages;
    if (!file.open(QIODevice::ReadOnly)) {
        return pages;
    }
    const auto sections = QString::fromUtf8(file.readAll()).split(QStringLiteral("\n## "));
    for (const auto& section : sections.mid(1)) {
        pages << GuidePage{section.section('\n', 0, 0), "## " + section};
    }
    return pages;
}

QString guideHeadingOf(const QWidget& desk) {
    static const QMap<QString, QString> headings{
        {"ConditionDesk", "See what comes first"},
        {"CopiesDesk", "Decide on copies"},
        {"ClaimsDesk", "Find what is not what it says"},
        {"FixityDesk", "Know what changed on its own"},
        {"WhereaboutsDesk", "Find where things went"},
        {"LedgerDesk", "Take back"},
        {"FindDesk", "Find and browse"},
        {"TransferDesk", "Bring things to another place"},
        {"SalvageDesk", "Get back what was thrown away, wiped or lost"},
        {"IntakeDesk", "Take in what arrives"},
        {"ReplacementDesk", "Replace what could be better"},
        {"DiscDesk", "Read a disc"},
    };
    const auto name = QString::fromLatin1(desk.metaObject()->className()).section(QStringLiteral("::"), -1);
    const auto english = guidePages({});
    const auto at = std::ranges::find(english, headings.value(name), &GuidePage::heading) - english.begin();
    const auto pages = guidePages();
    return at < pages.size() ? pages[at].heading : QString();
}

HelpWindow::HelpWindow(const QString& keys, QWidget* parent)
    : QDialog(parent),
      pages_(guidePages()),
      search_(new QLineEdit(this)),
      headings_(new QListWidget(this)),
      text_(new GuideText(this)) {
    setWindowTitle(tr("Guide"));
    setAttribute(Qt::WA_DeleteOnClose);
    resize(1000, 680);
    pages_ << GuidePage{tr("What the marks mean"), marksPage(), Qt::RichText}
           << GuidePage{tr("All keys"), keys, Qt::RichText}
           << GuidePage{tr("What it is made of"), aboutPage(), Qt::RichText};
    for (auto& page : pages_) {
        QTextDocument document;
        fill(document, page);
        page.words = document.toPlainText();
    }
    auto* layout = titledLayout(windowTitle(), this);
    auto* halves = new QHBoxLayout;
    auto* left = new QVBoxLayout;
    search_->setPlaceholderText(tr("Search the guide"));
    search_->setAccessibleName(search_->placeholderText());
    search_->setClearButtonEnabled(true);
    headings_->setAccessibleName(tr("Headings"));
    headings_->setFixedWidth(300);
    headings_->setWordWrap(true);
    search_->setFixedWidth(300);
    left->addWidget(search_);
    left->addWidget(headings_, 1);
    halves->addLayout(left);
    text_->setAccessibleName(tr("What it says"));
    text_->setOpenLinks(false);
    text_->document()->setDocumentMargin(GuideText::margin);
    halves->addWidget(text_, 1);
    layout->addLayout(halves, 1);
    auto* close = new QPushButton(tr("Close"), this);
    close->setAutoDefault(false);
    auto* row = new QHBoxLayout;
    row->addStretch(1);
    row->addWidget(close);
    layout->addLayout(row);
    connect(close, &QPushButton::clicked, this, &QDialog::reject);
    connect(search_, &QLineEdit::textChanged, this, &HelpWindow::narrow);
    connect(headings_, &QListWidget::currentRowChanged, this, [this] { showCurrent(); });
    narrow({});
    search_->setFocus();
}

void HelpWindow::showPage(const QString& heading) {
    search_->clear();
    for (int row = 0; row < headings_->count(); ++row) {
        if (headings_->item(row)->text() == heading) {
            headings_->setCurrentRow(row);
            return;
        }
    }
    headings_->setCurrentRow(0);
}

/// Sections that hold every word.
void HelpWindow::narrow(const QString& words) {
    const auto wanted = words.split(' ', Qt::SkipEmptyParts);
    const QSignalBlocker quiet(headings_);
    headings_->clear();
    for (const auto& page : pages_) {
        if (std::ranges::all_of(wanted, [&](const QString& word) {
                return page.words.contains(word, Qt::CaseInsensitive);
            })) {
            headings_->addItem(page.heading);
        }
    }
    headings_->setCurrentRow(headings_->count() > 0 ? 0 : -1);
    showCurrent();
}

void HelpWindow::showCurrent() {
    const auto* item = headings_->currentItem();
    if (item == nullptr) {
        text_->setPlainText(tr("No part of the guide holds these words."));
        return;
    }
    const auto page = std::ranges::find(pages_, item->text(), &GuidePage::heading);
    fill(*text_->document(), *page);
    text_->moveCursor(QTextCursor::Start);
    const auto first = search_->text().section(' ', 0, 0, QString::SectionSkipEmpty);
    if (!first.isEmpty()) {
        text_->find(first);
    }
}

QString keysPage(const QWidget& window) {
    QString html = HelpWindow::tr("<h2>All keys</h2><p>In lists and pictures the arrow keys, Page Up and "
                                  "Page Down, Home and End go about, and Space "
                                  "chooses. Windows that are opened name their keys on their buttons.</p>");
    const auto table = [&](const QString& heading, const QMap<QString, QString>& keys) {
        if (keys.isEmpty()) {
            return;
        }
        html += QStringLiteral("<h3>%1</h3><table cellpadding=\"3\">").arg(heading.toHtmlEscaped());
        for (const auto& [key, what] : keys.asKeyValueRange()) {
            html += QStringLiteral("<tr><td><b>%1</b></td><td>%2</td></tr>")
                        .arg(key.toHtmlEscaped(), what.toHtmlEscaped());
        }
        html += QStringLiteral("</table>");
    };
    QMap<QString, QString> menus;
    for (const auto* menu : window.findChildren<QMenu*>()) {
        for (const auto* action : menu->actions()) {
            if (!action->shortcut().isEmpty()) {
                menus.insert(action->shortcut().toString(QKeySequence::NativeText),
                             QString(action->text()).remove('&').remove(QStringLiteral("…")));
            }
        }
    }
    table(HelpWindow::tr("Everywhere"), menus);
    for (const auto* desk : window.findChildren<Desk*>()) {
        QMap<QString, QString> keys;
        for (const auto* button : desk->findChildren<QPushButton*>()) {
            // As keyButton writes them.
            const auto at = button->text().indexOf(QStringLiteral("   "));
            if (at > 0) {
                keys.insert(button->text().mid(at + 3), button->text().left(at).remove(QStringLiteral("…")));
            }
        }
        table(desk->name(), keys);
    }
    return html;
}

} // namespace sober::app
