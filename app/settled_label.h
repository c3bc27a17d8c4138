// app/settled_label.h
//
// Text in the column on the right. Its width is fixed, so its height is found once, when the text changes, and not at
// every pass of the layout: laying out rich text costs more than drafting a corset.
#pragma once

#include <QLabel>

namespace armure {

class SettledLabel : public QLabel {
 public:
  SettledLabel() { setWordWrap(true); }

  void settle(const QString& text) {
    if (text == this->text()) return;
    setText(text);
    height_ = QLabel::heightForWidth(kTextWidth);
    setFixedHeight(height_);
  }

  QSize sizeHint() const override { return {kTextWidth, height_}; }
  QSize minimumSizeHint() const override { return {0, height_}; }
  bool hasHeightForWidth() const override { return false; }
  int heightForWidth(int) const override { return height_; }

 private:
  static constexpr int kTextWidth = 296;
  int height_ = 0;
};

}  // namespace armure
