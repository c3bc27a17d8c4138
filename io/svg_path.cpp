#include "io/svg_path.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <numbers>
#include <optional>

namespace armure {
namespace {

constexpr double kFarthestUnits = 1e7;  // user units: no drawing is larger

class PathReader {
 public:
  explicit PathReader(std::string_view d) : at_(d.data()), end_(d.data() + d.size()) {}

  SvgPath read() {
    skip();
    while (at_ < end_) {
      const char command = *at_;
      if (std::string_view("MmLlHhVvCcSsQqTtAaZz").find(command) == std::string_view::npos || !draw(command)) {
        out_.whole = false;
        break;
      }
      skip();
    }
    end(false);
    return std::move(out_);
  }

 private:
  void skip() {
    while (at_ < end_ && (*at_ == ' ' || *at_ == '\t' || *at_ == '\n' || *at_ == '\r' || *at_ == ',' || *at_ == '\f'))
      ++at_;
  }

  std::optional<double> number() {
    skip();
    if (at_ < end_ && *at_ == '+') ++at_;
    double v = 0;
    const auto [to, error] = std::from_chars(at_, end_, v);
    if (error != std::errc() || !std::isfinite(v) || std::abs(v) > kFarthestUnits) return std::nullopt;
    at_ = to;
    return v;
  }
  std::optional<bool> flag() {
    skip();
    if (at_ >= end_ || (*at_ != '0' && *at_ != '1')) return std::nullopt;
    return *at_++ == '1';
  }
  std::optional<Vec2> point(bool relative) {
    const auto x = number(), y = x ? number() : std::nullopt;
    if (!y) return std::nullopt;
    return relative ? now_ + Vec2{*x, *y} : Vec2{*x, *y};
  }
  bool moreNumbers() {
    skip();
    return at_ < end_ && std::string_view("+-.0123456789").find(*at_) != std::string_view::npos;
  }

  void end(bool closed) {
    if (closed && !open_.cubics.empty() && distance(now_, first_) > 0) add(Cubic::line(now_, first_));
    if (!open_.cubics.empty()) {
      open_.closed = closed;
      out_.subpaths.push_back(std::move(open_));
    }
    open_ = {};
    if (closed) now_ = first_;
  }

  void add(const Cubic& c) {
    if (distance(c.p0, c.p1) + distance(c.p1, c.p2) + distance(c.p2, c.p3) > 0) open_.cubics.push_back(c);
    now_ = c.p3;
  }

  bool draw(char command) {
    ++at_;
    const bool relative = command >= 'a';
    const char kind = static_cast<char>(relative ? command - 'a' + 'A' : command);
    if (kind == 'Z') {
      end(true);
      last_ = 'Z';
      return true;
    }
    bool first = true;
    do {
      const bool done = kind == 'M' && first ? move(relative) : one(kind == 'M' ? 'L' : kind, relative);
      if (!done) return false;
      first = false;
    } while (moreNumbers());
    return true;
  }

  bool move(bool relative) {
    const auto to = point(relative);
    if (!to) return false;
    end(false);
    now_ = first_ = *to;
    last_ = 'M';
    return true;
  }

  // The handle a smooth command mirrors on where it is, or where it is itself.
  Vec2 mirrored(char cubic) const { return last_ == cubic ? 2 * now_ - handle_ : now_; }

