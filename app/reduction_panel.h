// app/reduction_panel.h
//
// The reduction: natural against closed waist in length and percent, what ribs and hips get, and the cautions. It
// stands in the column wherever the waist is reduced, always the same, and never asks.
#pragma once

#include <QPushButton>
#include <QWidget>
#include <vector>

#include "app/order_session.h"
#include "app/settled_label.h"
#include "render/theme.h"

namespace armure {

// How much of the natural waist is taken, on a scale with the limits of the classes.
class ReductionBar : public QWidget {
 public:
  explicit ReductionBar(QWidget* parent = nullptr);
  void show(double percent, const Theme& theme);

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  double percent_ = 0;
  const Theme* theme_;
};

// What every level below the bust gets: on the body, closed, and the difference.
class LevelsTable : public QWidget {
 public:
  struct Row {
    QString name, body, closed, less;
    bool tight = false;
    bool operator==(const Row&) const = default;
  };
  void show(std::vector<Row> rows, const Theme& theme);

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  std::vector<Row> rows_;
  const Theme* theme_ = nullptr;
};

class ReductionPanel : public QWidget {
 public:
  explicit ReductionPanel(OrderSession& session, QWidget* parent = nullptr);
  void setTheme(const Theme& theme);
  // Where the reduction is chosen all of it stands there; elsewhere one line, and the rest a click away.
  void setWhole(bool whole);

 private:
  void refresh();

  OrderSession& session_;
  const Theme* theme_;
  SettledLabel *head_, *ribs_, *cautions_;
  QPushButton* more_;
  bool whole_ = true;
  ReductionBar* bar_;
  LevelsTable* levels_;
};

}  // namespace armure
