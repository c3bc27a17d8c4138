// app/fit_panel.h
//
// Fittings: when and on what, what was seen note by note, and the alteration proposed for all of them. The proposal is
// laid over the pieces on the table; taken, it is an alteration of the order, with undo.
#pragma once

#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>
#include <QWidget>
#include <memory>

#include "alter/proposal.h"
#include "app/choice_box.h"
#include "app/growing_list.h"
#include "app/order_session.h"
#include "app/value_row.h"

namespace armure {

class FitPanel : public QWidget {
  Q_OBJECT
 public:
  explicit FitPanel(OrderSession& session, QWidget* parent = nullptr);

  // The pattern as the fitting shown would alter it; nullptr where there is nothing to propose.
  std::shared_ptr<const Pattern> proposed() const { return proposed_; }

 signals:
  void refused(const QString& why);
  void proposalChanged();

 protected:
  void showEvent(QShowEvent*) override { refresh(); }

 private:
  void addFitting();
  void addNote();
  void addProposal();
  void refresh();
  void refreshFitting();
  void refreshNoteFields();
  void refreshPlaces();
  void refreshProposal();
  void followSelection();  // the seam picked on the table is the note's line
  void begin();            // a new fitting, today
  void offerComplaint();
  void note();
  void forget();
  void take();
  // Changes the fitting shown; a step of its own unless a merge key says otherwise.
  void change(const QString& name, const std::string& mergeKey, const std::function<void(Fitting&)>& how);
  void step(Order next, const char* name);
  const Fitting* shown() const;
  const Alteration* taken() const;  // the alteration that came of it
  FitNote noteWritten() const;
  BodySide halfWritten() const;  // the side of the body it is noted for

  OrderSession& session_;
  QVBoxLayout* column_;
  ChoiceBox *fittings_, *on_;
  QPushButton* begin_;
  ValueRow *date_, *gap_;
  ChoiceBox *complaint_, *line_, *work_, *from_, *to_, *half_;
  QLabel* why_;
  ValueRow *amount_, *seen_;
  QPushButton *note_, *forget_, *take_;
  GrowingList* notes_;
  QLabel* proposal_;
  QWidget *writing_, *noted_;       // shown where there is a fitting
  std::string written_, seenText_;  // of the note being written: its amount and what was seen, as typed
  std::optional<double> amountMm_;
  std::shared_ptr<const Pattern> proposed_;
  Alteration offered_;
};

}  // namespace armure
