// app/workings_panel.h
//
// The workings: how the selected value came to be, term by term, with its source. For an edge of a piece: its seam,
// walked stretch by stretch. Below, whenever the waist is reduced: by how much, and the cautions.
#pragma once

#include <QLabel>
#include <QTimer>
#include <QWidget>

#include "app/order_session.h"
#include "app/reduction_panel.h"
#include "app/settled_text.h"
#include "render/theme.h"

namespace armure {

// The workings of the selection as rich text; testable without a window.
QString workingsText(const Order& order, const Design& design, const Selection& selection, const Theme& theme);

// A measure: its names, how it is taken, and how its value came to be; needs no design.
QString measureText(const Order& order, std::string_view measure, const Theme& theme);

class WorkingsPanel : public QWidget {
  Q_OBJECT
 public:
  explicit WorkingsPanel(OrderSession& session, QWidget* parent = nullptr);
  void setTheme(const Theme& theme);
  // Whether the reduction of the waist is chosen on this stage.
  void setReductionChosen(bool chosen) { reduction_->setWhole(chosen); }

 private:
  void refresh();
  void showIdle();
  OrderSession& session_;
  const Theme* theme_;
  SettledText* text_;
  QLabel* idle_;  // what of the order has no effect; looked for when nothing changes for a moment
  QTimer idleTimer_;
  ReductionPanel* reduction_;
};

}  // namespace armure
