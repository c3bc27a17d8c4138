#include "app/rails_view.h"
#include "render/words.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <algorithm>
#include <cmath>

namespace armure {
namespace {

std::string holdKey(const Rail& rail, const RailGap& gap) {
  return ShapingKey{ShapingKind::Hold, rail.level, gap.line}.text();
}

}  // namespace

RailsView::RailsView(OrderSession& session, QWidget* parent)
    : QWidget(parent), session_(session), theme_(&lightTheme()), editor_(new QLineEdit(this)) {
  setObjectName("rails");
  setAccessibleName("The rails: what is taken in on every level");
  setFocusPolicy(Qt::StrongFocus);
  setMouseTracking(true);
  editor_->setObjectName("railNumber");
  editor_->setAccessibleName("Amount on the rail");
  editor_->setAlignment(Qt::AlignCenter);
  editor_->hide();
  editor_->installEventFilter(this);
  connect(&session, &OrderSession::changed, this, &RailsView::refresh);
}

void RailsView::setTheme(const Theme& theme) {
  theme_ = &theme;
  update();
}

void RailsView::refresh() {
  if (!isVisible()) return;
  rails_ = session_.design() && !session_.design()->isTraced()
               ? railsOf(session_.design()->block, session_.design()->rules)
               : std::vector<Rail>{};
  relayout();
}

void RailsView::relayout() {
  layout_ = RailsLayout(rails_, QRectF(rect()).adjusted(20, 4, -12, -4));
  if (!rails_.empty()) {
    stop_.rail = std::min(stop_.rail, rails_.size() - 1);
    const auto stops = layout_.stops(stop_.rail);
    if (std::find(stops.begin(), stops.end(), stop_) == stops.end()) stop_ = stops.front();
  }
  update();
}

// --- changing

double RailsView::stepMm() const {
  const LengthFormat units = session_.order().units;
  return units.unit == Unit::Inch ? kMmPerInch / units.inchFraction : 2.5;
}

double RailsView::snapped(double mm) const {
  const double grid = session_.order().units.unit == Unit::Inch ? kMmPerInch / 16 : 1;
  return std::round(mm / grid) * grid;
}

std::string RailsView::asText(double mm) const { return formatLengthWithUnit(mm, {session_.order().units.unit, 16}); }

void RailsView::choose(const std::string& key, const std::string& text) {
  if (const auto problem = session_.tryChoice(key, text)) emit refused(q(problem->text()));
}

void RailsView::setTaken(size_t rail, size_t gap, double mm) {
  const RailGap& g = rails_[rail].gaps[gap];
  const bool side = g.line == kFrontSide || g.line == kBackSide;
  choose(holdKey(rails_[rail], g), asText(side ? mm : std::max(0.0, mm)));
}

void RailsView::setGirth(size_t rail, double mm) {
  const auto choice = girthChoice(rails_[rail], session_.design()->rules, mm);
  if (!choice) return;
  choose(choice->key, formatExact(choice->mm, session_.order().units.unit));
}

std::string RailsView::keyOf(const RailStop& stop) const {
  const Rail& rail = rails_[stop.rail];
  if (stop.kind == RailStop::Kind::Height) return ShapingKey{ShapingKind::Rail, rail.level, ""}.text();
  if (stop.kind == RailStop::Kind::Gap) return holdKey(rail, rail.gaps[stop.gap]);
  return girthChoice(rail, session_.design()->rules, rail.finishedGirth).value_or(GirthChoice{}).key;
}

void RailsView::giveBack(const RailStop& stop) {
  if (stop.kind == RailStop::Kind::Height) return;
  session_.settle();
  session_.setChoice(keyOf(stop), "");
  session_.settle();
}

void RailsView::removeLevel(size_t r) {
  if (r >= rails_.size() || !rails_[r].own) return;
  session_.takeAwayLevel(rails_[r].level);
}

bool RailsView::anythingHeld() const {
  for (const Rail& r : rails_)
    for (const RailGap& g : r.gaps)
      if (g.held) return true;
  return false;
}

void RailsView::giveAllBack() { session_.giveAllBack(); }

void RailsView::addLevel() {
  if (!session_.design()) return;
  const Levels& levels = session_.design()->block.levels;
  const double under = levels.at(level::kUnderbust).front, waist = levels.at(level::kWaist).front,
               hip = levels.at(level::kHighHip).front, hem = levels.at(level::kHem).front;
  const double between = (waist - under) / 2, below = -(std::min(hip, hem) - waist) / 2;
  std::string name = "ribs";
  double above = between;
  const auto taken = [&](const std::string& id) {
    return session_.order().choices.contains(ShapingKey{ShapingKind::Rail, id, ""}.text());
  };
  if (taken(name)) {
    name = "belly";
    above = below;
  }
  for (int i = 3; taken(name); ++i) {
    name = "level_" + std::to_string(i);
    above = i % 2 ? between / 2 : below / 2;
  }
  session_.settle();
  choose(ShapingKey{ShapingKind::Rail, name, ""}.text(), asText(snapped(above)));
  session_.settle();
  for (size_t r = 0; r < rails_.size(); ++r)
    if (rails_[r].level == name) goTo({r, RailStop::Kind::Height, 0});
}

void RailsView::goTo(const RailStop& stop) {
  stop_ = stop;
  const Rail& rail = rails_[stop.rail];
  const std::string half =
      stop.kind == RailStop::Kind::Gap && rail.gaps[stop.gap].line.starts_with("back") ? "back" : "front";
  Selection selection{
      .working = stop.kind == RailStop::Kind::Gap ? half + "." + rail.level + ".side" : "girth." + rail.level,
      .level = rail.level};
  session_.select(std::move(selection));
  update();
}

void RailsView::stand(std::string_view level, std::string_view line) {
  for (size_t r = 0; r < rails_.size(); ++r)
    for (size_t g = 0; g < rails_[r].gaps.size(); ++g)
      if (rails_[r].level == level && rails_[r].gaps[g].line == line && rails_[r].gaps[g].movable)
        goTo({r, RailStop::Kind::Gap, g});
}

void RailsView::step(int along, int down) {
  if (rails_.empty()) return;
  auto stops = layout_.stops(stop_.rail);
  const auto at = std::find(stops.begin(), stops.end(), stop_) - stops.begin();
  if (along != 0)
    return goTo(stops[static_cast<size_t>(std::clamp<long>(at + along, 0, static_cast<long>(stops.size()) - 1))]);
  const auto rail = static_cast<size_t>(
      std::clamp<long>(static_cast<long>(stop_.rail) + down, 0, static_cast<long>(rails_.size()) - 1));
  // The stop on the other rail that lies nearest.
  const double x = layout_.stopRect(stop_).center().x();
  stops = layout_.stops(rail);
  goTo(*std::min_element(stops.begin(), stops.end(), [&](const RailStop& a, const RailStop& b) {
    return std::abs(layout_.stopRect(a).center().x() - x) < std::abs(layout_.stopRect(b).center().x() - x);
  }));
}

void RailsView::nudge(double direction) {
  const Rail& rail = rails_[stop_.rail];
  if (stop_.kind == RailStop::Kind::Gap) {
    setTaken(stop_.rail, stop_.gap, snapped(rail.gaps[stop_.gap].taken + direction * stepMm()));
  } else if (stop_.kind == RailStop::Kind::Girth) {
    setGirth(stop_.rail, snapped(rail.finishedGirth + direction * 2 * stepMm()));
  } else {
    const double above = session_.design()->block.levels.at(level::kWaist).front - rail.depth;
    choose(keyOf(stop_), asText(snapped(above + direction * stepMm())));
  }
}

// --- the pointer

void RailsView::mousePressEvent(QMouseEvent* event) {
  setFocus();
  closeEditor(true);
  if (rails_.empty() || event->button() != Qt::LeftButton) return;
  const QPointF at = event->position();
  session_.settle();
  if (const auto side = layout_.sideAt(at)) {
    goTo({side->rail, RailStop::Kind::Gap, side->gap});
    drag_ = Drag{side, std::nullopt, at.x(), rails_[side->rail].gaps[side->gap].taken};
    return;
  }
  if (const auto mark = layout_.markAt(at)) {
    goTo({*mark, RailStop::Kind::Girth, 0});
    drag_ = Drag{std::nullopt, mark, at.x(), rails_[*mark].finishedGirth};
    return;
  }
  for (size_t r = 0; r < rails_.size(); ++r)
    if (rails_[r].own && layout_.removeRect(r).contains(at)) return removeLevel(r);
  if (const auto stop = layout_.stopAt(at)) goTo(*stop);
}

void RailsView::mouseMoveEvent(QMouseEvent* event) {
  const QPointF at = event->position();
  if (!drag_) {
    const bool movable = !rails_.empty() && (layout_.sideAt(at) || layout_.markAt(at));
    setCursor(movable ? Qt::SizeHorCursor : Qt::ArrowCursor);
    return;
  }
  const double moved = (at.x() - drag_->fromX) * layout_.mmPerPixel();
  if (std::abs(at.x() - drag_->fromX) < 2) return;
  if (drag_->mark) return setGirth(*drag_->mark, snapped(drag_->fromMm + 2 * moved));
  const auto [rail, gap, towardsBack] = *drag_->side;
  setTaken(rail, gap, snapped(drag_->fromMm + (towardsBack ? moved : -moved)));
}

void RailsView::mouseReleaseEvent(QMouseEvent*) {
  if (!drag_) return;
  drag_.reset();
  session_.settle();
}

void RailsView::mouseDoubleClickEvent(QMouseEvent* event) {
  drag_.reset();
  if (rails_.empty()) return;
  const auto side = layout_.sideAt(event->position());
  const auto stop = side ? RailStop{side->rail, RailStop::Kind::Gap, side->gap} : stop_;
  if (side || layout_.stopAt(event->position())) {
    goTo(stop);
    if (stop.kind == RailStop::Kind::Height) return openEditor("");
    giveBack(stop);
  }
}

// --- the keys

bool RailsView::event(QEvent* event) {
  if (event->type() == QEvent::ShortcutOverride) {
    const auto* key = static_cast<QKeyEvent*>(event);
    const QString text = key->text();
    if (!(key->modifiers() & (Qt::ControlModifier | Qt::AltModifier)) && !text.isEmpty() &&
        (text[0].isDigit() || text[0] == '.'))
      event->accept();
  }
  return QWidget::event(event);
}

void RailsView::keyPressEvent(QKeyEvent* event) {
  if (rails_.empty()) return QWidget::keyPressEvent(event);
  const QString text = event->text();
  switch (event->key()) {
    case Qt::Key_Left:
      return step(-1, 0);
    case Qt::Key_Right:
      return step(1, 0);
    case Qt::Key_Up:
      return step(0, -1);
    case Qt::Key_Down:
      return step(0, 1);
    case Qt::Key_Plus:
    case Qt::Key_Equal:
      return nudge(1);
    case Qt::Key_Minus:
      return nudge(-1);
    case Qt::Key_Return:
    case Qt::Key_Enter:
      return openEditor("");
    case Qt::Key_N:
      return addLevel();
    case Qt::Key_H:
      if (stop_.kind != RailStop::Kind::Gap) return;
      if (rails_[stop_.rail].gaps[stop_.gap].held) return giveBack(stop_);
      session_.settle();
      return choose(keyOf(stop_), formatExact(rails_[stop_.rail].gaps[stop_.gap].taken, session_.order().units.unit));
    case Qt::Key_Delete:
    case Qt::Key_Backspace:
      return event->modifiers() & Qt::ShiftModifier ? removeLevel(stop_.rail) : giveBack(stop_);
    default:
      break;
  }
  if (!text.isEmpty() && (text[0].isDigit() || text[0] == '.')) return openEditor(text);
  QWidget::keyPressEvent(event);
}

void RailsView::openEditor(const QString& text) {
  const Rail& rail = rails_[stop_.rail];
  double mm = rail.finishedGirth;
  if (stop_.kind == RailStop::Kind::Gap) mm = rail.gaps[stop_.gap].taken;
  if (stop_.kind == RailStop::Kind::Height) mm = session_.design()->block.levels.at(level::kWaist).front - rail.depth;
  const QPointF at = layout_.stopRect(stop_).center();
  const QRectF room(at.x() - 38, at.y() - 13, 76, 26);
  editor_->setGeometry(room.translated(std::max(0.0, 2 - room.left()), 0).toRect());
  editor_->setText(text.isEmpty() ? q(formatLength(mm, {session_.order().units.unit, 16})) : text);
  if (text.isEmpty()) editor_->selectAll();
  editor_->show();
  editor_->setFocus();
  if (!text.isEmpty()) editor_->setCursorPosition(static_cast<int>(text.size()));
}

void RailsView::closeEditor(bool accept) {
  if (!editor_->isVisible()) return;
  editor_->hide();
  setFocus();
  const std::string typed = editor_->text().toStdString();
  if (!accept || typed.empty()) return;
  session_.settle();
  if (stop_.kind != RailStop::Kind::Girth) {
    choose(keyOf(stop_), typed);
  } else {
    const Result<double> mm = parseLength(typed, session_.order().units.unit);
    if (mm.ok()) {
      setGirth(stop_.rail, *mm);
    } else {
      emit refused(q(mm.problem().text()));
    }
  }
  session_.settle();
}

bool RailsView::eventFilter(QObject* object, QEvent* event) {
  if (object != editor_) return QWidget::eventFilter(object, event);
  if (event->type() == QEvent::KeyPress) {
    const int key = static_cast<QKeyEvent*>(event)->key();
    const bool enter = key == Qt::Key_Return || key == Qt::Key_Enter;
    if (enter || key == Qt::Key_Escape) {
      closeEditor(enter);
      return true;
    }
  }
  if (event->type() == QEvent::FocusOut) closeEditor(true);
  return false;
}

}  // namespace armure
