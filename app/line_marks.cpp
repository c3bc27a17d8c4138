#include "app/line_marks.h"

#include <cmath>
#include <numbers>

#include "garment/line_handles.h"
#include "parts/cups/dart_dial.h"
#include "parts/cups/rules.h"
#include "render/pattern_painter.h"

namespace armure {
namespace {

constexpr double kGrip = 3.4;  // mm, radius of the place where a line is taken hold of

void addHandles(TableScene& scene, const Design& design, const SceneOptions& options) {
  for (const LineHandle& h : lineHandles(design.pattern, design.rules, options.lines)) {
    const Motion& m = scene.arrangement[h.piece];
    const QPointF at = toQt(m.apply(h.at)), axis = toQt(m.applyToDirection(h.axis));
    QPainterPath grip;
    grip.addEllipse(at, kGrip, kGrip);
    scene.items.push_back({Ink::Guide,
                           grip,
                           {.working = "rule." + h.key},
                           GuideHandle{h.key, axis, h.mm, design.rules.isChosen(h.key), h.sharePerMm}});
    if (h.sharePerMm > 0) continue;  // the dial says how much
    scene.labels.push_back({LabelKind::Movement,
                            at,
                            QString::fromStdString(formatLength(h.mm, options.moves)),
                            0,
                            {std::abs(axis.x()) > 0.7 ? 0.0 : 26.0, std::abs(axis.x()) > 0.7 ? -14.0 : 0.0}});
  }
}

// A piece's name under the dial gives way to it, its number steps aside, outwards.
void clearGround(TableScene& scene, QPointF dial) {
  constexpr double kAside = 0.85 * kDialRadius;
  const auto under = [&](const SceneLabel& l) {
    const QPointF off = l.at - dial;
    return std::abs(off.x()) < kAside && std::abs(off.y()) < 1.5 * kDialRadius;
  };
  std::erase_if(scene.labels, [&](const SceneLabel& l) { return l.kind == LabelKind::PieceName && under(l); });
  for (SceneLabel& l : scene.labels)
    if (l.kind == LabelKind::PieceNumber && under(l)) l.at.setX(dial.x() + kAside);
}

// Each part of the one angle as a wedge pointing where it is taken up.
void addDial(TableScene& scene, const Design& design) {
  const auto centre = dialCentre(design.pattern);
  if (!centre) return;
  constexpr double kLeast = 0.05;  // degrees
  const QPointF at = toQt(scene.arrangement[centre->piece].apply(centre->at));
  clearGround(scene, at);
  for (const DialPart& part : dartDial(design.block, design.rules)) {
    const double degrees = part.angleRad * 180 / std::numbers::pi;
    const Vec2 way = dialDirection(part.id);
    if (degrees > kLeast) {
      const double towards = -std::atan2(way.y, way.x) * 180 / std::numbers::pi;
      QPainterPath wedge(at);
      wedge.arcTo(QRectF(at.x() - kDialRadius, at.y() - kDialRadius, 2 * kDialRadius, 2 * kDialRadius),
                  towards - degrees / 2, degrees);
      wedge.closeSubpath();
      scene.items.push_back(
          {Ink::Dial,
           wedge,
           {.working = part.key.empty() ? "front.underbust.intake" : "rule." + std::string(part.key)}});
    }
    // Where its share cannot be chosen, the dial only shows.
    if (degrees <= kLeast && (part.key.empty() || !design.rules.counts(*findRule(part.key)))) continue;
    const double share = part.key.empty() ? 0 : design.rules.value(part.key).number;
    const double out = part.key.empty() ? kDialRadius : kDialHandle + share * kDialReach;
    scene.labels.push_back({LabelKind::Movement,
                            at + out * QPointF(way.x, way.y),
                            QStringLiteral("%1°").arg(degrees, 0, 'f', 0),
                            0,
                            {22 * way.x, 15 * way.y}});
  }
}

}  // namespace

void addLineMarks(TableScene& scene, const Design& design, const SceneOptions& options) {
  if (design.isTraced()) return;  // its lines are what they are
  addHandles(scene, design, options);
  if (options.lines == "Cups") addDial(scene, design);
}

}  // namespace armure
