// app/sheet_panel.h
//
// The balance sheet: every check, the failing ones first. A click, or Enter, shows the spot on the table.
#pragma once

#include <QLabel>
#include <QListWidget>
#include <QStyledItemDelegate>

#include "app/order_session.h"
#include "render/theme.h"

namespace armure {

class SheetPanel : public QWidget {
  Q_OBJECT
 public:
  explicit SheetPanel(OrderSession& session, QWidget* parent = nullptr);
  void setTheme(const Theme& theme);
  QListWidget* list() const { return list_; }

 signals:
  void rowChosen();

 private:
  void refresh();
  OrderSession& session_;
  QLabel* summary_;
  QListWidget* list_;
  class RowPainter;
  RowPainter* painter_;
};

}  // namespace armure
