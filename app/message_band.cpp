#include "app/message_band.h"
#include "render/words.h"

#include <QHBoxLayout>
#include <utility>

namespace armure {

MessageBand::MessageBand(OrderSession& session, QWidget* parent)
    : QWidget(parent),
      session_(session),
      text_(new QLabel),
      yes_(new QPushButton("Take it up")),
      no_(new QPushButton("Close")) {
  setObjectName("band");
  setAttribute(Qt::WA_StyledBackground);
  auto* line = new QHBoxLayout(this);
  line->setContentsMargins(14, 6, 14, 6);
  text_->setObjectName("bandText");
  text_->setTextFormat(Qt::PlainText);  // it may quote a file
  text_->setWordWrap(true);
  text_->setTextInteractionFlags(Qt::TextSelectableByMouse);
  yes_->setObjectName("bandYes");
  no_->setObjectName("bandNo");
  line->addWidget(text_, 1);
  line->addWidget(yes_);
  line->addWidget(no_);
  connect(yes_, &QPushButton::clicked, this, &MessageBand::answer);
  connect(no_, &QPushButton::clicked, this, &MessageBand::close);
  connect(&session_, &OrderSession::changed, this, &MessageBand::refresh);
  hide();
}

void MessageBand::tell(const QString& message) {
  message_ = message;
  refresh();
  emit told();
}

void MessageBand::ask(Question question) {
  question_ = std::move(question);
  refresh();
  emit told();
}

void MessageBand::refresh() {
  QStringList messages;
  if (!message_.isEmpty()) messages << message_;
  if (session_.problem() && !session_.order().measures.all().empty())
    messages << words(session_.problem()->line(), session_.order().units) +
                    (session_.design() ? ". The pattern below is the last one that could be drafted." : "");
  for (const std::string& w : session_.warnings()) messages << QString::fromStdString(w);
  if (question_) messages << question_->text;
  yes_->setVisible(question_.has_value());
  if (question_) yes_->setText(question_->yes);
  no_->setVisible(question_ || !message_.isEmpty() || !session_.warnings().empty());
  no_->setText(question_ ? "Leave it" : "Close");
  text_->setText(messages.join("\n"));
  setVisible(!messages.isEmpty());
}

void MessageBand::answer() {
  if (!question_) return;
  const std::function<void()> yes = std::exchange(question_, std::nullopt)->onYes;
  if (yes) yes();
  refresh();
}

void MessageBand::close() {
  question_.reset();  // what was left stays on the disk and in the menu
  message_.clear();
  session_.dismissWarnings();
  refresh();
}

}  // namespace armure
