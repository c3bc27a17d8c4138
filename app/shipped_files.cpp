#include "app/shipped_files.h"

#include <QCoreApplication>
#include <QDir>
#include <QStandardPaths>

namespace armure {

QString shippedFolder(const QString& name) {
  const QString program = QCoreApplication::applicationDirPath();
  // Installed: bin/ and share/ side by side. Built: build/PRESET/app/ in the source.
  for (const QString& folder : {program + "/../share/armure/" + name, program + "/../../../" + name})
    if (QDir(folder).exists()) return QDir(folder).canonicalPath();
  return QStandardPaths::locate(QStandardPaths::GenericDataLocation, "armure/" + name, QStandardPaths::LocateDirectory);
}

}  // namespace armure
