// tape/tape_server.h
//
// Serves readings over a local socket (docs/format/tape.md): each is kept until the program has acknowledged it, and
// sent again after a lost connection. It can also misbehave on purpose.
#pragma once

#include <QElapsedTimer>
#include <QLocalServer>
#include <QLocalSocket>
#include <deque>

namespace armure {

class TapeServer : public QObject {
  Q_OBJECT
 public:
  explicit TapeServer(QString name);

  // False when the socket cannot be made; errorString() says why.
  bool listen(const QString& path);
  QString errorString() const { return refused_.isEmpty() ? server_.errorString() : refused_; }

  void take(double mm, double ageMs = 0);  // a new reading
  void repeatLast();                       // sends the last reading once more
  void sendGarbage(const QByteArray& bytes);
  void hangUp();  // drops the connection
  bool isIdle() const { return waiting_.empty() && client_ != nullptr; }

 signals:
  void idle();  // everything sent has been acknowledged

 private:
  struct Kept {
    long number;
    double mm, ageMs;
    QElapsedTimer since;
  };
  void greet();
  void read();
  void send(const Kept& reading);

  QString name_, count_;
  QLocalServer server_;
  QString refused_;
  QLocalSocket* client_ = nullptr;
  std::deque<Kept> waiting_;
  Kept last_{0, 0, 0, {}};
};

}  // namespace armure
