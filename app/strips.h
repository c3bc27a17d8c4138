// app/strips.h
//
// The strips below the table: the rails with their buttons, and the walker with the seam it walks. Each is shown by the
// stages whose row of the stage table names it.
#pragma once

#include <QLabel>
#include <QPushButton>
#include <QWidget>

#include "app/order_session.h"
#include "app/rails_view.h"
#include "app/seam_walker.h"

namespace armure {

class RailsStrip : public QWidget {
  Q_OBJECT
 public:
  explicit RailsStrip(OrderSession& session, QWidget* parent = nullptr);
  RailsView& rails() { return *rails_; }

 private:
  void refresh();

  OrderSession& session_;
  RailsView* rails_;
  QLabel* school_;
  QPushButton* giveBack_;
};

class WalkerStrip : public QWidget {
  Q_OBJECT
 public:
  explicit WalkerStrip(OrderSession& session, QWidget* parent = nullptr);
  SeamWalker& walker() { return *walker_; }

 private:
  void refresh();

  OrderSession& session_;
  SeamWalker* walker_;
  QLabel *seam_, *reading_, *hint_;
};

}  // namespace armure
