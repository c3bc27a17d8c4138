// app/cup_depth_panel.h
//
// Is the cup deep enough? The angle the pattern takes up about the bust point beside what the breast asks for, as
// curves over the radius; the answer in words; both volumes. Found only while it is seen.
#pragma once

#include <QLabel>
#include <QWidget>

#include "app/order_session.h"
#include "parts/cups/depth.h"
#include "render/theme.h"

namespace armure {

class DepthCurves : public QWidget {
 public:
  explicit DepthCurves(QWidget* parent = nullptr);
  void show(CupDepth depth, LengthFormat units, const Theme& theme);

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  CupDepth depth_;
  LengthFormat units_;
  const Theme* theme_;
};

class CupDepthPanel : public QWidget {
  Q_OBJECT
 public:
  explicit CupDepthPanel(OrderSession& session, QWidget* parent = nullptr);
  void setTheme(const Theme& theme);

 protected:
  void showEvent(QShowEvent*) override { refresh(); }

 private:
  void refresh();
  // The rings of the breast; laid again only for another body, bust point or underbust.
  const BreastRings& ringsOf(const Design& design);

  OrderSession& session_;
  const Theme* theme_;
  BreastRings rings_;
  std::vector<double> ringsOn_;  // the numbers they were laid for
  DepthCurves* curves_;
  QLabel *words_, *volumes_;
};

}  // namespace armure
