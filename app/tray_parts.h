// app/tray_parts.h
//
// What the panels of a tray are put together from: headings, boxes with a name, a field beside its label.
#pragma once

#include <QHBoxLayout>
#include <QLabel>
#include <QVBoxLayout>
#include <utility>
#include <vector>

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

// The entries of a box, text and data; what is chosen stays chosen where it is still there. Nothing is done where they
// are as before.
inline void refill(QComboBox& box, const std::vector<std::pair<QString, QString>>& entries) {
  bool same = box.count() == static_cast<int>(entries.size());
  for (int i = 0; same && i < box.count(); ++i)
    same = box.itemText(i) == entries[static_cast<size_t>(i)].first &&
           box.itemData(i).toString() == entries[static_cast<size_t>(i)].second;
  if (same) return;
  const QString chosen = box.currentData().toString();
  box.clear();
  for (const auto& [text, data] : entries) box.addItem(text, data);
  if (const int at = box.findData(chosen); at >= 0) box.setCurrentIndex(at);
}

}  // namespace armure
