#include "app/body_view.h"

#include <QButtonGroup>
#include <QHBoxLayout>
#include <QStyle>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>

#include "app/client_pages.h"
#include "render/words.h"
#include "units/length.h"

namespace armure {
namespace {

constexpr int kTrialWait = 150;  // ms after the last change
constexpr int kFootHeight = 220;
constexpr double kMostLaced = 20;  // N/cm
constexpr int kLacedWidth = 118;
constexpr const char* kHint = "drag, or press the arrow keys, to turn it";

}  // namespace

BodyView::BodyView(OrderSession& session, QWidget* parent)
    : QWidget(parent),
      session_(session),
      canvas_(new BodyCanvas),
      list_(new QListWidget),
      state_(new QLabel),
      mendText_(new QLabel),
      try_(new QPushButton("Try what mends it")),
      take_(new QPushButton("Take it")),
      leave_(new QPushButton("Leave it")),
      lacedField_(new QLineEdit) {
  setObjectName("onBody");
  auto* rows = new QVBoxLayout(this);
  rows->setContentsMargins(0, 0, 0, 0);
  rows->setSpacing(0);
  rows->addWidget(makeHead());
  rows->addWidget(canvas_, 1);
  rows->addWidget(makeFoot());
  makeCorner();
  later_.setSingleShot(true);
  later_.setInterval(kTrialWait);
  connect(&later_, &QTimer::timeout, this, &BodyView::refresh);
  connect(&session, &OrderSession::changed, this, [this] {
    if (isVisible()) outdated();
  });
  connect(&runner_, &TrialRunner::done, this, &BodyView::take);
  connect(&mender_, &TrialRunner::done, this, &BodyView::compare);
  connect(canvas_, &BodyCanvas::left, this, &BodyView::left);
  connect(canvas_, &BodyCanvas::reading, this,
          [this](const QString& text) { state_->setText(text.isEmpty() ? QString(kHint) : text); });
  connect(list_, &QListWidget::currentRowChanged, this, &BodyView::choose);
  connect(try_, &QPushButton::clicked, this, &BodyView::tryMending);
  connect(list_, &QListWidget::itemActivated, this, &BodyView::tryMending);
  connect(take_, &QPushButton::clicked, this, &BodyView::takeMending);
  connect(leave_, &QPushButton::clicked, this, &BodyView::leaveMending);
  state_->setText(kHint);
  choose(-1);
}

QWidget* BodyView::makeHead() {
  auto* head = new QWidget;
  head->setObjectName("paperPage");
  head->setAttribute(Qt::WA_StyledBackground);
  auto* line = new QHBoxLayout(head);
  line->setContentsMargins(12, 10, 12, 4);
  line->setSpacing(4);
  const std::pair<const char*, double> sides[] = {
      {"front", kFromTheFront}, {"side", kFromTheSide}, {"back", kFromBehind}};
  for (const auto& [text, turn] : sides) {
    QPushButton* pill = pillButton(text, false);
    line->addWidget(pill);
    connect(pill, &QPushButton::clicked, canvas_, [this, t = turn] { canvas_->look(t); });
  }
  line->addSpacing(10);
  auto* group = new QButtonGroup(this);
  const std::pair<const char*, ClothColour> colours[] = {{"cloth", ClothColour::Cloth},
                                                         {"pressure", ClothColour::Pressure},
                                                         {"stand-off", ClothColour::StandOff},
                                                         {"stretch", ClothColour::Stretch}};
  for (const auto& [text, colour] : colours) {
    QPushButton* pill = pillButton(text, true);
    group->addButton(pill);
    line->addWidget(pill);
    pills_.push_back(pill);
    connect(pill, &QPushButton::clicked, this, [this, c = colour] { setColour(c); });
  }
  pills_.front()->setChecked(true);
  line->addStretch(1);
  QPushButton* back = pillButton("table", false);
  back->setToolTip("Back to the table (Esc)");
  line->addWidget(back);
  connect(back, &QPushButton::clicked, this, &BodyView::left);
  return head;
}

// How the cloth is looked at, beside its picture.
void BodyView::makeCorner() {
  auto* corner = new QHBoxLayout(canvas_);
  corner->setContentsMargins(12, 6, 12, 10);
  corner->setAlignment(Qt::AlignBottom | Qt::AlignRight);
  corner->setSpacing(4);
  near_ = pillButton("cups", true);
  near_->setToolTip("From near, on the cups");
  corner->addWidget(near_);
  connect(near_, &QPushButton::toggled, canvas_, &BodyCanvas::setNear);
  QPushButton* clear = pillButton("clear", true);
  clear->setToolTip("The body is seen through the cloth");
  corner->addWidget(clear);
  connect(clear, &QPushButton::toggled, canvas_, &BodyCanvas::setClear);
}

QWidget* BodyView::makeFoot() {
  auto* foot = new QWidget;
  foot->setObjectName("strip");
  foot->setAttribute(Qt::WA_StyledBackground);
  foot->setFixedHeight(kFootHeight);
  auto* rows = new QVBoxLayout(foot);
  rows->setContentsMargins(12, 6, 12, 6);
  rows->setSpacing(3);
  auto* head = new QHBoxLayout;
  auto* title = new QLabel("What the trial finds");
  title->setObjectName("heading");
  state_->setObjectName("lesser");
  state_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
  state_->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
  head->addWidget(title);
  head->addWidget(state_, 1);
  lacedField_->setPlaceholderText("laced to its gap");
  lacedField_->setAccessibleName("Tension of the lacing, N/cm");
  lacedField_->setToolTip(
      "The tension the lacing is drawn with all along, N/cm; how far it then stands open is found. Where it is empty "
      "it "
      "stands open as the pattern has it.");
  connect(lacedField_, &QLineEdit::editingFinished, this, &BodyView::readTension);
  lacedField_->setFixedWidth(kLacedWidth);
  lacedField_->hide();
  head->addWidget(lacedField_);
  rows->addLayout(head);
  list_->setObjectName("trialFindings");
  list_->setAccessibleName("What the trial finds");
  list_->setWordWrap(true);
  list_->setSpacing(2);
  list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  list_->setVerticalScrollMode(QAbstractItemView::ScrollPerPixel);
  rows->addWidget(list_, 1);
  auto* mend = new QHBoxLayout;
  mendText_->setObjectName("working");
  mendText_->setWordWrap(true);
  mendText_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
  mend->addWidget(mendText_, 1);
  for (QPushButton* button : {try_, take_, leave_}) {
    button->setObjectName("small");
    mend->addWidget(button);
  }
  rows->addLayout(mend);
  auto* note = new QLabel(QString("%1 Pressures are guesses as well, and no medical advice.").arg(kToileStays));
  note->setObjectName("lesser");
  note->setWordWrap(true);
  rows->addWidget(note);
  return foot;
}

void BodyView::setColour(ClothColour colour) {
  pills_[static_cast<size_t>(colour)]->setChecked(true);
  canvas_->setColour(colour);
}

void BodyView::setNear(bool near) {
  near_->setChecked(near);
  canvas_->setNear(near);
}

// What cannot be read is said, and the tension stays as it was.
void BodyView::readTension() {
  const std::string typed = lacedField_->text().trimmed().toStdString();
  const Result<double> read = typed.empty() ? Result<double>(0) : parseNumber(typed);
  const bool right = read.ok() && *read >= 0 && *read <= kMostLaced;
  lacedField_->setProperty("wrong", !right);
  style()->unpolish(lacedField_);
  style()->polish(lacedField_);
  if (!right) {
    state_->setText(QString("the tension is a number from 0 to %1 N/cm, such as 3 or 2.5").arg(kMostLaced));
    return;
  }
  const std::optional<double> tension = *read > 0 ? std::optional(*read) : std::nullopt;
  if (tension == tension_) return;
  tension_ = tension;
  outdated();
}

// The trial that is shown is that of before; another follows.
void BodyView::outdated() {
  old_ = tried_ != nullptr;
  leaveMending();
  later_.start();
}

void BodyView::setTheme(const Theme& theme) { canvas_->setTheme(theme); }

void BodyView::refresh() {
  if (!isVisible()) return;
  const Balanced* balanced = session_.balanced();
  if (!balanced || session_.problem()) {
    tried_.reset();
    list_->clear();
    canvas_->setMessage("There is no pattern to try on yet.");
    return;
  }
  if (!tried_) canvas_->setMessage("Trying on …");
  old_ = tried_ != nullptr;
  canvas_->show(tried_, old_);
  const std::vector<PatternLevel>& levels = balanced->pattern.levels;
  const bool isLaced =
      std::any_of(levels.begin(), levels.end(), [](const PatternLevel& l) { return l.gaps.opening > 0; });
  lacedField_->setVisible(isLaced);
  runner_.setLaced(isLaced ? tension_ : std::nullopt);
  mender_.setLaced(isLaced ? tension_ : std::nullopt);
  runner_.start(balanced->pattern, session_.design()->body, session_.design()->rules);
}

void BodyView::take(std::shared_ptr<const Trying> tried) {
  old_ = false;
  if (!tried->result.ok()) {
    tried_.reset();
    list_->clear();
    choose(-1);
    canvas_->setMessage(words(tried->result.problem().line(), session_.order().units));
    return;
  }
  tried_ = std::move(tried);
  canvas_->show(tried_, false);
  list();
}

void BodyView::list() {
  list_->clear();
  for (const Finding& f : tried_->findings) list_->addItem(words(f.text, session_.order().units));
  if (tried_->findings.empty())
    list_->addItem("Nothing stands off, presses or sits beside where it should by more than can be told.");
  choose(-1);
}

const Finding* BodyView::chosen() const {
  const int row = list_->currentRow();
  return tried_ && row >= 0 && static_cast<size_t>(row) < tried_->findings.size()
             ? &tried_->findings[static_cast<size_t>(row)]
             : nullptr;
}

void BodyView::choose(int) {
  mending_.reset();
  if (tried_) canvas_->show(tried_, old_);
  const Finding* f = chosen();
  canvas_->point(f ? f->vertex : -1);
  mendText_->setText(f && f->mending ? "Would mend it: " + words(f->mending->what, session_.order().units)
                     : f             ? QString("No single choice mends this.")
                                     : QString());
  try_->setVisible(f && f->mending);
  take_->hide();
  leave_->hide();
}

void BodyView::tryMending() {
  const Finding* f = chosen();
  if (!f || !f->mending || old_) return;
  mending_ = f->mending;
  Order order = session_.order();
  if (mending_->isMeasure) {
    order.measures.set(mending_->key, {mending_->mm, mending_->text, ""});
  } else {
    order.choices[mending_->key] = mending_->text;
  }
  mendText_->setText("Trying it …");
  try_->hide();
  mender_.start(order);
}

// The change is shown before it is taken.
void BodyView::compare(std::shared_ptr<const Trying> mended) {
  if (!mending_ || !tried_) return;
  if (!mended->result.ok()) {
    mendText_->setText(words(mended->result.problem().line(), session_.order().units));
    return;
  }
  canvas_->show(mended, false);
  mendText_->setText(words(mending_->what, session_.order().units) + " · " +
                     compared(*tried_->result, *mended->result));
  take_->show();
  leave_->show();
}

// What a change moves by more than the model can be wrong.
QString BodyView::compared(const TryOn& before, const TryOn& after) const {
  constexpr double kTold = 2;  // mm
  QStringList all;
  const auto add = [&](const QString& what, double a, double b) {
    if (std::abs(a - b) >= kTold) all << QString("%1 %2 → %3 mm").arg(what).arg(a, 0, 'f', 0).arg(b, 0, 'f', 0);
  };
  const auto most = [](const std::vector<EdgeStand>& line) {
    double m = 0;
    for (const EdgeStand& e : line)
      if (e.angle > 22) m = std::max(m, e.off);
    return m;
  };
  add("bust point low", before.bustPoint.value_or(0), after.bustPoint.value_or(0));
  add("top edge off", most(before.top), most(after.top));
  add("hem off", most(before.hem), most(after.hem));
  double pressedBefore = 0, pressedAfter = 0;
  for (const LevelSeat& l : before.levels) pressedBefore = std::max(pressedBefore, l.pressure);
  for (const LevelSeat& l : after.levels) {
    pressedAfter = std::max(pressedAfter, l.pressure);
    if (const LevelSeat* was = before.level(l.level))
      add(words(l.name).toLower() + " at the side low", was->side.value_or(0), l.side.value_or(0));
  }
  if (std::abs(pressedAfter - pressedBefore) > 0.2)
    all << QString("most pressing %1 → %2 kPa").arg(pressedBefore, 0, 'f', 1).arg(pressedAfter, 0, 'f', 1);
  return all.isEmpty() ? QString("nothing moves by more than can be told") : all.join(", ");
}

void BodyView::takeMending() {
  if (!mending_) return;
  const Mending m = *mending_;
  mending_.reset();
  if (m.isMeasure) {
    session_.setMeasure(m.key, m.text);
  } else {
    session_.setChoice(m.key, m.text);
  }
  session_.settle();
}

void BodyView::leaveMending() { choose(list_->currentRow()); }

}  // namespace armure