  bool one(char kind, bool relative) {
    switch (kind) {
      case 'L':
        if (const auto to = point(relative)) return add(Cubic::line(now_, *to)), last_ = kind, true;
        return false;
      case 'H':
      case 'V': {
        const auto v = number();
        if (!v) return false;
        Vec2 to = now_;
        double& moved = kind == 'H' ? to.x : to.y;
        moved = relative ? moved + *v : *v;
        add(Cubic::line(now_, to));
        last_ = kind;
        return true;
      }
      case 'C':
      case 'S': {
        const Vec2 mirror = mirrored('C');
        const auto a = kind == 'C' ? point(relative) : std::optional(mirror);
        const auto b = a ? point(relative) : std::nullopt, to = b ? point(relative) : std::nullopt;
        if (!to) return false;
        add({now_, *a, *b, *to});
        handle_ = *b;
        last_ = 'C';
        return true;
      }
      case 'Q':
      case 'T': {
        const Vec2 mirror = mirrored('Q');
        const auto q = kind == 'Q' ? point(relative) : std::optional(mirror);
        const auto to = q ? point(relative) : std::nullopt;
        if (!to) return false;
        add({now_, lerp(now_, *q, 2.0 / 3), lerp(*to, *q, 2.0 / 3), *to});
        handle_ = *q;
        last_ = 'Q';
        return true;
      }
      default:
        return arc(relative);
    }
  }

  bool arc(bool relative) {
    const auto rx = number(), ry = rx ? number() : std::nullopt, turn = ry ? number() : std::nullopt;
    const auto large = turn ? flag() : std::nullopt, sweep = large ? flag() : std::nullopt;
    const auto to = sweep ? point(relative) : std::nullopt;
    if (!to) return false;
    for (const Cubic& c : ellipticalArc(now_, {*rx, *ry}, *turn * std::numbers::pi / 180, *large, *sweep, *to)) add(c);
    now_ = *to;
    last_ = 'A';
    return true;
  }

  const char *at_, *end_;
  SvgPath out_;
  Subpath open_;
  Vec2 now_, first_, handle_;
  char last_ = 'M';
};

}  // namespace

SvgPath parseSvgPath(std::string_view d) { return PathReader(d).read(); }

std::vector<Cubic> ellipticalArc(Vec2 from, Vec2 radii, double turnRad, bool large, bool sweep, Vec2 to) {
  double rx = std::abs(radii.x), ry = std::abs(radii.y);
  if (distance(from, to) == 0) return {};
  if (rx == 0 || ry == 0) return {Cubic::line(from, to)};
  const Vec2 p = rotated((from - to) / 2, -turnRad);
  const double reach = p.x * p.x / (rx * rx) + p.y * p.y / (ry * ry);
  if (reach > 1) rx *= std::sqrt(reach), ry *= std::sqrt(reach);
  const double over = rx * rx * p.y * p.y + ry * ry * p.x * p.x;
  const double root = std::sqrt(std::max(0.0, rx * rx * ry * ry / over - 1));
  const Vec2 centred = (large == sweep ? -root : root) * Vec2{rx * p.y / ry, -ry * p.x / rx};
  const Vec2 centre = rotated(centred, turnRad) + lerp(from, to, 0.5);
  const Vec2 a{(p.x - centred.x) / rx, (p.y - centred.y) / ry}, b{(-p.x - centred.x) / rx, (-p.y - centred.y) / ry};
  const double start = std::atan2(a.y, a.x);
  double sweepRad = angleBetween(a, b);
  if (sweep && sweepRad < 0) sweepRad += 2 * std::numbers::pi;
  if (!sweep && sweepRad > 0) sweepRad -= 2 * std::numbers::pi;
  const int parts = std::max(1, static_cast<int>(std::ceil(std::abs(sweepRad) / (std::numbers::pi / 2) - 1e-9)));
  const double step = sweepRad / parts, handle = 4.0 / 3 * std::tan(step / 4);
  const auto at = [&](double angle, double along) {
    const Vec2 on{std::cos(angle), std::sin(angle)}, off = on + along * Vec2{-on.y, on.x};
    return centre + rotated({rx * off.x, ry * off.y}, turnRad);
  };
  std::vector<Cubic> cubics;
  for (int i = 0; i < parts; ++i) {
    const double u = start + step * i, v = u + step;
    cubics.push_back({at(u, 0), at(u, handle), at(v, -handle), at(v, 0)});
  }
  cubics.front().p0 = from;
  cubics.back().p3 = to;
  for (size_t i = 0; i + 1 < cubics.size(); ++i) cubics[i].p3 = cubics[i + 1].p0;
  return cubics;
}

}  // namespace armure
