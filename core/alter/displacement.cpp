#include "alter/displacement.h"

#include <algorithm>
#include <cmath>
#include <stdexcept>

namespace armure {
namespace {

constexpr double kOnePlace = 0.01;  // mm: two amounts closer than this are given at one place
constexpr double kOneJoint = 0.5;   // mm: a joint so near another one would be a sliver

}  // namespace

Amounts::Amounts(std::vector<At> values) {
  if (values.empty()) throw std::invalid_argument("Amounts: none");
  std::stable_sort(values.begin(), values.end(), [](const At& a, const At& b) { return a.s < b.s; });
  for (const At& v : values)
    if (stations_.empty() || v.s - stations_.back().y > kOnePlace) stations_.push_back({v.s, v.value});
  stations_.front().slopeGiven = stations_.back().slopeGiven = true;
  slopes_ = stations_.size() > 1 ? monotoneSlopes(stations_) : std::vector<double>{0};
}

double Amounts::operator()(double s) const {
  if (s <= stations_.front().y) return stations_.front().x;
  if (s >= stations_.back().y) return stations_.back().x;
  const auto above = std::upper_bound(stations_.begin(), stations_.end(), s,
                                      [](double value, const Station& station) { return value < station.y; });
  const auto j = static_cast<size_t>(above - stations_.begin()), i = j - 1;
  const double h = stations_[j].y - stations_[i].y, t = (s - stations_[i].y) / h, u = 1 - t;
  // The cubic Hermite interpolant.
  return u * u * (1 + 2 * t) * stations_[i].x + t * t * (3 - 2 * t) * stations_[j].x +
         h * t * u * (u * slopes_[i] - t * slopes_[j]);
}

bool Amounts::isZero() const {
  return std::all_of(stations_.begin(), stations_.end(), [](const Station& s) { return s.x == 0; });
}

std::vector<double> jointsOf(const Path& path) {
  std::vector<double> joints{0};
  for (const Cubic& c : path.cubics()) joints.push_back(joints.back() + c.length());
  return joints;
}

Path withJoints(const Path& path, std::vector<double> at) {
  std::vector<double> joints = jointsOf(path);
  const double length = joints.back();
  std::sort(at.begin(), at.end());
  std::vector<double> cuts{0};
  for (const double s : at) {
    const bool near =
        std::any_of(joints.begin(), joints.end(), [&](double j) { return std::abs(j - s) < kOneJoint; }) ||
        s - cuts.back() < kOneJoint;
    if (!near && s > 0 && s < length) cuts.push_back(s);
  }
  if (cuts.size() == 1) return path;
  Path all;
  for (size_t i = 0; i < cuts.size(); ++i) all = all + path.sub(cuts[i], i + 1 < cuts.size() ? cuts[i + 1] : length);
  return all;
}

Path displaced(const Path& path, const Displacement& by) {
  const std::vector<double> joints = jointsOf(path);
  const double length = joints.back();
  const Vec2 grows = length > 0 ? (by.end - by.start) / length : Vec2{};
  const auto shift = [&](size_t j) { return by.at[j] + by.start + joints[j] * grows; };
  std::vector<Cubic> cubics = path.cubics();
  for (size_t i = 0; i < cubics.size(); ++i) {
    Cubic& c = cubics[i];
    const double r1 = distance(c.p0, c.p1), r2 = distance(c.p2, c.p3);
    const Vec2 from = shift(i), to = shift(i + 1);
    c.p1 = c.p1 + from + r1 * (by.slope[i] + grows);
    c.p2 = c.p2 + to - r2 * (by.slope[i + 1] + grows);
    c.p0 = c.p0 + from;
    c.p3 = c.p3 + to;
  }
  return Path(std::move(cubics));
}

double carriedAlong(const Path& before, const Path& after, double s) {
  double now = 0;
  for (size_t i = 0; i < before.cubics().size(); ++i) {
    const double length = before.cubics()[i].length();
    if (s <= length || i + 1 == before.cubics().size())
      return now + after.cubics()[i].lengthTo(before.cubics()[i].parameterAtLength(s, length));
    s -= length;
    now += after.cubics()[i].length();
  }
  return now;
}

}  // namespace armure
