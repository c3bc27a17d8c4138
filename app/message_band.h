// app/message_band.h
//
// The band under the header: what the program has to tell, and one question at a time with a button that does it and
// one that leaves it. Hidden while there is nothing.
#pragma once

#include <QLabel>
#include <QPushButton>
#include <functional>
#include <optional>

#include "app/order_session.h"

namespace armure {

class MessageBand : public QWidget {
  Q_OBJECT
 public:
  struct Question {
    QString text, yes;
    std::function<void()> onYes;
  };

  explicit MessageBand(OrderSession& session, QWidget* parent = nullptr);

  void tell(const QString& message);  // in place of the last one; nothing takes it away
  void tell(const Problem& problem) { tell(QString::fromStdString(problem.text())); }
  void ask(Question question);
  void dropQuestion() { question_.reset(); }
  const QString& message() const { return message_; }
  QString text() const { return text_->text(); }

 signals:
  void told();  // something new stands in it

 private:
  void refresh();
  void answer();
  void close();

  OrderSession& session_;
  QLabel* text_;
  QPushButton *yes_, *no_;
  QString message_;
  std::optional<Question> question_;
};

}  // namespace armure
