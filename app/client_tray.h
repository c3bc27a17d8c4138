// app/client_tray.h
//
// The tray of the stage Client: whose order it is, and the measures in the order the tape goes. One always stands on a
// measure: the field last entered. There the digital tape writes, and Enter goes on to the next.
#pragma once

#include <QLineEdit>
#include <QVBoxLayout>
#include <string>
#include <vector>

#include "app/client_records.h"
#include "app/measure_row.h"
#include "app/tape_strip.h"

namespace armure {

class ClientTray : public QWidget {
  Q_OBJECT
 public:
  ClientTray(OrderSession& session, ClientRecords& records, QWidget* parent = nullptr);

  TapeStrip& tape() { return *tape_; }
  // Where one begins: the title of a new order, else the first measure.
  void begin();
  // Goes to the field of a measure and shows it; an unknown id does nothing.
  void goTo(std::string_view measure);

 protected:
  void showEvent(QShowEvent*) override { refresh(); }

 private:
  void addTexts();
  void addRecord();
  void addMeasures();
  QLineEdit* textField(const QString& name, const QString& label, std::string Order::*member);
  void stepFrom(size_t row, bool forward);
  void enter(size_t row);
  void takeReading(double mm);
  void refresh();  // puts itself off while the tray is not seen
  void refreshRecord();

  OrderSession& session_;
  ClientRecords& records_;
  QVBoxLayout* column_;
  TapeStrip* tape_;
  QLabel* record_;
  QPushButton* keep_;
  std::vector<MeasureRow*> rows_;  // in tape order
  size_t current_ = 0;
  std::vector<std::pair<QLineEdit*, std::string Order::*>> texts_;
  Order recordShown_;  // the order the record's standing was last looked up for
  bool recordStale_ = true;
};

}  // namespace armure
