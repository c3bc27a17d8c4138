// app/tape_strip.h
//
// The digital tape in the tray of the stage Client: connected or not, what came last, and the readings that were not
// used. A good reading is handed on; the tray writes it where the maker stands.
#pragma once

#include <QLabel>
#include <QPushButton>

#include "app/order_session.h"
#include "tape/tape_link.h"

namespace armure {

class TapeStrip : public QWidget {
  Q_OBJECT
 public:
  explicit TapeStrip(OrderSession& session, QWidget* parent = nullptr);
  TapeLink& link() { return link_; }
  void say(const QString& text) {
    message_->setText(text);
    message_->setVisible(!text.isEmpty());
  }

 signals:
  void reading(double mm);

 private:
  void refreshState();
  void happened(const TapeEvent& event);
  QString length(double mm) const;

  OrderSession& session_;
  TapeLink link_;
  QLabel *state_, *message_;
  QPushButton *connect_, *useLate_;
  double late_ = 0;
};

}  // namespace armure
