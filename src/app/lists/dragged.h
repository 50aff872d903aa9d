#pragma once

#include "core/catalogue/records.h"

#include <QMimeData>
#include <QString>
#include <QWidget>

#include <memory>
#include <vector>

namespace sober::app {

/// Holdings, and a folder of a volume, while they are dragged within the program.
inline const QString idsMimeType = QStringLiteral("application/x-sober-holdings");
inline const QString folderMimeType = QStringLiteral("application/x-sober-folder");

std::unique_ptr<QMimeData> mimeOfIds(const std::vector<HoldingId>& ids);
std::unique_ptr<QMimeData> mimeOfFolder(VolumeId volume, const BytePath& folder);
/// Drags data that some words beside the pointer tell of.
void dragTold(QWidget* from, QMimeData* data, const QString& words, Qt::DropActions actions);

/// Empty, and no volume, where the data is something else.
std::vector<HoldingId> idsOf(const QMimeData& data);
std::pair<std::optional<VolumeId>, BytePath> folderOf(const QMimeData& data);

} // namespace sober::app
