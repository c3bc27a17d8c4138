// app/rules_tray.h
//
// The tray of a stage that is made of choices: every rule of the rule table that stands on this stage, in its groups. A
// rule changed by hand stands in bold; emptying its field gives the default back. What is seldom chosen and not chosen
// here stays out of sight until its group is opened.
#pragma once

#include <QComboBox>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>
#include <functional>
#include <map>
#include <set>
#include <string>

#include "app/order_session.h"
#include "app/rule_finder.h"
#include "app/stage_bar.h"
#include "app/value_row.h"

namespace armure {

class RulesTray : public QWidget {
  Q_OBJECT
 public:
  RulesTray(OrderSession& session, Stage stage, QWidget* parent = nullptr);
  QVBoxLayout* column() const { return column_; }
  // The field of a rule of this tray; nullptr where it has none.
  QWidget* fieldOf(const std::string& key) const;
  // Opens the group of a rule, so that its field is seen where it counts.
  void openGroupOf(const RuleInfo& rule);
  RuleFinder* finder() const { return finder_; }

 signals:
  void shelfWanted();                   // the styles, with their drawings
  void ruleWanted(const QString& key);  // found by its name, on whatever stage

 protected:
  void showEvent(QShowEvent*) override { refresh(); }

 private:
  void addRule(const RuleInfo& rule);
  void addPresets(const QString& name, const QString& label, std::span<const Preset> presets,
                  std::string Order::*member, std::function<void(const std::string&)> choose);
  void addGroup(std::string_view name);
  bool hasGroup(std::string_view name) const;
  bool isOpen(std::string_view group) const;
  void refresh();  // puts itself off while the tray is not seen

  OrderSession& session_;
  RuleFinder* finder_;
  QVBoxLayout* column_;
  std::map<std::string, ValueRow*> values_;
  struct Options {
    QWidget* row;
    QComboBox* box;
  };
  std::map<std::string, Options> options_;
  std::vector<std::pair<QComboBox*, std::string Order::*>> presets_;
  std::vector<QWidget*> presetParts_;  // put away where the pieces are not drafted
  QLabel* notDrafted_;                 // and this says so
  bool drafts_;                        // the stage is one of drafting
  struct Group {
    std::string_view name;
    QWidget* heading;   // hidden where none of its rules counts
    QPushButton* more;  // what is seldom chosen; hidden where there is none
  };
  std::vector<Group> groups_;
};

}  // namespace armure
