// app/orders_dialog.h
//
// All orders that were open lately and those of their folders, found by typing: a field, and beneath it what has every
// word of it in its name or folder. Enter opens the first, the arrow keys and Enter or a double click another.
#pragma once

#include <QDialog>
#include <QLineEdit>
#include <QTreeWidget>

namespace armure {

class OrdersDialog : public QDialog {
  Q_OBJECT
 public:
  // `recent`: files of orders, the last one first.
  OrdersDialog(const QStringList& recent, QWidget* parent);

  QString chosen() const { return chosen_; }  // empty where none was

 protected:
  bool eventFilter(QObject* object, QEvent* event) override;

 private:
  void fill(const QStringList& recent);
  void look(const QString& words);
  void step(int by);
  void take(QTreeWidgetItem* item);

  QLineEdit* field_;
  QTreeWidget* list_;
  QString chosen_;
};

}  // namespace armure
