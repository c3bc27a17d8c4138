#include "app/strips.h"

#include <QHBoxLayout>
#include <QVBoxLayout>

#include "render/words.h"

namespace armure {
namespace {

constexpr int kRailsHeight = 262, kWalkerHeight = 252;

QLabel* stripLabel(const char* style, const QString& text = {}) {
  auto* label = new QLabel(text);
  label->setObjectName(style);
  return label;
}

// A line of words and buttons, and below it what is worked on.
void lay(QWidget& strip, int height, QHBoxLayout* head, QWidget* work) {
  strip.setObjectName("strip");
  strip.setAttribute(Qt::WA_StyledBackground);
  strip.setFixedHeight(height);
  auto* rows = new QVBoxLayout(&strip);
  rows->setContentsMargins(0, 6, 0, 4);
  rows->setSpacing(2);
  head->setContentsMargins(20, 0, 12, 0);
  rows->addLayout(head);
  rows->addWidget(work, 1);
  strip.hide();
}

// The words for the option in force.
QString optionLabel(const OrderSession& session, std::string_view key) {
  return q(findRule(key)->options[static_cast<size_t>(session.rule(key).number)].label);
}

}  // namespace

RailsStrip::RailsStrip(OrderSession& session, QWidget* parent)
    : QWidget(parent),
      session_(session),
      rails_(new RailsView(session)),
      school_(stripLabel("working")),
      giveBack_(new QPushButton("Give all back")) {
  auto* add = new QPushButton("Add a level");
  add->setObjectName("small");
  add->setToolTip("A rail more, between underbust and waist first (N on the rails)");
  giveBack_->setObjectName("small");
  giveBack_->setToolTip("Everything held by hand goes back to the school");
  connect(add, &QPushButton::clicked, rails_, &RailsView::addLevel);
  connect(giveBack_, &QPushButton::clicked, rails_, &RailsView::giveAllBack);
  auto* head = new QHBoxLayout;
  head->addWidget(stripLabel("heading", "Rails"));
  head->addWidget(stripLabel("lesser", "drag the side of a gap"));
  head->addStretch(1);
  head->addWidget(school_);
  head->addWidget(giveBack_);
  head->addWidget(add);
  lay(*this, kRailsHeight, head, rails_);
  connect(&session, &OrderSession::changed, this, &RailsStrip::refresh);
  refresh();
}

void RailsStrip::refresh() {
  school_->setText("school: " + optionLabel(session_, "distribution.school"));
  giveBack_->setEnabled(rails_->anythingHeld());
}

WalkerStrip::WalkerStrip(OrderSession& session, QWidget* parent)
    : QWidget(parent),
      session_(session),
      walker_(new SeamWalker(session)),
      seam_(stripLabel("heading")),
      reading_(stripLabel("walkReading")),
      hint_(stripLabel("lesser", "drag along the ruler")) {
  reading_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);  // it must not widen the window
  auto* head = new QHBoxLayout;
  head->addWidget(seam_);
  head->addSpacing(8);
  head->addWidget(reading_, 1);
  head->addWidget(hint_);
  lay(*this, kWalkerHeight, head, walker_);
  connect(walker_, &SeamWalker::seamChanged, this, &WalkerStrip::refresh);
}

void WalkerStrip::refresh() {
  hint_->setVisible(!walker_->finger());
  reading_->setText(walker_->reading());
  reading_->setToolTip(walker_->reading());
  const Seam* seam = session_.design() ? session_.design()->pattern.seam(walker_->seam()) : nullptr;
  if (seam) seam_->setText(words(seam->name));
}

}  // namespace armure
