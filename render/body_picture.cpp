#include "render/body_picture.h"

#include <QPainter>
#include <algorithm>
#include <cmath>
#include <limits>

#include "measure/measure_table.h"
#include "render/in_space.h"

namespace armure {
namespace {

constexpr float kNothing = -std::numeric_limits<float>::infinity();
constexpr double kPressedIn = 8;  // mm: so far under the skin as it is told cloth is still in front of it
constexpr double kLineLift = 5;   // mm: lines lie on the cloth
constexpr double kMargin = 26;    // pixels
constexpr double kAboveBust = 2.6, kBelowUnderbust = 1;  // seen from near, in heights from bust to underbust
constexpr double kFinger = 14;                           // pixels
constexpr double kClear = 0.55;                          // how much of clear cloth is seen

QColor mixed(const QColor& a, const QColor& b, double part) {
  const auto mix = [&](float x, float y) { return static_cast<float>(x + (y - x) * part); };
  return QColor::fromRgbF(mix(a.redF(), b.redF()), mix(a.greenF(), b.greenF()), mix(a.blueF(), b.blueF()));
}

// Sums of what the triangles round a point stand square to.
std::vector<Vec3> normalsOf(const ClothPicture& cloth) {
  std::vector<Vec3> all(cloth.points.size());
  for (const ClothPicture::Triangle& t : cloth.triangles) {
    const auto p = [&](size_t i) { return cloth.points[static_cast<size_t>(t.corners[i])]; };
    Vec3 n = normalOf(p(0), p(1), p(2));
    // Outwards: away from the upright through the body's middle.
    if (n.x * p(0).x + n.z * p(0).z < 0) n = {-n.x, -n.y, -n.z};
    for (const int v : t.corners) all[static_cast<size_t>(v)] = plus(all[static_cast<size_t>(v)], n);
  }
  return all;
}

}  // namespace

QColor ColourScale::at(double value) const {
  const double t = std::clamp((value - least) / (most - least), 0.0, 1.0);
  return t < 0.5 ? mixed(low, middle, 2 * t) : mixed(middle, high, 2 * t - 1);
}

ColourScale scaleOf(ClothColour colour, const Theme& theme) {
  switch (colour) {
    case ClothColour::Cloth:
      return {0, 1, "", theme.tint, theme.tint, theme.tint};
    case ClothColour::Pressure:
      return {0, 6, "pressure, kPa", theme.paper, theme.tape, theme.attention};
    case ClothColour::StandOff:
      return {-12, 12, "off the body, mm; less than nothing: pressed in", theme.working, theme.paper, theme.attention};
    case ClothColour::Stretch:
      return {0, 4, "stretch, %", theme.paper, theme.tape, theme.working};
  }
  return {};
}

std::optional<double> valueOf(const ClothPicture& cloth, int point, ClothColour colour) {
  const auto i = static_cast<size_t>(point);
  switch (colour) {
    case ClothColour::Cloth:
      return std::nullopt;
    case ClothColour::Pressure:
      return cloth.pressure[i];
    case ClothColour::StandOff:
      return cloth.off[i];
    case ClothColour::Stretch:
      return 100 * cloth.stretch[i];
  }
  return std::nullopt;
}

BodyPicture::BodyPicture(const TryOn& tried, const BodyLook& look, const Theme& theme, QSize size)
    : turn_(look.turn), tilt_(look.tilt), width_(std::max(1, size.width())), height_(std::max(1, size.height())) {
  const auto count = static_cast<size_t>(width_) * static_cast<size_t>(height_);
  bodyDepth_.assign(count, kNothing);
  clothDepth_.assign(count, kNothing);
  bodyPixels_.assign(count, 0);
  clothPixels_.assign(count, 0);
  fit(tried, look.near);
  for (const Vec3& p : tried.cloth.points) points_.push_back({onScreen(p, false), onScreen(p, true)});
  drawBody(tried.skin, theme);
  drawCloth(tried, look, theme);
  compose(theme, look.clear);
  drawLines(tried.cloth, theme);
}

// The same scale from every side.
void BodyPicture::fit(const TryOn& tried, bool near) {
  double top = 1e9, bottom = -1e9, front = -1e9, back = 1e9, wide = 1;
  for (const std::vector<Vec3>* all : {&tried.skin.points, &tried.cloth.points})
    for (const Vec3& p : *all) {
      top = std::min(top, p.y);
      bottom = std::max(bottom, p.y);
      front = std::max(front, p.z);
      back = std::min(back, p.z);
      wide = std::max(wide, std::abs(p.x));
    }
  const LevelSeat *bust = tried.level(level::kBust), *under = tried.level(level::kUnderbust);
  if (near && bust && under) {
    top = bust->y - kAboveBust * (under->y - bust->y);
    bottom = under->y + kBelowUnderbust * (under->y - bust->y);
  }
  middleY_ = (top + bottom) / 2;
  middleZ_ = (front + back) / 2;
  const double across = std::max(2 * wide, front - back);
  scale_ =
      std::max(0.05, std::min((height_ - 2 * kMargin) / std::max(1.0, bottom - top), (width_ - 2 * kMargin) / across));
}

BodyPicture::Screen BodyPicture::onScreen(const Vec3& p, bool mirrored) const {
  const Vec3 seen = turned({mirrored ? -p.x : p.x, p.y - middleY_, p.z - middleZ_}, turn_, tilt_);
  return {width_ / 2.0 + scale_ * seen.x, height_ / 2.0 + scale_ * seen.y, seen.z};
}

// From above on the left, in front. What looks away, the inside of the cloth seen over its edge, is dark.
double BodyPicture::lightOn(const Vec3& normal) const {
  constexpr double kAway = -0.05, kDark = -0.5;
  const Vec3 n = turned(normal, turn_, 0);
  const double size = std::max(1e-9, lengthOf(n));
  return n.z < kAway * size ? kDark : (-0.35 * n.x - 0.3 * n.y + 0.88 * n.z) / size;
}

double BodyPicture::heightOf(double y) const { return onScreen({0, y, middleZ_}, false).y; }

// Colours run evenly over a triangle; what lies nearer stays.
void BodyPicture::fill(const std::array<Screen, 3>& c, const std::array<QColor, 3>& colours, std::vector<float>& depths,
                       std::vector<QRgb>& pixels) {
  const double area = (c[1].x - c[0].x) * (c[2].y - c[0].y) - (c[2].x - c[0].x) * (c[1].y - c[0].y);
  if (std::abs(area) < 1e-6) return;
  const auto low = [](double a, double b, double d) { return static_cast<int>(std::floor(std::min({a, b, d}))); };
  const auto high = [](double a, double b, double d) { return static_cast<int>(std::ceil(std::max({a, b, d}))); };
  const int x0 = std::max(0, low(c[0].x, c[1].x, c[2].x)), x1 = std::min(width_ - 1, high(c[0].x, c[1].x, c[2].x));
  const int y0 = std::max(0, low(c[0].y, c[1].y, c[2].y)), y1 = std::min(height_ - 1, high(c[0].y, c[1].y, c[2].y));
  std::array<std::array<double, 3>, 3> rgb{};
  for (size_t i = 0; i < 3; ++i)
    rgb[i] = {255.0 * colours[i].redF(), 255.0 * colours[i].greenF(), 255.0 * colours[i].blueF()};
  for (int y = y0; y <= y1; ++y)
    for (int x = x0; x <= x1; ++x) {
      const double px = x + 0.5, py = y + 0.5;
      const double a = ((c[1].x - px) * (c[2].y - py) - (c[2].x - px) * (c[1].y - py)) / area;
      const double b = ((c[2].x - px) * (c[0].y - py) - (c[0].x - px) * (c[2].y - py)) / area;
      const double d = 1 - a - b;
      constexpr double kEdge = -1e-9;
      if (a < kEdge || b < kEdge || d < kEdge) continue;
      const auto z = static_cast<float>(a * c[0].z + b * c[1].z + d * c[2].z);
      const size_t at = static_cast<size_t>(y) * static_cast<size_t>(width_) + static_cast<size_t>(x);
      if (z <= depths[at]) continue;
      depths[at] = z;
      const auto channel = [&](size_t k) { return static_cast<int>(a * rgb[0][k] + b * rgb[1][k] + d * rgb[2][k]); };
      pixels[at] = qRgb(channel(0), channel(1), channel(2));
    }
}

void BodyPicture::drawBody(const SkinPicture& skin, const Theme& theme) {
  if (skin.columns < 2) return;
  const QColor base = mixed(theme.hairline, theme.linen, 0.35);
  const size_t rows = skin.points.size() / skin.columns;
  std::vector<Screen> at;
  std::vector<QColor> colours;
  for (const Vec3& p : skin.points) at.push_back(onScreen(p, false));
  for (size_t i = 0; i < skin.points.size(); ++i) {
    const size_t row = i / skin.columns, column = i % skin.columns;
    const size_t left = column > 0 ? i - 1 : i + skin.columns - 2,
                 right = column + 1 < skin.columns ? i + 1 : i - (skin.columns - 2);
    const size_t up = row > 0 ? i - skin.columns : i, down = row + 1 < rows ? i + skin.columns : i;
    Vec3 n = crossOf(minus(skin.points[right], skin.points[left]), minus(skin.points[down], skin.points[up]));
    if (n.x * skin.points[i].x + n.z * skin.points[i].z < 0) n = {-n.x, -n.y, -n.z};
    colours.push_back(shaded(base, lightOn(n)));
  }
  for (size_t row = 0; row + 1 < rows; ++row)
    for (size_t column = 0; column + 1 < skin.columns; ++column) {
      const size_t a = row * skin.columns + column, b = a + 1, c = a + skin.columns, d = c + 1;
      fill({at[a], at[b], at[c]}, {colours[a], colours[b], colours[c]}, bodyDepth_, bodyPixels_);
      fill({at[b], at[d], at[c]}, {colours[b], colours[d], colours[c]}, bodyDepth_, bodyPixels_);
    }
}

void BodyPicture::drawCloth(const TryOn& tried, const BodyLook& look, const Theme& theme) {
  const ClothPicture& cloth = tried.cloth;
  const ColourScale scale = scaleOf(look.colour, theme);
  const std::vector<Vec3> normals = normalsOf(cloth);
  for (const bool mirrored : {false, true}) {
    std::vector<double> light;
    for (const Vec3& n : normals) {
      light.push_back(lightOn({mirrored ? -n.x : n.x, n.y, n.z}));
    }
    for (const ClothPicture::Triangle& t : cloth.triangles) {
      std::array<Screen, 3> corners;
      std::array<QColor, 3> colours;
      for (size_t i = 0; i < 3; ++i) {
        const int v = t.corners[i];
        corners[i] = points_[static_cast<size_t>(v)][mirrored];
        const auto value = valueOf(cloth, v, look.colour);
        const QColor base = value ? scale.at(*value) : t.piece % 2 == 0 ? theme.tint : theme.tintDeep;
        colours[i] = shaded(base, light[static_cast<size_t>(v)]);
      }
      fill(corners, colours, clothDepth_, clothPixels_);
    }
  }
}

void BodyPicture::compose(const Theme& theme, bool clear) {
  image_ = QImage(width_, height_, QImage::Format_RGB32);
  image_.fill(theme.paper);
  for (int y = 0; y < height_; ++y) {
    auto* line = reinterpret_cast<QRgb*>(image_.scanLine(y));
    for (int x = 0; x < width_; ++x) {
      const size_t at = static_cast<size_t>(y) * static_cast<size_t>(width_) + static_cast<size_t>(x);
      const bool body = bodyDepth_[at] > kNothing;
      const bool cloth = clothDepth_[at] > kNothing && clothDepth_[at] > bodyDepth_[at] - kPressedIn;
      if (body) line[x] = bodyPixels_[at];
      if (!cloth) continue;
      const QColor over = QColor(clothPixels_[at]);
      line[x] = clear && body ? mixed(QColor(line[x]), over, kClear).rgb() : over.rgb();
    }
  }
}

bool BodyPicture::isSeen(const Screen& s) const {
  const int x = static_cast<int>(s.x), y = static_cast<int>(s.y);
  if (x < 0 || y < 0 || x >= width_ || y >= height_) return false;
  const size_t at = static_cast<size_t>(y) * static_cast<size_t>(width_) + static_cast<size_t>(x);
  return s.z > clothDepth_[at] - kLineLift && s.z > bodyDepth_[at] - kPressedIn - kLineLift;
}

void BodyPicture::drawLines(const ClothPicture& cloth, const Theme& theme) {
  QPainter p(&image_);
  p.setRenderHint(QPainter::Antialiasing);
  for (const auto& [lines, width] : {std::pair{&cloth.seams, 1.0}, {&cloth.edges, 1.8}}) {
    p.setPen(QPen(theme.ink, width, Qt::SolidLine, Qt::RoundCap));
    for (const std::vector<int>& line : *lines)
      for (size_t i = 0; i + 1 < line.size(); ++i)
        for (const size_t half : {0, 1}) {
          const Screen &a = points_[static_cast<size_t>(line[i])][half],
                       &b = points_[static_cast<size_t>(line[i + 1])][half];
          if (isSeen(a) && isSeen(b)) p.drawLine(QPointF(a.x, a.y), QPointF(b.x, b.y));
        }
  }
}

std::optional<int> BodyPicture::pointAt(QPointF place) const {
  std::optional<int> nearest;
  double least = kFinger * kFinger;
  for (size_t i = 0; i < points_.size(); ++i)
    for (const Screen& s : points_[i]) {
      const double dx = s.x - place.x(), dy = s.y - place.y(), d = dx * dx + dy * dy;
      if (d >= least || !isSeen(s)) continue;
      least = d;
      nearest = static_cast<int>(i);
    }
  return nearest;
}

std::optional<QPointF> BodyPicture::placeOf(int point) const {
  if (point < 0 || static_cast<size_t>(point) >= points_.size()) return std::nullopt;
  for (const Screen& s : points_[static_cast<size_t>(point)])
    if (isSeen(s)) return QPointF(s.x, s.y);
  return std::nullopt;
}

}  // namespace armure
