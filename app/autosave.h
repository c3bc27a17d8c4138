// app/autosave.h
//
// Keeps unsaved work safe: a moment after a change the order is written, atomically and for its owner's eyes only, to
// the user's state folder ($XDG_STATE_HOME/armure/autosave). Every unsaved order has a file of its own there, which
// stays until the order is saved or the user throws it away: another order may be begun or opened meanwhile. When the
// program starts, what earlier runs left is offered; what this run has set aside stands in the menu of orders.
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
  std::string text;   // the order; empty where the file cannot be read
  std::string fault;  // why it cannot, else empty
};

class Autosave : public QObject {
  Q_OBJECT
 public:
  explicit Autosave(OrderSession& session, QObject* parent = nullptr);

  // Unsaved work that nobody has open, newest first: left by runs that have ended, or set aside. What cannot be read is
  // among it, with its fault.
  std::vector<Recovered> kept() const;
  static void forget(const Recovered& recovered);
  static std::string folder();

  // Writes if there is unsaved work, else removes this order's file. False when it could not be written.
  bool writeNow();
  // Before another order takes the place of this one: unsaved work is written and left, and what comes next has a file
  // of its own. False when there is unsaved work that could not be kept.
  bool setAside();
  std::string file() const;  // where this order is kept

 signals:
  void failed(const QString& message);  // the state folder cannot be written

 private:
  OrderSession& session_;
  QTimer timer_;
  std::string id_;  // of the order's file; another one for every order
};

}  // namespace armure
