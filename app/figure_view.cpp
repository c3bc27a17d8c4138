#include "app/figure_view.h"

#include <QMouseEvent>
#include <QToolTip>

#include "measure/measure_table.h"
#include "measure/standard_sizes.h"

namespace armure {
namespace {

constexpr double kTop = 18, kBottom = 34, kSides = 10;  // pixels round the figures
constexpr std::string_view kPrefix = "measure.";

MeasuredFigure idealBeside(const Body& body) {
  return MeasuredFigure(completeBody(idealFigure(body.mm(id::kBust), body.mm(id::kStature))));
}

}  // namespace

FigureView::FigureView(OrderSession& session, QWidget* parent)
    : QWidget(parent),
      session_(session),
      theme_(&lightTheme()),
      figure_(completeBody({})),
      ideal_(idealBeside(completeBody({}))) {
  setObjectName("figure");
  setMouseTracking(true);
  connect(&session, &OrderSession::changed, this, &FigureView::refresh);
  connect(&session, &OrderSession::selectionChanged, this, [this] { update(); });
  refresh();
}

void FigureView::setTheme(const Theme& theme) {
  theme_ = &theme;
  update();
}

void FigureView::refresh() {
  if (!isVisible()) return;
  if (session_.order().measures != shown_) {
    shown_ = session_.order().measures;
    const Body body = completeBody(shown_);
    figure_ = MeasuredFigure(body);
    const std::pair<double, double> beside{body.mm(id::kBust), body.mm(id::kStature)};
    if (beside != beside_) ideal_ = idealBeside(body);
    beside_ = beside;
  }
  update();
}

QRectF FigureView::drawingArea() const { return QRectF(rect()).adjusted(kSides, kTop, -kSides, -kBottom); }

FigurePainter FigureView::painter() const { return {figure_, ideal_, drawingArea()}; }

std::string FigureView::lit() const {
  const std::string& working = session_.selection().working;
  return working.starts_with(kPrefix) ? working.substr(kPrefix.size()) : std::string();
}

std::optional<QPointF> FigureView::placeOf(std::string_view measure) const { return painter().middleOf(measure); }

void FigureView::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.fillRect(rect(), theme_->paper);
  const std::string current = lit();
  QString tag;
  if (const MeasureInfo* info = findMeasure(current)) {
    const Fact fact = factOf(current, shown_);
    tag = QString("%1 %2%3").arg(QString::fromUtf8(info->name.data(), static_cast<qsizetype>(info->name.size())),
                                 fact.source == Source::Taken ? "" : "about ",
                                 QString::fromStdString(formatLengthWithUnit(fact.mm, session_.order().units)));
  }
  painter().draw(p, *theme_, current, hovered_, tag);
  drawLegend(p);
}

void FigureView::drawLegend(QPainter& p) const {
  const double y = height() - 16, x = 22;
  p.setPen(QPen(theme_->secondInk, 1.1));
  p.setBrush(theme_->tint);
  p.drawRect(QRectF(x, y - 6, 18, 11));
  QPen dashed(theme_->secondInk, 1.1);
  dashed.setDashPattern({4, 3});
  p.setPen(dashed);
  p.drawLine(QPointF(x + 120, y), QPointF(x + 142, y));
  p.setPen(theme_->secondInk);
  p.setFont(uiFont(TextSize::Small));
  p.drawText(QPointF(x + 24, y + 4), "as measured");
  p.drawText(QPointF(x + 148, y + 4), "standard figure of the same bust");
}

void FigureView::mousePressEvent(QMouseEvent* event) {
  if (const std::string id = painter().measureAt(event->position()); !id.empty()) emit measureChosen(id);
}

void FigureView::mouseMoveEvent(QMouseEvent* event) {
  const std::string id = painter().measureAt(event->position());
  if (id == hovered_) return;
  hovered_ = id;
  setCursor(id.empty() ? Qt::ArrowCursor : Qt::PointingHandCursor);
  const MeasureInfo* info = findMeasure(id);
  setToolTip(info ? QString::fromUtf8(info->name.data(), static_cast<qsizetype>(info->name.size())) : QString());
  update();
}

void FigureView::leaveEvent(QEvent*) {
  hovered_.clear();
  update();
}

}  // namespace armure
