#include "bench/nest_reference.h"

#define LIBNEST2D_GEOMETRIES_clipper
#define LIBNEST2D_OPTIMIZER_nlopt
#define LIBNEST2D_THREADING_std
#include <algorithm>
#include <chrono>
#include <libnest2d/libnest2d.hpp>

double nestedLength(const std::vector<std::vector<std::pair<long long, long long>>>& rings, bool eitherWay,
                    long long width, long long length, double seconds) {
  using namespace libnest2d;
  using Clock = std::chrono::steady_clock;
  const auto end = Clock::now() + std::chrono::duration<double>(seconds);
  std::vector<Item> items;
  for (const auto& ring : rings) {
    ClipperLib::Path path;
    for (const auto& [x, y] : ring) path.emplace_back(x, y);
    if (ClipperLib::Orientation(path)) std::reverse(path.begin(), path.end());
    path.push_back(path.front());
    items.emplace_back(PolygonImpl(path));
  }
  NestConfig<NfpPlacer, FirstFitSelection> config;
  config.placer_config.rotations = eitherWay ? std::vector<Radians>{0.0, Pi} : std::vector<Radians>{0.0};
  config.placer_config.starting_point = NfpPlacer::Config::Alignment::BOTTOM_LEFT;
  config.placer_config.alignment = NfpPlacer::Config::Alignment::DONT_ALIGN;
  // Little of the length, and within the strip.
  config.placer_config.object_function = [&](const Item& item) {
    const auto box = item.boundingBox();
    const bool outside = box.minCorner().Y < 0 || box.maxCorner().Y > width || box.minCorner().X < 0;
    return double(box.maxCorner().X) / length + 1e-2 * double(box.minCorner().X) / length +
           1e-3 * double(box.minCorner().Y) / width + (outside ? 10 : 0);
  };
  nest<NfpPlacer, FirstFitSelection>(items, Box(length, width, {length / 2, width / 2}), 0, config,
                                     NestControl([&] { return Clock::now() > end; }));
  double first = 1e300, last = -1e300, low = 1e300, high = -1e300;
  for (const Item& item : items) {
    if (item.binId() != 0) return -1;
    const auto box = item.boundingBox();
    first = std::min(first, double(box.minCorner().X));
    last = std::max(last, double(box.maxCorner().X));
    low = std::min(low, double(box.minCorner().Y));
    high = std::max(high, double(box.maxCorner().Y));
  }
  return high - low > double(width) * (1 + 1e-6) ? -1 : last - first;
}
