// app/settled_text.h
//
// Text in the column on the right: its width is fixed, so that its height is found once and not at every pass of the
// layout.
#pragma once

#include <QLabel>

namespace armure {

inline void setSettledText(QLabel* label, const QString& text) {
  constexpr int kTextWidth = 296;
  if (label->text() == text) return;
  label->setText(text);
  label->setFixedHeight(label->heightForWidth(kTextWidth));
  QSizePolicy policy = label->sizePolicy();
  policy.setHeightForWidth(false);
  label->setSizePolicy(policy);
}

}  // namespace armure
