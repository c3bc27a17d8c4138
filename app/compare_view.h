// app/compare_view.h
//
// Two dates side by side on the stage Client: two sets of the client's measures, and what changed between them.
#pragma once

#include <QComboBox>
#include <QLabel>
#include <QTableWidget>

#include "app/client_records.h"
#include "render/theme.h"

namespace armure {

class CompareView : public QWidget {
  Q_OBJECT
 public:
  CompareView(ClientRecords& records, OrderSession& session, QWidget* parent = nullptr);
  void setTheme(const Theme& theme);
  // Compares a set with the one before it; with the one after it when there is none before.
  void compare(const std::string& client, const std::string& set);

 protected:
  void showEvent(QShowEvent*) override { refresh(); }

 private:
  void refresh();
  void refreshRows();
  void fillRow(int row, const struct Compared& compared);
  std::optional<MeasureSet> chosen(const QComboBox* box);

  ClientRecords& records_;
  OrderSession& session_;
  const Theme* theme_;
  std::string client_;
  QLabel *name_, *summary_;
  QComboBox *first_, *second_;
  QTableWidget* table_;
};

}  // namespace armure
