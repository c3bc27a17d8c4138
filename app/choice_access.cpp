#include "app/choice_access.h"

#include <QAccessibleWidget>
#include <QComboBox>

namespace armure {
namespace {

class ChoiceAccess : public QAccessibleWidget {
 public:
  explicit ChoiceAccess(QComboBox* box) : QAccessibleWidget(box, QAccessible::ComboBox) {}

  QString text(QAccessible::Text kind) const override {
    return kind == QAccessible::Value ? box()->currentText() : QAccessibleWidget::text(kind);
  }
  QAccessible::State state() const override {
    QAccessible::State state = QAccessibleWidget::state();
    state.expandable = state.hasPopup = true;
    state.editable = box()->isEditable();
    return state;
  }
  QStringList actionNames() const override { return {showMenuAction(), setFocusAction()}; }
  void doAction(const QString& action) override {
    if (action == showMenuAction())
      box()->showPopup();
    else
      QAccessibleWidget::doAction(action);
  }

 private:
  QComboBox* box() const { return static_cast<QComboBox*>(widget()); }
};

QAccessibleInterface* accessOf(const QString&, QObject* object) {
  auto* box = qobject_cast<QComboBox*>(object);
  return box ? new ChoiceAccess(box) : nullptr;
}

}  // namespace

void nameChoiceBoxes() {
  static const bool once = (QAccessible::installFactory(accessOf), true);
  (void)once;
}

}  // namespace armure
