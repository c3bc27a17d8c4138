#include "app/rule_finder.h"

#include <QAbstractItemView>
#include <QKeyEvent>

#include "render/words.h"
#include "rules/rule_search.h"

namespace armure {
namespace {

constexpr size_t kMostShown = 12;

// "Back line, waist · Intakes, Shape"
QString lineOf(const RuleInfo& rule) {
  return QStringLiteral("%1 · %2, %3").arg(q(rule.label), q(rule.group), q(rule.stage));
}

}  // namespace

RuleFinder::RuleFinder(QWidget* parent) : QLineEdit(parent) {
  setObjectName("finder");
  setPlaceholderText("Find a choice");
  setAccessibleName("Find a choice");
  setToolTip("Any choice by a word of its name, from whatever stage (Ctrl+F)");
  setClearButtonEnabled(true);
  auto* completer = new QCompleter(&found_, this);
  completer->setCompletionMode(QCompleter::UnfilteredPopupCompletion);
  completer->popup()->setObjectName("found");
  completer->popup()->setMinimumWidth(360);
  setCompleter(completer);
  connect(this, &QLineEdit::textEdited, this, &RuleFinder::look);
  connect(completer, QOverload<const QModelIndex&>::of(&QCompleter::activated), this,
          [this](const QModelIndex& index) { pick(index.row()); });
}

void RuleFinder::look(const QString& words) {
  rules_ = rulesNamed(words.toStdString());
  if (rules_.size() > kMostShown) rules_.resize(kMostShown);
  QStringList lines;
  for (const RuleInfo* rule : rules_) lines << lineOf(*rule);
  found_.setStringList(lines);
}

// Enter takes the first that was found.
void RuleFinder::keyPressEvent(QKeyEvent* event) {
  const bool enter = event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter;
  if (enter && !completer()->popup()->currentIndex().isValid()) return pick(0);
  QLineEdit::keyPressEvent(event);
}

void RuleFinder::pick(int row) {
  if (row < 0 || static_cast<size_t>(row) >= rules_.size()) return;
  const QString key = q(rules_[static_cast<size_t>(row)]->key);
  completer()->popup()->hide();
  QMetaObject::invokeMethod(
      this,
      [this, key] {  // the completer writes its own line into the field after this
        clear();
        emit wanted(key);
      },
      Qt::QueuedConnection);
}

}  // namespace armure
