// app/balance_panel.h
//
// Balancing, seam by seam: what is out, which side gives way, what moves and how far. While the pieces stay as drafted
// it is a proposal; nothing is moved that was not asked for.
#pragma once

#include <QLabel>
#include <QVBoxLayout>
#include <QWidget>
#include <map>

#include "app/choice_box.h"
#include "app/order_session.h"

namespace armure {

class BalancePanel : public QWidget {
 public:
  explicit BalancePanel(OrderSession& session, QWidget* parent = nullptr);

 protected:
  void showEvent(QShowEvent*) override { refresh(); }

 private:
  struct SeamRow {
    QWidget* row;
    QLabel* name;
    ChoiceBox* wish;
  };

  void refresh();
  void showMoves(const Balanced& balanced);
  SeamRow& rowOf(const std::string& seam);

  OrderSession& session_;
  QVBoxLayout* seams_;
  QLabel *head_, *summary_, *moves_;
  std::map<std::string, SeamRow> rows_;
};

}  // namespace armure
