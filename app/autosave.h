// app/autosave.h
//
// Keeps unsaved work safe: a moment after every change the order is written, atomically, to the user's state folder
// ($XDG_STATE_HOME/armure/autosave). When the program starts, what an earlier run left unsaved is offered.
#pragma once

#include <QObject>
#include <QTimer>
#include <string>
#include <vector>

#include "app/order_session.h"

namespace armure {

struct Recovered {
  std::string file;  // the autosave file
  std::string path;  // the order file it belongs to; empty for an order never saved
  std::string time;  // when it was kept, local time
  std::string title;
  std::string text;  // the order
};

class Autosave : public QObject {
  Q_OBJECT
 public:
  explicit Autosave(OrderSession& session, QObject* parent = nullptr);

  // Work left by runs that have ended, newest first.
  static std::vector<Recovered> leftBehind();
  static void forget(const Recovered& recovered);
  static std::string folder();

  void writeNow();  // writes if there is unsaved work, else removes this run's file

 signals:
  void failed(const QString& message);  // the state folder cannot be written

 private:
  std::string file() const;
  OrderSession& session_;
  QTimer timer_;
};

}  // namespace armure
