#include "app/rules_tray.h"

#include <QStandardItemModel>
#include <algorithm>

#include "app/choice_box.h"
#include "draft/ranges.h"
#include "recalc/bases.h"
#include "render/words.h"

namespace armure {
namespace {

// What a click on the rule shows in the workings.
std::string workingFor(std::string_view key) {
  if (key == "intake.underbust") return "front.underbust.intake";
  if (key == "dart.side") return "dart.side";
  if (key.starts_with("chest.")) return "height.chest";
  if (key.starts_with("intake.") || key == "share.rule") return "front.waist.side";
  if (key.starts_with("back.intake") || key.starts_with("centre_back")) return "back.waist.side";
  if (key == "reduction.waist") return "girth.waist";
  if (key == "reduction.underbust") return "girth.underbust";
  if (key == "reduction.quarter" || key == "garment.kind") return "girth.waist";
  if (key == "spring.hip") return "girth.hip";
  if (key == "middle.underbust") return "front.underbust.intake";
  if (key == "spring.high_hip") return "girth.high_hip";
  if (const RuleInfo* rule = findRule(key); key.starts_with("top.") || key.starts_with("back.s") ||
                                            key.starts_with("hem.") || key == "cup.cross_centre" ||
                                            key == "cup.cross_side")
    if (rule && rule->kind == RuleKind::Length) return "rule." + std::string(key);
  if (key == "cup.outer_extra") return "cup.outer";
  if (key == "cup.bridge") return "cup.inner";
  if (key == "cup.side") return "cup.end";
  if (key.starts_with("cup.band")) return "cup.band";
  if (key == "hold.top") return "girth.top";
  if (key == "ease.bust") return "girth.bust";
  if (key.starts_with("armhole.")) return "front.armhole";
  if (key.starts_with("shoulder.")) return "front.slope";
  return "";
}

std::string levelFor(std::string_view key) {
  if (key.ends_with("waist")) return "waist";
  if (key.ends_with("underbust")) return "underbust";
  if (key.ends_with("high_hip")) return "high_hip";
  return "";
}

QString shownNumber(const RuleInfo& rule, double number, const OrderSession& session) {
  return rule.kind == RuleKind::Share ? QString::number(number, 'g', 4)
                                      : QString::fromStdString(formatLength(number, {session.order().units.unit, 16}));
}

// How far it can go beside the other choices.
QString rangeWords(const RuleInfo& rule, const OrderSession& session) {
  RuleRange range{rule.lowest, rule.highest};
  if (session.design()) range = rangeOf(rule, session.design()->rules, session.design()->body);
  return QString("From %1 to %2 here.")
      .arg(shownNumber(rule, range.lowest, session), shownNumber(rule, range.highest, session));
}

// What cannot be made beside the other choices cannot be picked, and says what it needs; what was chosen stays.
void offer(QComboBox& box, const RuleInfo& rule, const OrderSession& session) {
  const auto optionOf = [&](std::string_view key) { return session.rule(key).choice; };
  auto* items = qobject_cast<QStandardItemModel*>(box.model());
  for (int i = 0; items && i < box.count(); ++i) {
    const RuleOption& option = rule.options[static_cast<size_t>(i)];
    const Message missing = missingFor(option, optionOf);
    items->item(i)->setEnabled(missing.empty() || i == box.currentIndex());
    const QString needs = missing.empty() ? QString() : QString("\nNeeds %1.").arg(words(missing));
    items->item(i)->setToolTip(q(option.reason) + needs);
  }
}

}  // namespace

RulesTray::RulesTray(OrderSession& session, Stage stage, QWidget* parent)
    : QWidget(parent), session_(session), finder_(new RuleFinder(stageName(stage))), column_(new QVBoxLayout(this)) {
  setObjectName("trayInside");
  column_->setContentsMargins(16, 14, 14, 14);
  column_->setSpacing(3);
  column_->addWidget(finder_);
  connect(finder_, &RuleFinder::wanted, this, &RulesTray::ruleWanted);
  drafts_ = stage == Stage::Block || stage == Stage::Shape || stage == Stage::Cups || stage == Stage::Lines;
  notDrafted_ =
      new QLabel("This pattern was read from a drawing. Its lines are what they are; they are shifted in Fit.");
  notDrafted_->setObjectName("notDrafted");
  notDrafted_->setWordWrap(true);
  notDrafted_->hide();
  column_->addWidget(notDrafted_);
  if (stage == Stage::Block)
    addPresets("school", "School", schoolTable(), &Order::school,
               [this](const std::string& id) { session_.setSchool(id); });
  if (stage == Stage::Lines) {
    addPresets("style", "Style", styleTable(), &Order::style, [this](const std::string& id) { session_.setStyle(id); });
    auto* shelf = new QPushButton("The shelf of styles");
    shelf->setObjectName("shelf");
    shelf->setToolTip("Every style with its drawing, on these measures (Y)");
    connect(shelf, &QPushButton::clicked, this, &RulesTray::shelfWanted);
    column_->addWidget(shelf);
    presetParts_.push_back(shelf);
  }
  // Under one heading what the table has in several places.
  for (const RuleInfo& first : ruleTable()) {
    if (first.stage != stageName(stage) || hasGroup(first.group)) continue;
    addGroup(first.group);
    for (const RuleInfo& rule : ruleTable())
      if (rule.stage == first.stage && rule.group == first.group) addRule(rule);
  }
  connect(&session, &OrderSession::changed, this, &RulesTray::refresh);
  refresh();
}

void RulesTray::addGroup(std::string_view name) {
  auto* heading = new QWidget;
  auto* line = new QHBoxLayout(heading);
  line->setContentsMargins(0, 8, 0, 0);
  auto* title = new QLabel(q(name));
  title->setObjectName("group");
  line->addWidget(title, 1);
  auto* more = new QPushButton;
  more->setObjectName("more");
  more->setCheckable(true);
  more->setFlat(true);
  connect(more, &QPushButton::toggled, this, &RulesTray::refresh);
  line->addWidget(more);
  column_->addWidget(heading);
  groups_.push_back({name, heading, more});
}

bool RulesTray::hasGroup(std::string_view name) const {
  return std::ranges::find(groups_, name, &Group::name) != groups_.end();
}

void RulesTray::openGroupOf(const RuleInfo& rule) {
  for (const Group& g : groups_)
    if (g.name == rule.group && rule.seldom) g.more->setChecked(true);
}

void RulesTray::addPresets(const QString& name, const QString& label, std::span<const Preset> presets,
                           std::string Order::*member, std::function<void(const std::string&)> choose) {
  auto* title = new QLabel(label);
  title->setObjectName("group");
  column_->addSpacing(4);
  column_->addWidget(title);
  auto* box = new ChoiceBox;
  box->setObjectName(name);
  box->setAccessibleName(label);
  for (const Preset& p : presets) {
    box->addItem(q(p.name), q(p.id));
    box->setItemData(box->count() - 1, q(p.description), Qt::ToolTipRole);
  }
  connect(box, &QComboBox::activated, this,
          [box, choose = std::move(choose)] { choose(box->currentData().toString().toStdString()); });
  column_->addWidget(box);
  presetParts_.insert(presetParts_.end(), {title, box});
  presets_.emplace_back(box, member);
}

void RulesTray::addRule(const RuleInfo& rule) {
  const std::string key(rule.key);
  if (rule.kind == RuleKind::Option) {
    auto* box = new ChoiceBox;
    box->setObjectName(q(key));
    box->setAccessibleName(q(rule.label));
    box->setToolTip(q(rule.reason));
    box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    for (const RuleOption& o : rule.options) {
      box->addItem(q(o.label), q(o.id));
      box->setItemData(box->count() - 1, q(o.reason), Qt::ToolTipRole);
    }
    connect(box, &QComboBox::activated, this, [this, box, key] {
      session_.setChoice(key, box->currentData().toString().toStdString());
      session_.settle();
    });
    auto* row = new QWidget;
    auto* line = new QHBoxLayout(row);
    line->setContentsMargins(0, 1, 0, 1);
    auto* label = new QLabel(q(rule.label));
    label->setToolTip(q(rule.reason));
    label->setWordWrap(QFontMetrics(uiFont()).horizontalAdvance(label->text()) > 100);
    line->addWidget(label, 2);
    line->addWidget(box, 3);
    column_->addWidget(row);
    options_[key] = {row, box};
    return;
  }
  auto* row = new ValueRow(q(key), q(rule.label), q(rule.reason),
                           [this, key](const std::string& text) { return session_.setChoice(key, text); });
  row->setFurtherHint([this, &rule] { return rangeWords(rule, session_); });
  connect(row, &ValueRow::entered, this,
          [this, key] { session_.select({.working = workingFor(key), .level = levelFor(key)}); });
  connect(row, &ValueRow::left, this, [this] { session_.settle(); });
  column_->addWidget(row);
  values_[key] = row;
}

QWidget* RulesTray::fieldOf(const std::string& key) const {
  if (const auto o = options_.find(key); o != options_.end()) return o->second.box;
  const auto v = values_.find(key);
  return v == values_.end() ? nullptr : v->second->field();
}

bool RulesTray::isOpen(std::string_view group) const {
  for (const Group& g : groups_)
    if (g.name == group) return g.more->isChecked();
  return false;
}

void RulesTray::refresh() {
  if (!isVisible()) return;
  const Order& order = session_.order();
  for (const auto& [box, member] : presets_) box->setCurrentIndex(box->findData(QString::fromStdString(order.*member)));
  const bool traced = session_.design() && session_.design()->isTraced();
  notDrafted_->setVisible(traced && drafts_);
  for (QWidget* part : presetParts_) part->setVisible(!traced);
  struct Counting {
    int all = 0, seldom = 0;  // of a group's rules that count; and of these, those that may stay out of sight
  };
  std::map<std::string_view, Counting> counting;
  for (const RuleInfo& rule : ruleTable()) {
    const std::string key(rule.key);
    if (!options_.contains(key) && !values_.contains(key)) continue;
    const bool counts = !(traced && isDraftChoice(key)) &&
                        ruleCounts(rule, [this](std::string_view other) { return session_.rule(other).choice; });
    const RuleValue value = session_.rule(key);
    const bool aside = counts && rule.seldom && !value.chosen;
    counting[rule.group].all += counts;
    counting[rule.group].seldom += aside;
    const bool shows = counts && (!aside || isOpen(rule.group));
    if (const auto o = options_.find(key); o != options_.end()) {
      o->second.box->setCurrentIndex(static_cast<int>(value.number));
      offer(*o->second.box, rule, session_);
      o->second.row->setVisible(shows);
    }
    const auto v = values_.find(key);
    if (v == values_.end()) continue;
    v->second->setVisible(shows);
    const auto chosen = order.choices.find(key);
    const auto shown = [&](double number) { return shownNumber(rule, number, session_); };
    QString placeholder = shown(value.number);
    if (rule.fromMeasures && session_.design() && !session_.problem()) {
      const Working* w = session_.design()->working(workingFor(key));
      if (w) placeholder = shown(w->result);
    }
    v->second->show(chosen == order.choices.end() ? QString() : shown(value.number), placeholder,
                    chosen != order.choices.end());
  }
  for (const Group& g : groups_) {
    const Counting& c = counting[g.name];
    g.heading->setVisible(c.all > 0);
    g.more->setVisible(c.seldom > 0);
    g.more->setText(g.more->isChecked() ? QString("fewer") : QString("%1 more").arg(c.seldom));
    g.more->setAccessibleName(g.more->isChecked() ? QString("%1: fewer choices").arg(q(g.name))
                                                  : QString("%1: %2 more choices").arg(q(g.name)).arg(c.seldom));
    g.more->setToolTip(g.more->isChecked() ? QString("Put away what is seldom chosen")
                                           : QString("Show what is seldom chosen here"));
  }
}

}  // namespace armure
