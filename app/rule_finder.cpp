#include "app/rule_finder.h"

#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QVBoxLayout>
#include <algorithm>

#include "render/words.h"
#include "rules/rule_search.h"

namespace armure {
namespace {

constexpr size_t kMostShown = 12;

// "Back line, waist · Shape"
QString lineOf(const RuleInfo& rule) { return QStringLiteral("%1 · %2").arg(q(rule.label), q(rule.stage)); }

}  // namespace

RuleFinder::RuleFinder(const QString& heading, QWidget* parent)
    : QWidget(parent), field_(new QLineEdit), list_(new QListWidget) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(2);
  auto* top = new QHBoxLayout;
  auto* title = new QLabel(heading);
  title->setObjectName("heading");
  top->addWidget(title);
  top->addStretch(1);
  field_->setObjectName("finder");
  field_->setFixedWidth(150);
  field_->setPlaceholderText("Find a choice");
  field_->setAccessibleName("Find a choice");
  field_->setToolTip("Any choice by a word of its name, from whatever stage (Ctrl+F)");
  field_->installEventFilter(this);
  top->addWidget(field_);
  column->addLayout(top);
  list_->setObjectName("found");
  list_->setAccessibleName("Choices found");
  list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  list_->setFocusPolicy(Qt::NoFocus);
  list_->hide();
  column->addWidget(list_);
  connect(field_, &QLineEdit::textChanged, this, &RuleFinder::look);
  connect(list_, &QListWidget::itemClicked, this, [this](QListWidgetItem* item) { pick(list_->row(item)); });
}

void RuleFinder::look(const QString& words) {
  rules_ = rulesNamed(words.toStdString());
  if (rules_.size() > kMostShown) rules_.resize(kMostShown);
  list_->clear();
  for (const RuleInfo* rule : rules_) {
    auto* item = new QListWidgetItem(lineOf(*rule), list_);
    item->setToolTip(q(rule->reason));
  }
  if (list_->count() > 0) {
    list_->setCurrentRow(0);
    list_->setFixedHeight(list_->count() * list_->sizeHintForRow(0) + 2 * list_->frameWidth() + 4);
  }
  list_->setVisible(list_->count() > 0);
}

bool RuleFinder::eventFilter(QObject* object, QEvent* event) {
  if (event->type() != QEvent::KeyPress) return QWidget::eventFilter(object, event);
  const int key = static_cast<QKeyEvent*>(event)->key(), last = list_->count() - 1;
  switch (key) {
    case Qt::Key_Return:
    case Qt::Key_Enter:
      pick(list_->currentRow());
      return true;
    case Qt::Key_Down:
      list_->setCurrentRow(std::min(list_->currentRow() + 1, last));
      return true;
    case Qt::Key_Up:
      list_->setCurrentRow(std::max(list_->currentRow() - 1, 0));
      return true;
    case Qt::Key_Escape:
      field_->clear();
      return true;
    default:
      return QWidget::eventFilter(object, event);
  }
}

void RuleFinder::pick(int row) {
  if (row < 0 || static_cast<size_t>(row) >= rules_.size()) return;
  const QString key = q(rules_[static_cast<size_t>(row)]->key);
  field_->clear();
  emit wanted(key);
}

}  // namespace armure
