// app/value_row.h
//
// One row of a tray: a name, a field for its value, and under it what is wrong or asked. The field is written at every
// key; a text that cannot be read changes nothing and says so.
#pragma once

#include <QLabel>
#include <QLineEdit>
#include <QWidget>
#include <functional>
#include <optional>

#include "result.h"

namespace armure {

class ValueRow : public QWidget {
  Q_OBJECT
 public:
  using Apply = std::function<std::optional<Problem>(const std::string&)>;
  // `name` is the row's object name; the field gets `name` + ".field".
  ValueRow(const QString& name, const QString& label, const QString& hint, Apply apply, QWidget* parent = nullptr);

  // Shows `text`, unless the user is typing here. `placeholder` stands where nothing is typed.
  void show(const QString& text, const QString& placeholder, bool changed);
  // What is asked about the value, under the field; a calm one stands in the lesser ink.
  void setQuestion(const QString& question, bool calm = false);
  // What is added to the hint when it is asked for.
  void setFurtherHint(std::function<QString()> hint) { further_ = std::move(hint); }
  QLineEdit* field() const { return field_; }

 signals:
  void entered();  // the field got the focus
  void left();

 protected:
  bool eventFilter(QObject* object, QEvent* event) override;
  // Enter and the arrow keys: on to the next field, or back to the one before.
  virtual void step(bool forward) { forward ? focusNextChild() : focusPreviousChild(); }

 private:
  void typed(const QString& text);
  void setWrong(const QString& message);
  QLineEdit* field_;
  QLabel* below_;
  Apply apply_;
  QString hint_;
  std::function<QString()> further_;
  QString question_, wrong_, shown_;
  bool typing_ = false, calm_ = false;
};

}  // namespace armure
