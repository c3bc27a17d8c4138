// app/cloth_view.h
//
// The pieces on their cloths, in place of the table: one cloth at a time, its layout looked for in the background with
// the best so far shown, and what of it is laid by hand (cloth_canvas.h) kept as choices of the order.
#pragma once

#include <QLabel>
#include <QPushButton>
#include <QTimer>
#include <QWidget>

#include "app/choice_box.h"
#include "app/cloth_canvas.h"
#include "app/laying_runner.h"
#include "app/order_session.h"

namespace armure {

class ClothView : public QWidget {
  Q_OBJECT
 public:
  explicit ClothView(OrderSession& session, QWidget* parent = nullptr);
  void setTheme(const Theme& theme);
  ClothCanvas& canvas() { return *canvas_; }
  bool isLooking() const { return runner_.isBusy() || later_.isActive(); }

 signals:
  void left();
  void refused(const QString& why);

 protected:
  void showEvent(QShowEvent*) override { refresh(); }
  void hideEvent(QHideEvent*) override { runner_.stop(); }

 private:
  QWidget* makeHead();
  void refresh();
  void placeLabels(const Pattern& pattern);
  void look(double seconds);
  void take();
  void tell();
  void keep(size_t item, const LaidItem& place);
  void letGo(size_t item);
  size_t cloth() const;  // that is shown

  OrderSession& session_;
  LayingRunner runner_;
  QTimer later_;
  CutList list_;
  std::vector<ClothLaying> layings_;
  std::vector<std::vector<LabelPlace>> labels_;  // by cloth and item
  std::vector<StripLayout> layouts_;             // the best so far, by cloth
  ChoiceBox* box_;
  QPushButton* look_;
  QLabel* state_;
  ClothCanvas* canvas_;
};

}  // namespace armure
