// app/alter_panel.h
//
// What is done to the pattern: its alterations, each with a tick; the base it was recalculated from; and which other
// version of it is laid over the pieces on the table, with what differs.
#pragma once

#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>
#include <QWidget>
#include <memory>

#include "alter/differences.h"
#include "app/choice_box.h"
#include "app/growing_list.h"
#include "app/order_session.h"

namespace armure {

class FitPanel;

class AlterPanel : public QWidget {
  Q_OBJECT
 public:
  AlterPanel(OrderSession& session, FitPanel& fit, QWidget* parent = nullptr);

  // What lies over the pieces now; nullptr for nothing.
  std::shared_ptr<const Pattern> version() const { return version_; }
  LaidAt laidAt() const;

 signals:
  void refused(const QString& why);
  void versionChanged();
  void tableWanted();                       // the table of shifts
  void drawingChosen(const QString& file);  // to be read as a base

 protected:
  void showEvent(QShowEvent*) override {
    refresh();
    refreshVersion();
  }

 private:
  void addAlterations();
  void addBase();
  void addVersions();
  void addEarlier();
  void refresh();  // all but the version, which follows the proposal
  void refreshAlterations();
  void refreshPlaces(const Pattern& pattern);
  void refreshBase();
  void refreshVersion();
  void setOn(int row, bool on);
  void remove();
  void keep();
  void recalculate();
  void chooseDrawing();
  void askOther();
  void keepState();       // as a revision
  void takeUpRevision();  // the one laid over the pieces
  void refreshEarlier();
  void takeEarlier();
  std::shared_ptr<const Pattern> patternOf(Order order) const;
  void change(Order next, const char* name);

  OrderSession& session_;
  FitPanel& fit_;
  QVBoxLayout* column_;
  GrowingList* alterations_;
  QPushButton *remove_, *keep_, *recalculate_, *shifts_, *keepState_, *takeUp_, *takeEarlier_;
  QLabel* earlierTitle_;
  ChoiceBox* earlier_;  // corrections of the client's other orders in this folder
  std::vector<std::pair<Order, Alteration>> offered_;
  std::string lookedIn_;  // the folder and client they were looked for
  QLabel* base_;
  ChoiceBox *versions_, *laidAt_;
  GrowingList* differences_;
  QLabel* summary_;
  std::vector<EdgeDifference> found_;
  std::shared_ptr<const Pattern> version_;
  std::optional<Order> other_;  // another order, from a file
  QString otherName_;
};

}  // namespace armure
