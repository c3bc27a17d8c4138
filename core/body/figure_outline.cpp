#include "body/figure_outline.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "measure/estimate.h"
#include "measure/measure_table.h"
#include "measure/predict.h"

namespace armure {
namespace {

using std::numbers::pi;

// A smooth line through the points (Catmull and Rom, uniform), eight steps from each to the next.
Polyline smooth(const Polyline& through) {
  constexpr int kSteps = 8;
  Polyline line;
  const auto at = [&](size_t i, int by) {
    const auto k = std::clamp<long>(static_cast<long>(i) + by, 0, static_cast<long>(through.size()) - 1);
    return through[static_cast<size_t>(k)];
  };
  for (size_t i = 0; i + 1 < through.size(); ++i) {
    const Vec2 p0 = at(i, -1), p1 = at(i, 0), p2 = at(i, 1), p3 = at(i, 2);
    for (int k = 0; k < kSteps; ++k) {
      const double t = static_cast<double>(k) / kSteps;
      line.push_back(0.5 * (2 * p1 + (p2 - p0) * t + (2 * p0 - 5 * p1 + 4 * p2 - p3) * t * t +
                            (3 * p1 - p0 - 3 * p2 + p3) * t * t * t));
    }
  }
  line.push_back(through.back());
  return line;
}

Polyline mirrored(Polyline line) {
  for (Vec2& p : line) p.x = -p.x;
  return line;
}

Polyline arc(Vec2 centre, double rx, double ry, double from, double to, int steps = 24) {
  Polyline line;
  for (int i = 0; i <= steps; ++i) {
    const double a = from + (to - from) * i / steps;
    line.push_back(centre + Vec2{rx * std::cos(a), ry * std::sin(a)});
  }
  return line;
}

void append(Polyline& to, const Polyline& more) { to.insert(to.end(), more.begin(), more.end()); }

}  // namespace

MeasuredFigure::MeasuredFigure(const Body& body)
    : form_(body),
      stature_(body.mm(id::kStature)),
      shoulder_(body.mm(id::kShoulderWidth)),
      neck_(anyMeasure(body, "neck") / (2 * pi) * 0.92),
      span_(body.mm(id::kBustSpan)),
      armLength_(anyMeasure(body, "arm_length")),
      bicep_(anyMeasure(body, "bicep") / (2 * pi)),
      wrist_(anyMeasure(body, "wrist") / (2 * pi)) {
  const double waist = form_.yOf(id::kWaist);
  floor_ = std::max(waist + anyMeasure(body, "waist_to_floor"), form_.bottom() + 0.3 * stature_);
  top_ = neckY() - 0.165 * stature_;
  crotch_ = form_.bottom() + 0.035 * stature_;
  knee_ = std::min(waist + anyMeasure(body, "waist_to_knee"), floor_ - 0.15 * stature_);
  knee_ = std::max(knee_, crotch_ + 0.05 * stature_);
  ankle_ = floor_ - 0.039 * stature_;
  outlines_ = {makeOutline(View::Front), makeOutline(View::Back), makeOutline(View::Side)};
  places_ = makePlaces();
}

double MeasuredFigure::reach() const { return armAt(1.12).x + 2.2 * wrist_; }

// The arm hangs a little away from the hip.
Vec2 MeasuredFigure::armAt(double part) const {
  const Vec2 shoulder{shoulderX() - 0.55 * bicep_, pointY() + 4};
  const double hip = form_.halfWidth(form_.bottom());
  const double outX = std::max(hip + 1.5 * wrist_ + 12, shoulder.x + 0.06 * armLength_) - shoulder.x;
  const double out = std::min(outX, 0.7 * armLength_);
  const Vec2 along{out, std::sqrt(armLength_ * armLength_ - out * out)};
  return shoulder + part * along;
}

Polyline MeasuredFigure::arm(double side) const {
  const Vec2 along = unit(armAt(1) - armAt(0)), across{along.y, -along.x};
  const auto outer = [&](double part, double half) { return armAt(part) + half * across; };
  const auto inner = [&](double part, double half) { return armAt(part) - half * across; };
  Polyline through{Vec2{shoulderX() - 1.1 * bicep_, pointY() - 14},
                   Vec2{shoulderX() - 0.25 * bicep_, pointY()},
                   Vec2{shoulderX() + 0.35 * bicep_, pointY() + 0.8 * bicep_},
                   outer(0.16, 1.1 * bicep_),
                   outer(0.3, bicep_),
                   outer(0.5, 0.78 * bicep_),
                   outer(0.6, 0.82 * bicep_),
                   outer(1, wrist_),
                   outer(1.1, 1.3 * wrist_),
                   outer(1.27, 0.45 * wrist_),
                   inner(1.27, 0.35 * wrist_),
                   inner(1.12, 1.25 * wrist_),
                   inner(1, wrist_),
                   inner(0.6, 0.8 * bicep_),
                   inner(0.5, 0.78 * bicep_),
                   inner(0.3, bicep_),
                   inner(0.14, 1.05 * bicep_),
                   inner(0, bicep_)};
  Polyline line = smooth(through);
  return side < 0 ? mirrored(line) : line;
}

double MeasuredFigure::legHalfWidth(double y) const {
  const double hip = form_.halfWidth(form_.bottom());
  const double thigh = 0.5 * hip - 3, knee = 0.031 * stature_, ankle = 0.019 * stature_;
  if (y <= knee_) return thigh + (knee - thigh) * std::pow((y - crotch_) / (knee_ - crotch_), 0.85);
  const double calf = 0.033 * stature_, t = (y - knee_) / (ankle_ - knee_);
  return t < 0.3 ? knee + (calf - knee) * t / 0.3 : calf + (ankle - calf) * std::pow((t - 0.3) / 0.7, 1.2);
}

// The right half, from the top of the head down to the foot and up to the crotch; mirrored for the left.
Polyline MeasuredFigure::trunkAndLegs() const {
  const double up = 0.035 * stature_, chin = neckY() - up, head = (chin - top_) / 2, headHalf = 0.76 * head;
  Polyline half = arc({0, top_ + head}, headHalf, head, -pi / 2, 0.33 * pi);
  Polyline side{{0.9 * neck_, neckY() - 0.8 * up},
                {0.95 * neck_, neckY() - 0.4 * up},
                {1.22 * neck_, neckY()},
                {0.5 * (neck_ + shoulderX()), neckY() + 0.4 * (pointY() - neckY())},
                {shoulderX() - 0.35 * bicep_, pointY() - 2},
                {shoulderX() - 0.1 * bicep_, pointY() + 0.6 * bicep_},
                {form_.halfWidth(form_.top()) + 0.02 * shoulderX(), form_.top() - 0.018 * stature_}};
  const double step = (form_.bottom() - form_.top()) / 24;
  for (int i = 0; i <= 24; ++i) {
    const double y = form_.top() + i * step;
    side.push_back({form_.halfWidth(y), y});
  }
  const double hip = form_.halfWidth(form_.bottom());
  const double kneeX = 0.42 * hip, ankleX = 0.36 * hip;
  const auto legX = [&](double y) {
    const double thighX = 0.5 * hip + 1;
    return y <= knee_ ? thighX + (kneeX - thighX) * (y - crotch_) / (knee_ - crotch_)
                      : kneeX + (ankleX - kneeX) * (y - knee_) / (ankle_ - knee_);
  };
  Polyline inner;
  for (int i = 0; i <= 16; ++i) {
    const double y = crotch_ + (ankle_ - crotch_) * i / 16;
    const double outer = std::min(legX(y) + legHalfWidth(y), hip);
    if (i > 0) side.push_back({outer, y});
    inner.push_back({std::max(1.0, legX(y) - legHalfWidth(y)), y});
  }
  const double foot = 0.024 * stature_;
  side.push_back({ankleX + 1.25 * foot, floor_ - 0.012 * stature_});
  side.push_back({ankleX + 1.1 * foot, floor_});
  side.push_back({ankleX - 0.5 * foot, floor_});
  std::reverse(inner.begin(), inner.end());
  append(side, inner);
  append(half, smooth(side));
  return half;
}

Polyline MeasuredFigure::sideView() const {
  const double chin = neckY() - 0.035 * stature_, head = (chin - top_) / 2;
  // The neck and the shoulders as the form has them.
  const double nape = form_.backZ(neckY()), headZ = form_.shoulder().neckPoint.z + 0.025 * stature_;
  Polyline front = arc({headZ, top_ + head}, 0.8 * head, head, -pi / 2, 0.42 * pi);
  const FormSection underArms = form_.section(form_.top());
  const double chest = underArms.axis + underArms.front;
  Polyline line{{headZ + 0.16 * head, chin + 12}, {form_.frontZ(neckY()) - 4, neckY() - 0.012 * stature_}};
  for (const double part : {0.25, 0.5, 0.75}) {
    const double y = neckY() + part * (form_.top() - neckY());
    line.push_back({form_.section(y).axis + form_.section(y).front, y});
  }
  constexpr int kSteps = 32;
  // The slope of the breast runs out above the form.
  const double step = (form_.bottom() - form_.top()) / kSteps, slope = form_.frontZ(form_.top()) - chest;
  line.push_back({chest + 0.1 * slope, form_.top() - 3 * step});
  line.push_back({chest + 0.6 * slope, form_.top() - step});
  for (int i = 0; i <= kSteps; ++i) {
    const double y = form_.top() + (form_.bottom() - form_.top()) * i / kSteps;
    line.push_back({form_.frontZ(y), y});
  }
  const double hipFront = form_.frontZ(form_.bottom()), hipBack = form_.backZ(form_.bottom());
  const double middle = 0.5 * (hipFront + hipBack) + 8;
  const double knee = 0.034 * stature_, calf = 0.036 * stature_, ankle = 0.023 * stature_;
  const double mid = (crotch_ + knee_) / 2;
  append(line, Polyline{{0.86 * hipFront, crotch_ + 20},
                        {middle + 0.046 * stature_, mid},
                        {middle + knee, knee_},
                        {middle + 0.85 * knee, knee_ + 0.05 * stature_},
                        {middle + ankle, ankle_ - 0.02 * stature_},
                        {middle + 0.05 * stature_, floor_ - 0.022 * stature_},
                        {middle + 0.105 * stature_, floor_ - 0.006 * stature_},
                        {middle + 0.1 * stature_, floor_},
                        {middle - 0.03 * stature_, floor_},
                        {middle - 0.036 * stature_, floor_ - 0.015 * stature_},
                        {middle - ankle, ankle_ - 0.01 * stature_},
                        {middle - 1.3 * calf, knee_ + 0.08 * stature_},
                        {middle - knee, knee_ + 0.01 * stature_},
                        {middle - 0.048 * stature_, mid},
                        {0.88 * hipBack, crotch_ + 0.02 * stature_}});
  for (int i = kSteps; i >= 0; --i) {
    const double y = form_.top() + (form_.bottom() - form_.top()) * i / kSteps;
    line.push_back({form_.backZ(y), y});
  }
  for (const double part : {0.3, 0.6})
    line.push_back(
        {form_.backZ(form_.top() - part * (form_.top() - neckY())), form_.top() - part * (form_.top() - neckY())});
  append(line, Polyline{{nape, neckY()}, {nape + 6, chin}});
  append(front, smooth(line));
  append(front, arc({headZ, top_ + head}, 0.8 * head, head, 0.8 * pi, 1.5 * pi));
  return front;
}

FigureOutline MeasuredFigure::makeOutline(View view) const {
  if (view == View::Side) return {{}, sideView(), {}};
  Polyline half = trunkAndLegs();
  Polyline body = half;
  Polyline left = mirrored(half);
  body.insert(body.end(), left.rbegin(), left.rend());
  FigureOutline out{{arm(1), arm(-1)}, std::move(body), {}};
  if (view == View::Front) {
    const double depth = form_.section(form_.yOf(id::kBust)).breastDepth;
    const double under = form_.yOf(id::kUnderbust), bust = form_.yOf(id::kBust);
    const double wide = std::clamp(0.3 * span_ + 0.25 * depth, 20.0, 0.48 * span_);
    for (double side : {-1.0, 1.0}) {
      if (depth < 4) continue;
      out.details.push_back(arc({side * span_ / 2, bust}, wide, under - bust, 0.08 * pi, 0.92 * pi));
    }
    out.details.push_back({{0, form_.bottom() + 6}, {0, crotch_}});
  } else {
    out.details.push_back(
        smooth({{0, neckY() + 0.02 * stature_}, {2, form_.yOf(id::kBust)}, {0, form_.yOf(id::kHighHip)}}));
    out.details.push_back({{0, form_.bottom() - 0.02 * stature_}, {0, crotch_}});
  }
  return out;
}

// A girth as the tape is seen on the body: a little lower at the middle in front, higher at the back.
Polyline MeasuredFigure::girthLine(double y, View view, double part) const {
  const double half = part * form_.halfWidth(y), sag = (view == View::Front ? 1 : -1) * 0.09 * half;
  Polyline line;
  for (int i = -12; i <= 12; ++i) {
    const double t = i / 12.0;
    line.push_back({half * t, y + sag * (1 - t * t)});
  }
  return line;
}

std::vector<MeasurePlace> MeasuredFigure::makePlaces() const {
  std::vector<MeasurePlace> all;
  const auto put = [&](std::string_view id, View view, Polyline line) { all.push_back({id, view, std::move(line)}); };
  const auto front = [&](std::string_view id, Polyline line) { put(id, View::Front, std::move(line)); };
  const auto back = [&](std::string_view id, Polyline line) { put(id, View::Back, std::move(line)); };
  for (const FormLevel& level : form_.levels())
    for (View view : {View::Front, View::Back}) put(level.id, view, girthLine(level.y, view));

  const double chest = form_.top(), bust = form_.yOf(id::kBust), under = form_.yOf(id::kUnderbust);
  const double waist = form_.yOf(id::kWaist), highHip = form_.yOf(id::kHighHip), hip = form_.bottom();
  const Vec2 neckPoint{1.25 * neck_, neckY()}, apex{span_ / 2, bust};
  // Heights side by side, so that each can be told from the others; they all begin at the neck point.
  front(id::kShoulderToChest, {neckPoint + Vec2{-8, 0}, {neckPoint.x - 8, chest}});
  front(id::kShoulderToBust, {neckPoint, apex});
  front(id::kShoulderToUnderbust, {{-neckPoint.x, neckPoint.y}, {-apex.x, bust}, {-apex.x, under}});
  front(id::kShoulderToWaist,
        {Vec2{-neckPoint.x - 10, neckPoint.y}, {-apex.x - 10, bust}, {-apex.x - 10, under}, {-apex.x - 10, waist}});
  back(id::kBackWaistLength, {neckPoint, {neckPoint.x, waist}});
  const auto down = [&](double from, double to, double side, double out) {
    Polyline line;
    for (int i = 0; i <= 12; ++i) {
      const double y = from + (to - from) * i / 12;
      line.push_back({side * (form_.halfWidth(y) + out), y});
    }
    return line;
  };
  front(id::kWaistToHighHip, down(waist, highHip, 1, 3));
  front(id::kWaistToHip, down(waist, hip, -1, 3));
  front(id::kSideLength, down(chest + 8, waist, 1, 3));
  const double shoulderY = pointY();
  back(id::kShoulderWidth, smooth({{-shoulderX(), shoulderY}, {0, shoulderY - 14}, {shoulderX(), shoulderY}}));
  front(id::kBustSpan, {{-apex.x, bust - 6}, {apex.x, bust - 6}});
  front(id::kFrontBustArc, girthLine(bust + 9, View::Front, 0.97));
  front(id::kFrontUnderbustArc, girthLine(under + 9, View::Front, 0.97));
  front(id::kArmhole, arc({shoulderX() - 0.75 * bicep_, (shoulderY + chest) / 2}, 0.55 * bicep_,
                          (chest - shoulderY) / 2 + 6, 0, 2 * pi));
  front(id::kCupDown, {apex, {apex.x, under}});
  front("cup_out", {apex, {std::max(apex.x + 10, 0.96 * form_.halfWidth(bust)), bust + 4}});
  front("cup_up", {apex, {apex.x + 4, std::min(chest - 10, bust - 20)}});
  front("cup_in", {apex, {0, bust + 5}});
  front(id::kStature, {{-reach() - 20, top_}, {-reach() - 20, floor_}});
  front("neck", arc({0, neckY() - 0.012 * stature_}, 1.15 * neck_, 0.016 * stature_, 0, pi));
  front("round_shoulder", smooth({{-armAt(0.12).x - bicep_, armAt(0.12).y},
                                  {0, armAt(0.12).y + 22},
                                  {armAt(0.12).x + bicep_, armAt(0.12).y}}));
  const Vec2 along = unit(armAt(1) - armAt(0)), across{along.y, -along.x};
  front("bicep", {armAt(0.32) - bicep_ * across, armAt(0.32) + bicep_ * across});
  front("wrist", {armAt(1) - 1.1 * wrist_ * across, armAt(1) + 1.1 * wrist_ * across});
  back("arm_length",
       {armAt(0) + 0.6 * bicep_ * across, armAt(0.5) + 0.4 * bicep_ * across, armAt(1) + 0.4 * wrist_ * across});
  front("waist_to_knee", {{6, waist}, {6, knee_}});
  front("waist_to_floor", {{-6, waist}, {-6, floor_}});
  return all;
}

}  // namespace armure
