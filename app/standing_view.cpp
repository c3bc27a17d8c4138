#include "app/standing_view.h"

#include <QHBoxLayout>
#include <QPainter>
#include <QPushButton>
#include <algorithm>
#include <cmath>
#include <numeric>
#include <set>

#include "app/client_pages.h"
#include "render/in_space.h"

namespace armure {
namespace {

constexpr int kWait = 120;  // ms after the last change
// The cup as it is seen from one side, in the middle of a picture.
class CupPicture {
 public:
  CupPicture(const StandingCup& cup, const Theme& theme, double turn, double tilt, QSize size)
      : cup_(cup), theme_(theme), centre_(size.width() / 2.0, size.height() / 2.0) {
    std::set<size_t> used;
    for (const auto& t : cup.triangles) used.insert(t.begin(), t.end());
    Vec3 middle;
    const auto count = static_cast<double>(used.size());
    for (size_t id : used) {
      middle.x += cup.points[id].x / count;
      middle.y += cup.points[id].y / count;
      middle.z += cup.points[id].z / count;
    }
    for (const Vec3& point : cup.points) at_.push_back(turned(minus(point, middle), turn, tilt));
    double reach = 1;
    for (size_t id : used) reach = std::max({reach, std::abs(at_[id].x), std::abs(at_[id].y)});
    scale_ = 0.8 * std::min(centre_.x(), centre_.y() - 40) / reach;
  }

  // The farthest first. Light falls on the points, so that the sheets look round.
  void drawSheets(QPainter& p) const {
    const std::vector<Vec3> normals = normalsOfPoints();
    for (size_t i : fromBehind()) {
      const auto& t = cup_.triangles[i];
      Vec3 mean;
      for (size_t id : t) mean = plus(mean, normals[id]);
      const double size = lengthOf(mean);
      // From above on the left, in front; the inside is darker.
      const double light = size > 0 ? (-0.3 * mean.x - 0.4 * mean.y + 0.87 * mean.z) / size : 0;
      const bool outside = normalOf(at_[t[0]], at_[t[1]], at_[t[2]]).z > 0;
      const QColor color = shaded(cup_.pieceOf[i] % 2 == 0 ? theme_.tint : theme_.tintDeep, outside ? light : -0.35);
      p.setPen(QPen(color, 0.8));
      p.setBrush(color);
      const QPointF corners[] = {onScreen(t[0]), onScreen(t[1]), onScreen(t[2])};
      p.drawPolygon(corners, 3);
    }
  }

  // Its edges and seams.
  void drawLines(QPainter& p) const {
    p.setBrush(Qt::NoBrush);
    for (const auto& [lines, width] : {std::pair{&cup_.edges, 1.8}, {&cup_.seams, 1.4}}) {
      QPen pen(theme_.ink, width);
      pen.setJoinStyle(Qt::RoundJoin);
      p.setPen(pen);
      for (const auto& line : *lines) {
        QPolygonF points;
        for (size_t id : line) points << onScreen(id);
        p.drawPolyline(points);
      }
    }
  }

 private:
  QPointF onScreen(size_t id) const { return centre_ + scale_ * QPointF(at_[id].x, at_[id].y); }

  std::vector<Vec3> normalsOfPoints() const {
    std::vector<Vec3> normals(at_.size());
    for (const auto& t : cup_.triangles) {
      const Vec3 n = normalOf(at_[t[0]], at_[t[1]], at_[t[2]]);
      for (size_t id : t) normals[id] = plus(normals[id], n);
    }
    return normals;
  }

  std::vector<size_t> fromBehind() const {
    std::vector<size_t> order(cup_.triangles.size());
    std::iota(order.begin(), order.end(), size_t{0});
    const auto depth = [&](size_t i) {
      const auto& t = cup_.triangles[i];
      return at_[t[0]].z + at_[t[1]].z + at_[t[2]].z;
    };
    std::sort(order.begin(), order.end(), [&](size_t a, size_t b) { return depth(a) < depth(b); });
    return order;
  }

  const StandingCup& cup_;
  const Theme& theme_;
  const QPointF centre_;
  std::vector<Vec3> at_;
  double scale_ = 1;
};

}  // namespace

StandingView::StandingView(OrderSession& session, QWidget* parent)
    : QWidget(parent), session_(session), theme_(&lightTheme()) {
  setObjectName("standing");
  setFocusPolicy(Qt::StrongFocus);
  setAccessibleName("The cup standing");
  auto* overlay = new QHBoxLayout(this);
  overlay->setContentsMargins(12, 10, 12, 10);
  overlay->setAlignment(Qt::AlignTop | Qt::AlignRight);
  auto* back = pillButton("back to the table", false);
  overlay->addWidget(back);
  connect(back, &QPushButton::clicked, this, &StandingView::left);
  later_.setSingleShot(true);
  later_.setInterval(kWait);
  connect(&later_, &QTimer::timeout, this, &StandingView::refresh);
  connect(&session, &OrderSession::changed, this, [this] {
    if (isVisible()) later_.start();
  });
}

void StandingView::setTheme(const Theme& theme) {
  theme_ = &theme;
  update();
}

void StandingView::refresh() {
  cup_ = {};
  asIfCut_ = false;
  if (session_.design() && !session_.problem()) {
    const Balanced* balanced = session_.balanced();
    cup_ = standingCup(balanced ? balanced->pattern : session_.design()->pattern);
    if (cup_.points.empty()) {
      Order order = session_.order();
      order.choices["cup.kind"] = "two";
      if (const auto design = recalc(order); design.ok()) cup_ = standingCup(design->pattern);
      asIfCut_ = !cup_.points.empty();
    }
  }
  update();
}

void StandingView::mousePressEvent(QMouseEvent* event) {
  setFocus();
  turning_.press(*event);
}

void StandingView::mouseMoveEvent(QMouseEvent* event) {
  if (turning_.drag(*event)) update();
}

void StandingView::keyPressEvent(QKeyEvent* event) {
  if (turning_.key(*event)) return update();
  if (event->key() == Qt::Key_Escape) {
    emit left();
    return;
  }
  QWidget::keyPressEvent(event);
}

void StandingView::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  p.fillRect(rect(), theme_->paper);
  p.setFont(uiFont(TextSize::Body));
  p.setPen(theme_->secondInk);
  if (cup_.points.empty()) {
    p.drawText(rect(), Qt::AlignCenter, "There is no cup to stand yet.");
    return;
  }
  const CupPicture picture(cup_, *theme_, turning_.turn(), turning_.tilt(), size());
  picture.drawSheets(p);
  picture.drawLines(p);
  p.setPen(theme_->secondInk);
  const QString kind =
      asIfCut_ ? "The bust lies in the princess seam; so it would stand cut out along a cup line. " : "";
  p.drawText(
      rect().adjusted(20, 0, -20, -14), Qt::AlignBottom | Qt::AlignHCenter | Qt::TextWordWrap,
      kind + QString("Stands %1 over its frame; the cloth gave by %2 %. Drag, or press the arrow keys, to turn it.")
                 .arg(QString::fromStdString(formatLengthWithUnit(cup_.depth, session_.order().units)))
                 .arg(100 * cup_.strain, 0, 'f', 1));
  if (hasFocus()) {
    p.setPen(QPen(theme_->working, 1.5));
    p.drawRect(QRectF(rect()).adjusted(1, 1, -1, -1));
  }
}

}  // namespace armure
