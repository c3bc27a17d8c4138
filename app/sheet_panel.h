// app/sheet_panel.h
//
// The balance sheet: every check, the failing ones first. A click, or Enter, shows the spot on the table and, below the
// list, what would mend it, with a button that goes there.
#pragma once

#include <QLabel>
#include <QListWidget>
#include <QPushButton>
#include <QStyledItemDelegate>
#include <vector>

#include "app/order_session.h"
#include "render/theme.h"

namespace armure {

class SheetPanel : public QWidget {
  Q_OBJECT
 public:
  explicit SheetPanel(OrderSession& session, QWidget* parent = nullptr);
  void setTheme(const Theme& theme);
  QListWidget* list() const { return list_; }
  // What the button for a row does, in a few words; empty where there is nothing to press.
  QString wayOf(const CheckRow& row) const;

 signals:
  void rowChosen();
  void mendWanted(const CheckRow& row);  // the way that is offered is to be taken

 private:
  void refresh();
  void showRemedy();
  OrderSession& session_;
  QLabel* summary_;
  QListWidget* list_;
  QWidget* mending_;
  QLabel* remedy_;
  QPushButton* mend_;
  class RowPainter;
  RowPainter* painter_;
  // What a row says to those who do not see it painted.
  struct Told {
    Message name, tip;
    LengthFormat units;
    bool operator==(const Told&) const = default;
  };
  std::vector<Told> told_;  // by row
  std::vector<bool> tall_;  // by row, as laid out
};

}  // namespace armure
