// app/printed_pieces.h
//
// Which pieces go on paper and into drawings: layers that can be ticked, and under each its pieces. What is ticked
// holds for this sitting and is not part of the order.
#pragma once

#include <QTreeWidget>

#include "app/order_session.h"

namespace armure {

class PrintedPieces : public QTreeWidget {
  Q_OBJECT
 public:
  explicit PrintedPieces(OrderSession& session, QWidget* parent = nullptr);

 protected:
  void showEvent(QShowEvent* event) override;

 private:
  void refresh();
  void fill(const Pattern& pattern);
  void leaveOut();   // what is not ticked
  void fitHeight();  // as high as its rows, within reason

  OrderSession& session_;
  QStringList shown_;  // ids and names of the pieces that stand there
};

}  // namespace armure
