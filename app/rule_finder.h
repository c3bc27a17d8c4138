// app/rule_finder.h
//
// A field that finds a choice by what a maker calls it, whatever stage it stands on: what is typed is looked for in the
// names of all rules, in their groups, reasons and options. What was found is listed under the field; Enter takes the
// first, the arrow keys and Enter or a click another.
#pragma once

#include <QLineEdit>
#include <QListWidget>
#include <QWidget>
#include <vector>

#include "rules/rule_row.h"

namespace armure {

class RuleFinder : public QWidget {
  Q_OBJECT
 public:
  explicit RuleFinder(const QString& heading, QWidget* parent = nullptr);
  QLineEdit* field() const { return field_; }

 signals:
  void wanted(const QString& key);  // of the rule that was picked

 protected:
  bool eventFilter(QObject* object, QEvent* event) override;

 private:
  void look(const QString& words);
  void pick(int row);

  QLineEdit* field_;
  QListWidget* list_;
  std::vector<const RuleInfo*> rules_;  // as listed
};

}  // namespace armure
