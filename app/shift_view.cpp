#include "app/shift_view.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QPainter>
#include <QPainterPath>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>

#include "alter/recalculation.h"
#include "app/scene_parts.h"
#include "order/order_words.h"
#include "render/words.h"

namespace armure {
namespace {

enum Column { kLevel, kClient, kPattern, kCentre, kFront, kBack, kUsedFront, kUsedBack, kColumns };
constexpr std::array<const char*, kColumns> kHeads{"",         "client",  "pattern",        "centre\ne0",
                                                   "front\nf", "back\nb", "front\nused, x", "back\nused, y"};

// x of a curve that runs down, at a depth; nothing where it does not reach.
std::optional<double> outAt(const Polyline& line, double down) {
  for (size_t i = 0; i + 1 < line.size(); ++i) {
    const Vec2 a = line[i], b = line[i + 1];
    if ((a.y <= down && down <= b.y) && b.y > a.y) return a.x + (down - a.y) / (b.y - a.y) * (b.x - a.x);
  }
  return std::nullopt;
}

}  // namespace

SideCurvesView::SideCurvesView(const QString& name) : name_(name), theme_(&lightTheme()) {
  setMinimumHeight(220);
  setAccessibleName(name);
}

void SideCurvesView::show(SideCurves curves, const Theme& theme) {
  curves_ = std::move(curves);
  theme_ = &theme;
  apart_ = 0;
  for (double down = 0; down < 400; down += 2)
    if (const auto f = outAt(curves_.front, down), b = outAt(curves_.back, down); f && b)
      apart_ = std::max(apart_, std::abs(*f - *b));
  update();
}

void SideCurvesView::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  p.fillRect(rect(), theme_->paper);
  p.setFont(uiFont(TextSize::Body, true));
  p.setPen(theme_->ink);
  p.drawText(QRectF(12, 8, width() - 24.0, 20), Qt::AlignLeft, name_);
  if (curves_.front.empty() || curves_.back.empty()) return;
  const double top = std::max(curves_.front.front().y, curves_.back.front().y),
               bottom = std::min(curves_.front.back().y, curves_.back.back().y);
  if (bottom <= top) return;
  double low = 0, high = 0;
  for (const Polyline* line : {&curves_.front, &curves_.back})
    for (const Vec2 at : *line) low = std::min(low, at.x), high = std::max(high, at.x);
  constexpr double kStretched = 2;  // across, so that the difference is seen
  const QRectF room(30, 66, width() - 60.0, height() - 82.0);
  const double scale =
      std::min(room.height() / (bottom - top), room.width() / (kStretched * std::max(high - low, 1.0)));
  const double middle = room.center().x() - kStretched * scale * (low + high) / 2;
  const auto place = [&](Vec2 at) {
    return QPointF(middle + kStretched * scale * at.x, room.top() + scale * (at.y - top));
  };
  const auto lineOf = [&](const Polyline& points) {
    QPolygonF line;
    for (const Vec2 at : points)
      if (at.y >= top && at.y <= bottom) line << place(at);
    return line;
  };
  const QPolygonF front = lineOf(curves_.front), back = lineOf(curves_.back);
  QPolygonF between = front;
  for (auto it = back.rbegin(); it != back.rend(); ++it) between << *it;
  QPainterPath fill;
  fill.addPolygon(between);
  fill.setFillRule(Qt::WindingFill);
  QColor apart = theme_->attention;
  apart.setAlphaF(0.25f);
  p.fillPath(fill, apart);
  const QPointF waist = place({0, 0});
  p.setPen(QPen(theme_->secondInk, 1, Qt::DashLine));
  p.drawLine(QPointF(room.left(), waist.y()), QPointF(room.right(), waist.y()));
  p.setFont(uiFont(TextSize::Small));
  p.drawText(QPointF(room.left(), waist.y() - 4), "waist");
  p.setPen(QPen(theme_->ink, 2));
  p.drawPolyline(front);
  p.setPen(QPen(theme_->working, 2, Qt::DashLine));
  p.drawPolyline(back);
  p.setPen(theme_->secondInk);
  p.drawText(QRectF(12, 27, width() - 24.0, 34), Qt::AlignLeft,
             QString("front solid, back dashed: below the waist\n%1 mm apart at most").arg(apart_, 0, 'f', 1));
}

