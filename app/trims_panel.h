// app/trims_panel.h
//
// What is sewn on, at the stage Lines: each frill, flounce and so on with the line it goes along, where it begins and
// ends, and the rows of its kind. Every change is a choice of the order, with undo.
#pragma once

#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>
#include <QWidget>
#include <map>

#include "app/choice_box.h"
#include "app/order_session.h"
#include "app/value_row.h"
#include "parts/trims/lines.h"

namespace armure {

class TrimsPanel : public QWidget {
  Q_OBJECT
 public:
  explicit TrimsPanel(OrderSession& session, QWidget* parent = nullptr);

 signals:
  void refused(const QString& why);

 protected:
  void showEvent(QShowEvent*) override { refresh(); }

 private:
  void addPlaces();
  void add();
  std::string beginsOn(TrimKind kind) const;
  void takeOff();
  void refresh();
  void followSelection();
  void refreshPlaces(const TrimChoice& trim);
  void refreshFields(const TrimChoice& trim);
  void makeFields(TrimKind kind);
  void choosePlace(bool atStart, const QString& mark);
  std::optional<Problem> shiftPlace(bool atStart, const std::string& text);
  const TrimChoice* edited() const;
  std::string key(std::string_view field) const;
  std::optional<Problem> choose(const std::string& key, const std::string& value);
  void tell(const std::optional<Problem>& problem);

  OrderSession& session_;
  QVBoxLayout* column_;
  ChoiceBox *kinds_, *edited_, *line_;
  QPushButton* takeOff_;
  QLabel* state_;
  QWidget* about_;  // the trim that is edited
  QVBoxLayout* fieldColumn_;
  QWidget* fields_ = nullptr;  // of its kind
  std::optional<TrimKind> fieldsOf_;
  struct Place {
    ChoiceBox* mark;
    ValueRow* on;
  };
  std::array<Place, 2> places_{};
  struct Field {
    QWidget* row;
    ChoiceBox* box;  // of an option, or
    ValueRow* value;
  };
  std::map<std::string, Field> rows_;
};

}  // namespace armure
