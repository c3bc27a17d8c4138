// app/stage_bar.h
//
// The stages of the work, standing on a measuring tape. One can go to any of them at any time; a dot marks a stage
// where something needs a look.
#pragma once

#include <QWidget>
#include <vector>

#include "app/stage_table.h"
#include "render/theme.h"

namespace armure {

class StageBar : public QWidget {
  Q_OBJECT
 public:
  explicit StageBar(QWidget* parent = nullptr);
  void setTheme(const Theme& theme);
  Stage stage() const { return stage_; }
  void setStage(Stage stage);
  void setAttention(Stage stage, bool needed);
  QRect stageRect(Stage stage) const;
  QSize sizeHint() const override { return {520, 40}; }

 signals:
  void stageChosen(Stage stage);

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  const Theme* theme_;
  Stage stage_ = Stage::Client;
  std::vector<bool> attention_;
};

}  // namespace armure
