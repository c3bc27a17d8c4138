// app/shift_view.h
//
// The table of shifts as makers keep it, in the middle of the window: client, pattern, fold, front side, back side, and
// what is used of both; every cell can be written over, its working stands on the right. Below, both edges of the side
// over each other: with every level by itself, and by the formula.
#pragma once

#include <QLabel>
#include <QPushButton>
#include <QTableWidget>
#include <QWidget>

#include "alter/differences.h"
#include "app/choice_box.h"
#include "app/order_session.h"
#include "render/theme.h"

namespace armure {

// Both edges of one side seam over each other, from the top edge down; what lies between them is filled.
class SideCurvesView : public QWidget {
 public:
  explicit SideCurvesView(const QString& name);
  void show(SideCurves curves, const Theme& theme);
  // The greatest distance between both edges below the waist, against where they are at it; mm.
  double apart() const { return apart_; }

 protected:
  void paintEvent(QPaintEvent*) override;

 private:
  QString name_;
  SideCurves curves_;
  const Theme* theme_;
  double apart_ = 0;
};

class ShiftView : public QWidget {
  Q_OBJECT
 public:
  explicit ShiftView(OrderSession& session, QWidget* parent = nullptr);
  void setTheme(const Theme& theme);

 signals:
  void left();  // back to the table
  void refused(const QString& why);

 protected:
  void showEvent(QShowEvent*) override { refresh(); }

 private:
  void refresh();
  void fillRows(const ShiftTable& table);
  void written(int row, int column);
  void change(const std::function<void(Recalculation&)>& how, const char* name);
  std::string cellId(int row, int column) const;

  OrderSession& session_;
  const Theme* theme_;
  QLabel *head_, *why_;
  ChoiceBox *from_, *rest_;
  QTableWidget* table_;
  SideCurvesView *alone_, *formula_;
};

}  // namespace armure
