#include "tape/tape_server.h"

#include <sys/stat.h>

#include <QFile>
#include <QUuid>

#include "io/tape_protocol.h"

namespace armure {

TapeServer::TapeServer(QString name)
    : name_(std::move(name)), count_(QUuid::createUuid().toString(QUuid::WithoutBraces)) {
  connect(&server_, &QLocalServer::newConnection, this, &TapeServer::greet);
}

bool TapeServer::listen(const QString& path) {
  server_.setSocketOptions(QLocalServer::UserAccessOption);
  // Only a socket may be taken away: one that a tape that is gone has left there.
  struct stat there {};
  if (::lstat(QFile::encodeName(path).constData(), &there) == 0) {
    if (!S_ISSOCK(there.st_mode)) {
      refused_ = "something stands there that is no socket; it was left as it is";
      return false;
    }
    QLocalServer::removeServer(path);
  }
  return server_.listen(path);
}

void TapeServer::greet() {
  QLocalSocket* next = server_.nextPendingConnection();
  if (client_) {  // one hand holds the tape
    next->disconnectFromServer();
    next->deleteLater();
    return;
  }
  client_ = next;
  connect(client_, &QLocalSocket::readyRead, this, &TapeServer::read);
  connect(client_, &QLocalSocket::disconnected, this, [this, gone = client_] {
    if (client_ == gone) client_ = nullptr;
    gone->deleteLater();
  });
  client_->write(QByteArray::fromStdString(tapeHello(name_.toStdString(), count_.toStdString())));
  for (const Kept& reading : waiting_) send(reading);
}

void TapeServer::read() {
  while (client_ && client_->canReadLine()) {
    const long taken = takenNumber(client_->readLine().toStdString());
    while (!waiting_.empty() && waiting_.front().number <= taken) waiting_.pop_front();
    if (waiting_.empty()) emit idle();
  }
}

void TapeServer::send(const Kept& r) {
  if (!client_) return;
  client_->write(
      QByteArray::fromStdString(tapeReading(r.number, r.mm, r.ageMs + static_cast<double>(r.since.elapsed()))));
  client_->flush();
}

void TapeServer::take(double mm, double ageMs) {
  last_ = {last_.number + 1, mm, ageMs, {}};
  last_.since.start();
  waiting_.push_back(last_);
  send(last_);
}

void TapeServer::repeatLast() {
  if (last_.number > 0) send(last_);
}

void TapeServer::sendGarbage(const QByteArray& bytes) {
  if (!client_) return;
  client_->write(bytes);
  client_->flush();
}

void TapeServer::hangUp() {
  if (client_) client_->abort();
}

}  // namespace armure
