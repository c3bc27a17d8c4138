// app/book_view.h
//
// The client book on the middle of the stage Client: clients on the left, the dated sets of the chosen one on the
// right, and what can be done with them.
#pragma once

#include <QComboBox>
#include <QLabel>
#include <QListWidget>
#include <QPushButton>

#include "app/client_records.h"

namespace armure {

class BookView : public QWidget {
  Q_OBJECT
 public:
  explicit BookView(ClientRecords& records, OrderSession& session, QWidget* parent = nullptr);

 signals:
  void compareWanted(const std::string& client, const std::string& set);

 protected:
  void showEvent(QShowEvent*) override { refresh(); }

 private:
  QWidget* makeLists();
  QWidget* makeStandard();
  QPushButton* button(const QString& name, const QString& text);
  void refresh();
  void refreshSets();
  void refreshButtons();
  const ClientEntry* client() const;
  const SetEntry* set() const;
  // Deleting asks by its button: the first press names what goes, the second does it.
  void deleteWith(QPushButton* pressed, const QString& what, const std::function<void()>& doIt);
  void disarm();
  void exportChosen();

  ClientRecords& records_;
  OrderSession& session_;
  QListWidget *clients_, *sets_;
  QLabel* empty_;
  QPushButton *use_, *compare_, *export_, *deleteSet_, *deleteClient_;
  QPushButton* armed_ = nullptr;
  QComboBox* standard_;
  std::vector<ClientEntry> clientRows_;
  std::vector<SetEntry> setRows_;
};

}  // namespace armure