ShiftView::ShiftView(OrderSession& session, QWidget* parent)
    : QWidget(parent),
      session_(session),
      theme_(&lightTheme()),
      head_(new QLabel),
      why_(new QLabel),
      from_(new ChoiceBox),
      rest_(new ChoiceBox),
      table_(new QTableWidget),
      alone_(new SideCurvesView("Every level by itself")),
      formula_(new SideCurvesView("As used")) {
  setObjectName("page");
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(24, 14, 24, 14);
  column->setSpacing(8);
  auto* first = new QHBoxLayout;
  head_->setObjectName("pageTitle");
  first->addWidget(head_);
  first->addStretch(1);
  auto* back = new QPushButton("the table");
  back->setObjectName("plain");
  back->setAccessibleName("back to the table");
  connect(back, &QPushButton::clicked, this, &ShiftView::left);
  first->addWidget(back);
  column->addLayout(first);
  auto* second = new QHBoxLayout;
  from_->setObjectName("solvedFrom");
  from_->setAccessibleName("Both sides solved from");
  from_->addItem("solved from the waist down", "waist");
  from_->addItem("solved from the underbust down", "underbust");
  rest_->setObjectName("restGoes");
  rest_->setAccessibleName("What would spoil the side");
  rest_->addItem("what would spoil the side goes to further seams", "lines");
  rest_->addItem("both sides share it by the formula", "sides");
  second->addWidget(from_);
  second->addWidget(rest_);
  second->addStretch(1);
  column->addLayout(second);
  connect(from_, &QComboBox::activated, this, [this](int i) {
    change([&](Recalculation& r) { r.from = i == 0 ? SolvedFrom::Waist : SolvedFrom::Underbust; },
           "where the sides are solved from");
  });
  connect(rest_, &QComboBox::activated, this, [this](int i) {
    change([&](Recalculation& r) { r.rest = i == 0 ? RestGoes::ToLines : RestGoes::ToSides; }, "where the rest goes");
  });
  table_->setObjectName("shifts");
  table_->setAccessibleName("Table of shifts");
  table_->verticalHeader()->hide();
  table_->horizontalHeader()->setFont(uiFont(TextSize::Small));
  table_->setSelectionMode(QAbstractItemView::SingleSelection);
  column->addWidget(table_, 3);
  why_->setObjectName("lesser");
  why_->setWordWrap(true);
  column->addWidget(why_);
  auto* curves = new QHBoxLayout;
  curves->addWidget(alone_);
  curves->addWidget(formula_);
  column->addLayout(curves, 4);
  connect(table_, &QTableWidget::cellChanged, this, &ShiftView::written);
  connect(table_, &QTableWidget::currentCellChanged, this, [this](int row, int column2) {
    const std::string id = cellId(row, column2);
    if (!id.empty()) session_.select({.working = "shift." + id});
  });
  connect(&session, &OrderSession::changed, this, &ShiftView::refresh);
}

void ShiftView::setTheme(const Theme& theme) {
  theme_ = &theme;
  refresh();
}

void ShiftView::change(const std::function<void(Recalculation&)>& how, const char* name) {
  Order next = session_.order();
  if (!next.base) return;
  how(*next.base);
  if (const auto problem = session_.step(std::move(next), name)) {
    emit refused(words(problem->line(), session_.order().units));
    refresh();
  }
}

// The cell of the table's text: "waist.x"; empty where nothing can be written.
std::string ShiftView::cellId(int row, int column) const {
  const Design* d = session_.design();
  if (!d || !d->fromBase || row < 0) return {};
  const ShiftTable& t = d->fromBase->table;
  const auto i = static_cast<size_t>(row);
  if (i >= t.rows.size()) {
    const size_t l = i - t.rows.size();
    return l < t.lengths.size() && column == kUsedFront ? t.lengths[l].id : std::string();
  }
  switch (column) {
    case kCentre:
      return "e0";
    case kFront:
      return t.rows[i].level + ".f";
    case kBack:
      return t.rows[i].level + ".b";
    case kUsedFront:
      return t.rows[i].level + ".x";
    case kUsedBack:
      return t.rows[i].level + ".y";
    default:
      return {};
  }
}

