// app/rule_finder.h
//
// A field that finds a choice by what a maker calls it, whatever stage it stands on: what is typed is looked for in the
// names of all rules, in their groups, reasons and options.
#pragma once

#include <QCompleter>
#include <QLineEdit>
#include <QStringListModel>
#include <vector>

#include "rules/rule_row.h"

namespace armure {

class RuleFinder : public QLineEdit {
  Q_OBJECT
 public:
  explicit RuleFinder(QWidget* parent = nullptr);

 signals:
  void wanted(const QString& key);  // of the rule that was picked

 protected:
  void keyPressEvent(QKeyEvent* event) override;

 private:
  void look(const QString& words);
  void pick(int row);

  QStringListModel found_;
  std::vector<const RuleInfo*> rules_;  // as listed
};

}  // namespace armure
