// tape/tape_link.h
//
// The program's end of the line to a digital tape: connects to its local socket, looks for it again when it is lost,
// and acknowledges every reading. What the readings mean is io/tape_protocol.h; where they go is up to the listener.
#pragma once

#include <QLocalSocket>
#include <QObject>
#include <QTimer>

#include "io/tape_protocol.h"

namespace armure {

// $ARMURE_TAPE, or "armure-tape" in the user's runtime folder.
QString defaultTapeSocket();

class TapeLink : public QObject {
  Q_OBJECT
 public:
  enum class State { Off, Looking, Connected, Lost };

  explicit TapeLink(QObject* parent = nullptr);
  ~TapeLink() override;
  void start(const QString& path = defaultTapeSocket());
  void stop();
  State state() const { return state_; }
  const QString& tapeName() const { return name_; }

 signals:
  void stateChanged();
  void happened(const armure::TapeEvent& event);  // everything but Hello

 private:
  void connectNow();
  void read();
  void gone();
  void setState(State state);

  QLocalSocket socket_;
  QTimer again_;
  QString path_, name_;
  TapeInbox inbox_;
  State state_ = State::Off;
};

}  // namespace armure