void ShiftView::written(int row, int column) {
  const std::string id = cellId(row, column);
  if (id.empty()) return refresh();
  const std::string text = table_->item(row, column)->text().toStdString();
  if (text.find_first_not_of(" \t") == std::string::npos)  // back to the formula
    return change([&](Recalculation& r) { r.cells.erase(id); }, "cell given back to the formula");
  const Result<double> mm = parseLength(text, session_.order().units.unit);
  if (!mm.ok() || std::abs(*mm) > 300) {
    emit refused(mm.ok() ? QString("%1 is too much for one edge").arg(q(text))
                         : words(mm.problem().line(), session_.order().units));
    return refresh();
  }
  change([&](Recalculation& r) { r.cells[id] = *mm; }, "cell of the shift table");
}

void ShiftView::fillRows(const ShiftTable& t) {
  const LengthFormat units{session_.order().units.unit, 16};
  const QSignalBlocker quiet(table_);
  const int lines = static_cast<int>(t.lines.size());
  table_->setColumnCount(kColumns + lines);
  QStringList heads;
  for (const char* h : kHeads) heads << h;
  for (const RestLine& l : t.lines) heads << words(l.name).toLower().replace(" seam", "") + "\nseam";
  table_->setHorizontalHeaderLabels(heads);
  table_->setRowCount(static_cast<int>(t.rows.size() + t.lengths.size()));
  const auto put = [&](int row, int column, const QString& text, bool byHand = false) {
    auto* item = new QTableWidgetItem(text);
    if (cellId(row, column).empty()) item->setFlags(item->flags() & ~Qt::ItemIsEditable);
    item->setTextAlignment(column == kLevel ? Qt::AlignLeft | Qt::AlignVCenter : Qt::AlignRight | Qt::AlignVCenter);
    QFont font = uiFont(TextSize::Body, byHand);
    item->setFont(font);
    table_->setItem(row, column, item);
  };
  const auto length = [&](const Measured& m) { return QString::fromStdString(formatLength(m.mm, units)); };
  const auto shift = [&](double mm) {
    return std::abs(mm) < 0.05 ? QString("0") : QString::fromStdString(formatLength(mm, units));
  };
  int row = 0;
  for (const ShiftRow& r : t.rows) {
    put(row, kLevel, words(r.name));
    put(row, kClient, length(r.client));
    put(row, kPattern, length(r.pattern));
    const std::pair<int, const ShiftCell*> cells[] = {
        {kCentre, &r.e0}, {kFront, &r.f}, {kBack, &r.b}, {kUsedFront, &r.x}, {kUsedBack, &r.y}};
    for (const auto& [column, cell] : cells) put(row, column, shift(cell->mm), cell->byHand);
    for (int l = 0; l < lines; ++l)
      put(row, kColumns + l, shift(t.lines[static_cast<size_t>(l)].takes[static_cast<size_t>(row)]));
    ++row;
  }
  for (const LengthRow& l : t.lengths) {
    put(row, kLevel, words(l.name));
    put(row, kClient, length(l.client));
    put(row, kPattern, length(l.pattern));
    for (const int column : {kCentre, kFront, kBack, kUsedBack}) put(row, column, {});
    put(row, kUsedFront, shift(l.shift.mm), l.shift.byHand);
    for (int k = 0; k < lines; ++k) put(row, kColumns + k, {});
    ++row;
  }
  table_->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
  table_->horizontalHeader()->setSectionResizeMode(kLevel, QHeaderView::ResizeToContents);
}

void ShiftView::refresh() {
  const Design* d = session_.design();
  if (!isVisible() || !d || !d->fromBase) return;
  const Recalculated& r = *d->fromBase;
  const Order& order = session_.order();
  head_->setText(QString("%1, recalculated for %2")
                     .arg(q(order.base->base.name), order.client.empty() ? QString("this client") : q(order.client)));
  from_->setCurrentIndex(order.base->from == SolvedFrom::Waist ? 0 : 1);
  rest_->setCurrentIndex(order.base->rest == RestGoes::ToLines ? 0 : 1);
  rest_->setVisible(takesRest(r.base));
  const int row = table_->currentRow(), column = table_->currentColumn();
  fillRows(r.table);
  {
    const QSignalBlocker quiet(table_);
    table_->setCurrentCell(row, column);
  }
  why_->setText(words(r.table.why, order.units));
  alone_->show(sideCurves(r.base, recalculationOf(eachByItself(r.table), r.base)), *theme_);
  formula_->show(sideCurves(r.base, r.alteration), *theme_);
}

}  // namespace armure
