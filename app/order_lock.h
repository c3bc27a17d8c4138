// app/order_lock.h
//
// One window at a time works on an order file. The lock stands in the user's state folder under a name made from the
// file's own, so that nothing lies beside the orders; a lock whose program is gone is taken over.
#pragma once

#include <QLockFile>
#include <QString>
#include <memory>

namespace armure {

class OrderLock {
 public:
  // Lets go of the file held before and takes this one; an empty path only lets go. False when another window has it.
  bool take(const QString& path);

 private:
  QString path_;
  std::unique_ptr<QLockFile> lock_;
};

}  // namespace armure
