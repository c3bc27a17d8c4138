#include "app/tape_strip.h"

#include <QHBoxLayout>
#include <QVBoxLayout>

namespace armure {

TapeStrip::TapeStrip(OrderSession& session, QWidget* parent)
    : QWidget(parent),
      session_(session),
      state_(new QLabel),
      message_(new QLabel),
      connect_(new QPushButton),
      useLate_(new QPushButton("Use it")) {
  state_->setObjectName("tapeState");
  message_->setObjectName("lesser");
  message_->setWordWrap(true);
  message_->hide();
  connect_->setObjectName("small");
  connect_->setAccessibleName("Digital tape");
  connect_->setToolTip("Takes readings from a digital tape into the measure you stand on");
  useLate_->setObjectName("small");
  useLate_->setAccessibleName("Use the late reading");
  useLate_->hide();
  auto* line = new QHBoxLayout;
  line->setContentsMargins(0, 0, 0, 0);
  line->addWidget(state_, 1);
  line->addWidget(connect_);
  auto* last = new QHBoxLayout;
  last->setContentsMargins(0, 0, 0, 0);
  last->addWidget(message_, 1);
  last->addWidget(useLate_);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 4, 0, 0);
  column->setSpacing(2);
  column->addLayout(line);
  column->addLayout(last);
  connect(connect_, &QPushButton::clicked, this, [this] {
    link_.state() == TapeLink::State::Off ? link_.start() : link_.stop();
    say({});
  });
  connect(useLate_, &QPushButton::clicked, this, [this] {
    say({});
    emit reading(late_);
    useLate_->hide();  // after the focus has gone on
  });
  connect(&link_, &TapeLink::stateChanged, this, &TapeStrip::refreshState);
  connect(&link_, &TapeLink::happened, this, &TapeStrip::happened);
  refreshState();
}

void TapeStrip::refreshState() {
  connect_->setText(link_.state() == TapeLink::State::Off ? "Connect" : "Let go");
  switch (link_.state()) {
    case TapeLink::State::Off:
      return state_->setText("Digital tape: off");
    case TapeLink::State::Looking:
      return state_->setText("Looking for the tape");
    case TapeLink::State::Connected:
      return state_->setText(QString("Tape: %1").arg(link_.tapeName().left(24)));
    case TapeLink::State::Lost:
      return state_->setText("Tape lost, looking again");
  }
}

QString TapeStrip::length(double mm) const {
  return QString::fromStdString(formatLengthWithUnit(mm, {session_.order().units.unit, 16}));
}

void TapeStrip::happened(const TapeEvent& e) {
  useLate_->setVisible(e.kind == TapeEvent::Kind::Late);
  switch (e.kind) {
    case TapeEvent::Kind::Reading:
      say(e.missed > 0
              ? QString("Reading %1; %2 before it did not come: look at the fields above").arg(e.number).arg(e.missed)
              : QString());
      emit reading(e.mm);
      return;
    case TapeEvent::Kind::Late:
      late_ = e.mm;
      return say(
          QString("%1 was taken %2 seconds ago and is not written").arg(length(e.mm)).arg(e.ageMs / 1000, 0, 'f', 0));
    case TapeEvent::Kind::Duplicate:
      return say(QString("Reading %1 came twice; the second is left out").arg(e.number));
    case TapeEvent::Kind::Garbage:
      return say(QString("The tape sent %1; nothing was read").arg(QString::fromStdString(e.text)));
    case TapeEvent::Kind::Hello:
      break;
  }
}

}  // namespace armure
