// app/balance_panel.h
//
// Balancing, seam by seam: what is out, what becomes of the difference, what moves, how far and why. While the pieces
// stay as drafted it is a proposal; nothing is moved that was not asked for.
#pragma once

#include <QLabel>
#include <QListWidget>
#include <QPushButton>
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
    QPushButton* name;  // chooses the seam
    QLabel* state;
    ChoiceBox* wish;
    QWidget* ease;  // from where to where, while something is eased
    ChoiceBox *from, *to;
    QPushButton *holdA, *holdB;
    QStringList offered = {};  // the pieces and notches its boxes were filled for
  };

  SeamRow& rowOf(const std::string& seam);
  void connectRow(const std::string& seam, const SeamRow& row);
  void refresh();
  void refreshRow(const Seam& seam, const Pattern& before, const Pattern& now);
  void choose(const std::string& seam, const SeamChoice& choice);
  SeamChoice choiceOf(const std::string& seam) const;
  void toggleLock(const std::string& seam, bool sideA);
  void showMoves(const Balanced& balanced);

  OrderSession& session_;
  QVBoxLayout* seams_;
  QLabel *head_, *summary_;
  QListWidget* moves_;
  std::map<std::string, SeamRow> rows_;
};

}  // namespace armure
