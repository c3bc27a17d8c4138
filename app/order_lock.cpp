#include "app/order_lock.h"

#include <QCryptographicHash>
#include <QDir>
#include <QFile>
#include <QFileInfo>

#include "app/autosave.h"

namespace armure {

bool OrderLock::take(const QString& path) {
  if (path.isEmpty()) {
    lock_.reset();
    path_.clear();
    return true;
  }
  const QFileInfo info(path);
  const QString whole = info.exists() ? info.canonicalFilePath() : info.absoluteFilePath();
  if (lock_ && whole == path_) return true;
  lock_.reset();
  path_.clear();
  const QString folder = QFileInfo(QString::fromStdString(Autosave::folder())).path() + "/locks";
  // Without a place for locks there is no second window to be told from.
  if (!QDir().mkpath(folder)) return true;
  QFile::setPermissions(folder, QFile::ReadOwner | QFile::WriteOwner | QFile::ExeOwner);
  const QByteArray name = QCryptographicHash::hash(whole.toUtf8(), QCryptographicHash::Sha256).toHex().left(40);
  auto lock = std::make_unique<QLockFile>(folder + "/" + QString::fromLatin1(name) + ".lock");
  lock->setStaleLockTime(0);  // as long as its program runs
  if (!lock->tryLock(0) && lock->error() == QLockFile::LockFailedError) return false;
  lock_ = std::move(lock);
  path_ = whole;
  return true;
}

}  // namespace armure
