// app/measure_row.h
//
// One measure of the stage Client: its field, what is asked about it, and, when it was taken more than once, how far
// the takings differ and which of them counts.
#pragma once

#include <QPushButton>

#include "app/order_session.h"
#include "app/value_row.h"
#include "measure/measure_table.h"

namespace armure {

class MeasureRow : public ValueRow {
  Q_OBJECT
 public:
  MeasureRow(OrderSession& session, const MeasureInfo& info, QWidget* parent = nullptr);
  void refresh();
  const MeasureInfo& info() const { return info_; }

 signals:
  void stepped(bool forward);

 protected:
  void step(bool forward) override { emit stepped(forward); }

 private:
  void refreshTakings(const TakenMeasure* taken);
  void refreshQuestion();

  OrderSession& session_;
  const MeasureInfo& info_;
  QWidget* takings_;
  QLabel* spread_;
  QPushButton* use_;
};

}  // namespace armure
