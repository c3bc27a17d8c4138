#include "tape/tape_link.h"

#include <QStandardPaths>

namespace armure {

constexpr int kLookAgainMs = 500;

QString defaultTapeSocket() {
  const QString named = qEnvironmentVariable("ARMURE_TAPE");
  return named.isEmpty() ? QStandardPaths::writableLocation(QStandardPaths::RuntimeLocation) + "/armure-tape" : named;
}

TapeLink::TapeLink(QObject* parent) : QObject(parent) {
  again_.setInterval(kLookAgainMs);
  connect(&again_, &QTimer::timeout, this, &TapeLink::connectNow);
  connect(&socket_, &QLocalSocket::readyRead, this, &TapeLink::read);
  connect(&socket_, &QLocalSocket::disconnected, this, &TapeLink::gone);
}

TapeLink::~TapeLink() { socket_.disconnect(this); }

void TapeLink::start(const QString& path) {
  path_ = path;
  setState(State::Looking);
  again_.start();
  connectNow();
}

void TapeLink::stop() {
  again_.stop();
  setState(State::Off);
  socket_.abort();
}

void TapeLink::connectNow() {
  if (socket_.state() == QLocalSocket::UnconnectedState) socket_.connectToServer(path_);
}

void TapeLink::read() {
  for (const TapeEvent& event : inbox_.feed(socket_.readAll().toStdString())) {
    if (event.kind == TapeEvent::Kind::Hello) {
      name_ = QString::fromStdString(event.text);
      setState(State::Connected);
      continue;
    }
    emit happened(event);
    if (event.kind != TapeEvent::Kind::Garbage) socket_.write(QByteArray::fromStdString(tapeTaken(event.number)));
  }
  socket_.flush();
}

void TapeLink::gone() {
  inbox_.disconnected();
  if (state_ == State::Connected) setState(State::Lost);
}

void TapeLink::setState(State state) {
  if (state == state_) return;
  state_ = state;
  emit stateChanged();
}

}  // namespace armure
