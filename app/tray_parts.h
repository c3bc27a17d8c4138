// app/tray_parts.h
//
// What the panels of a tray are put together from: headings, boxes with a name, a field beside its label.
#pragma once

#include <QHBoxLayout>
#include <QLabel>
#include <QVBoxLayout>

#include "app/choice_box.h"

namespace armure {

inline QLabel* addTrayTitle(QVBoxLayout& column, const QString& text) {
  auto* title = new QLabel(text);
  title->setObjectName("group");
  column.addSpacing(6);
  column.addWidget(title);
  return title;
}

// `label` is what it is called aloud.
inline ChoiceBox* trayBox(const QString& name, const QString& label) {
  auto* box = new ChoiceBox;
  box->setObjectName(name);
  box->setAccessibleName(label);
  box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  return box;
}

// The field has `share` times the room of its label.
inline QWidget* trayRow(const QString& text, QWidget* field, double share) {
  auto* row = new QWidget;
  auto* line = new QHBoxLayout(row);
  line->setContentsMargins(0, 1, 0, 1);
  auto* label = new QLabel(text);
  label->setWordWrap(true);
  line->addWidget(label, 2);
  line->addWidget(field, static_cast<int>(2 * share));
  return row;
}

}  // namespace armure
