#include "app/value_row.h"

#include <QEvent>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QStyle>
#include <QVBoxLayout>

#include "render/theme.h"
#include "render/words.h"

namespace armure {

ValueRow::ValueRow(const QString& name, const QString& label, const QString& hint, Apply apply, QWidget* parent)
    : QWidget(parent), field_(new QLineEdit), below_(new QLabel), apply_(std::move(apply)), hint_(hint) {
  setObjectName(name);
  auto* text = new QLabel(label);
  text->setToolTip(hint);
  // Wrapped labels are laid out anew with every change of the tray: only those that need it wrap.
  constexpr int kLabelWidth = 150;
  text->setWordWrap(QFontMetrics(uiFont()).horizontalAdvance(label) > kLabelWidth);
  field_->setObjectName(name + ".field");
  field_->setFixedWidth(104);
  field_->setToolTip(hint);
  field_->setAccessibleName(label);
  field_->installEventFilter(this);
  text->setBuddy(field_);
  below_->setObjectName("wrong");
  below_->setWordWrap(true);
  below_->hide();
  auto* line = new QHBoxLayout;
  line->setContentsMargins(0, 0, 0, 0);
  line->addWidget(text, 1);
  line->addWidget(field_);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 1, 0, 1);
  column->setSpacing(1);
  column->addLayout(line);
  column->addWidget(below_);
  connect(field_, &QLineEdit::textEdited, this, &ValueRow::typed);
}

void ValueRow::typed(const QString& text) {
  typing_ = true;
  const auto problem = apply_(text.toStdString());
  typing_ = false;
  setWrong(problem ? words(msg("{}; {}", problem->what, problem->remedy)) : QString());
}

void ValueRow::setWrong(const QString& message) {
  wrong_ = message;
  const QString shown = wrong_.isEmpty() ? question_ : wrong_;
  below_->setText(shown);
  below_->setVisible(!shown.isEmpty());
  const QString role = wrong_.isEmpty() && calm_ ? "lesser" : "wrong";
  if (below_->objectName() != role) {
    below_->setObjectName(role);
    style()->unpolish(below_);
    style()->polish(below_);
  }
  if (field_->property("wrong").toBool() != !wrong_.isEmpty()) {
    field_->setProperty("wrong", !wrong_.isEmpty());
    style()->unpolish(field_);
    style()->polish(field_);
  }
}

void ValueRow::setQuestion(const QString& question, bool calm) {
  if (question == question_ && calm == calm_) return;
  question_ = question;
  calm_ = calm;
  setWrong(wrong_);
}

void ValueRow::show(const QString& text, const QString& placeholder, bool changed) {
  field_->setPlaceholderText(placeholder);
  if (field_->property("changed").toBool() != changed) {
    field_->setProperty("changed", changed);
    style()->unpolish(field_);
    style()->polish(field_);
  }
  // While typing, the field is the user's; undo and the units key change it from outside.
  if (text == shown_) return;
  shown_ = text;
  if (typing_) return;
  if (field_->text() != text) field_->setText(text);
  setWrong({});
}

bool ValueRow::eventFilter(QObject* object, QEvent* event) {
  if (event->type() == QEvent::ToolTip && further_) field_->setToolTip(hint_ + "\n" + further_());
  if (event->type() == QEvent::FocusIn) emit entered();
  if (event->type() == QEvent::FocusOut) {
    // What could not be read is put aside when the field is left; what could stands there as it is shown everywhere.
    if (field_->text() != shown_) field_->setText(shown_);
    setWrong({});
    emit left();
  }
  if (event->type() == QEvent::KeyPress) {
    const int key = static_cast<QKeyEvent*>(event)->key();
    if (key == Qt::Key_Return || key == Qt::Key_Enter || key == Qt::Key_Down) {
      step(true);
      return true;
    }
    if (key == Qt::Key_Up) {
      step(false);
      return true;
    }
  }
  return QWidget::eventFilter(object, event);
}

}  // namespace armure
