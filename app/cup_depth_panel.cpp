#include "app/cup_depth_panel.h"
#include "parts/cups/rules.h"
#include "render/words.h"

#include <QPainter>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>
#include <numbers>

namespace armure {
namespace {

constexpr double kDegrees = 180 / std::numbers::pi;
constexpr int kAxisLeft = 30, kAxisBottom = 32, kAxisTop = 8, kAxisRight = 8;

QLabel* label(const char* style) {
  auto* l = new QLabel;
  l->setObjectName(style);
  l->setWordWrap(true);
  l->setTextInteractionFlags(Qt::TextSelectableByMouse);
  return l;
}

}  // namespace

DepthCurves::DepthCurves(QWidget* parent) : QWidget(parent), theme_(&lightTheme()) {
  setFixedHeight(168);
  setObjectName("depthCurves");
  setAccessibleName("Angle taken up about the bust point, pattern and breast, over the radius");
}

void DepthCurves::show(CupDepth depth, LengthFormat units, const Theme& theme) {
  depth_ = std::move(depth);
  units_ = units;
  theme_ = &theme;
  update();
}

void DepthCurves::paintEvent(QPaintEvent*) {
  if (depth_.stations.empty()) return;
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const QRectF box(kAxisLeft, kAxisTop, width() - kAxisLeft - kAxisRight, height() - kAxisTop - kAxisBottom);
  double most = 30;
  for (const DepthStation& s : depth_.stations)
    most = std::max({most, s.bodyAngleRad * kDegrees, s.patternAngleRad * kDegrees});
  most = 30 * std::ceil(most / 30);
  const double far = depth_.stations.back().radius;
  const auto at = [&](double radius, double degrees) {
    return QPointF(box.left() + box.width() * radius / far, box.bottom() - box.height() * degrees / most);
  };
  p.fillRect(box, theme_->paper);
  p.setFont(uiFont(TextSize::Small));
  const int every = most > 120 ? 60 : 30;
  for (int d = 0; d <= most; d += every) {
    p.setPen(QPen(theme_->hairline, 1));
    p.drawLine(at(0, d), at(far, d));
    p.setPen(theme_->secondInk);
    p.drawText(QRectF(0, at(0, d).y() - 8, kAxisLeft - 4, 16), Qt::AlignRight | Qt::AlignVCenter,
               QString("%1°").arg(d));
  }
  const double step = units_.unit == Unit::Inch ? kMmPerInch : 25;
  for (double r = step; r < far; r += step) {
    p.setPen(QPen(theme_->hairline, 1));
    p.drawLine(at(r, 0), at(r, most));
    p.setPen(theme_->secondInk);
    p.drawText(QRectF(at(r, 0).x() - 20, box.bottom() + 1, 40, 15), Qt::AlignCenter,
               QString::fromStdString(formatLength(r, units_)));
  }
  p.drawText(QRectF(kAxisLeft, box.bottom() + 15, box.width(), 16), Qt::AlignRight,
             "from the bust point to the underbust");
  for (const bool pattern : {false, true}) {
    QPolygonF line;
    for (const DepthStation& s : depth_.stations)
      line << at(s.radius, (pattern ? s.patternAngleRad : s.bodyAngleRad) * kDegrees);
    QPen pen(pattern ? theme_->working : theme_->ink, pattern ? 2.2 : 1.6);
    if (!pattern) pen.setDashPattern({4, 3});
    p.setPen(pen);
    p.drawPolyline(line);
    const DepthStation& s = depth_.stations[depth_.stations.size() / 3];
    const QPointF here = at(s.radius, (pattern ? s.patternAngleRad : s.bodyAngleRad) * kDegrees);
    if (pattern) {  // to the left of its curve, which rises
      p.drawText(QRectF(here.x() - 86, here.y() - 18, 80, 16), Qt::AlignRight | Qt::AlignVCenter, "pattern");
    } else {
      p.drawText(here + QPointF(8, 14), "breast");
    }
  }
}

CupDepthPanel::CupDepthPanel(OrderSession& session, QWidget* parent)
    : QWidget(parent),
      session_(session),
      theme_(&lightTheme()),
      curves_(new DepthCurves),
      words_(label("depthWords")),
      volumes_(label("lesser")) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 12, 0, 0);
  column->setSpacing(4);
  volumes_->setAccessibleName("Volumes of pattern and breast");
  auto* title = new QLabel("Deep enough?");
  title->setObjectName("group");
  column->addWidget(title);
  column->addWidget(words_);
  column->addWidget(curves_);
  column->addWidget(volumes_);
  connect(&session, &OrderSession::changed, this, &CupDepthPanel::refresh);
}

void CupDepthPanel::setTheme(const Theme& theme) {
  theme_ = &theme;
  refresh();
}

const BreastRings& CupDepthPanel::ringsOf(const Design& design) {
  const double bustX = design.block.dart.apex.x, reach = cupReach(design.block);
  const BreastShape shape = design.rules.option(key::kBreastShape);
  std::vector<double> on{bustX, reach, static_cast<double>(shape)};
  for (const Fact& f : design.body.facts()) on.push_back(f.mm);
  if (on != ringsOn_) {
    rings_ = breastRings(BodyForm(design.body, shape), bustX, reach);
    ringsOn_ = std::move(on);
  }
  return rings_;
}

void CupDepthPanel::refresh() {
  if (!isVisible() || !session_.design() || session_.problem()) return;
  const Design& d = *session_.design();
  CupDepth depth = cupDepth(d.block, ringsOf(d));
  const LengthFormat units = session_.order().units;
  words_->setText(words(depthInWords(depth), units));
  volumes_->setText(
      QString("Holds %1 ml, the breast %2 ml, both as bodies turned about the bust point. The angle is what "
              "cloth loses out of a flat disc; where the pattern's curve lies above, the cup stands more "
              "pointed than the breast.")
          .arg(depth.patternVolume / 1000, 0, 'f', 0)
          .arg(depth.bodyVolume / 1000, 0, 'f', 0));
  curves_->show(std::move(depth), units, *theme_);
}

}  // namespace armure
