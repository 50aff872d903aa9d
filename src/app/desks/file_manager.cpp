#include "app/desks/file_manager.h"

#include "app/words.h"
#include "core/base/inner_path.h"

#include <QClipboard>
#include <QCoreApplication>
#include <QDesktopServices>
#include <QGuiApplication>
#include <QMenu>

namespace sober::app {

void openFolderOf(const BytePath& path) {
    const auto inner = innerPathOf(path);
    QDesktopServices::openUrl(urlOf(BytePath(parentOf(inner ? inner->archive : path))));
}

void copyPath(const BytePath& path) {
    QGuiApplication::clipboard()->setText(copiedPath(path));
}

void showFileMenu(QWidget& parent, const BytePath& path, const QPoint& at) {
    QMenu menu(&parent);
    menu.addAction(QCoreApplication::translate("FileMenu", "Copy path"), [&] { copyPath(path); });
    menu.addAction(QCoreApplication::translate("FileMenu", "Open its folder"), [&] { openFolderOf(path); });
    menu.exec(at);
}

} // namespace sober::app
