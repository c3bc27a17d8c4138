#include "parts/bones/eyelets.h"

#include <algorithm>
#include <cmath>
#include <stdexcept>

#include "parts/bones/bones.h"

namespace armure {
namespace {

constexpr double kEyeletsFromEnds = inches(0.5);  // the first and the last stand so far from the ends of the edge
constexpr double kBesideWaist = inches(2);        // so far up and down they stand closer
constexpr double kCountedEvery = 0.5;             // mm

bool isLooped(OpeningKind kind) { return kind == OpeningKind::Loops || kind == OpeningKind::VLoops; }

// The edges of an opening on one piece, as one path that runs down.
struct LacedEdge {
  std::string first;
  Path path;
  bool clothOnRight = true;
};
std::optional<LacedEdge> lacedEdge(const Piece& p) {
  LacedEdge laced;
  const size_t n = p.edges.size();
  size_t start = n;
  for (size_t i = 0; i < n; ++i)
    if (p.edges[i].role == EdgeRole::Opening && p.edges[(i + n - 1) % n].role != EdgeRole::Opening) start = i;
  if (start == n) return std::nullopt;
  for (size_t k = 0; k < n && p.edges[(start + k) % n].role == EdgeRole::Opening; ++k) {
    const Path& path = p.edges[(start + k) % n].path;
    laced.path = laced.path.empty() ? path : laced.path + path;
  }
  laced.first = p.edges[start].id;
  laced.clothOnRight = laced.path.end().y > laced.path.start().y;  // a back's centre runs down, a front's up
  if (!laced.clothOnRight) laced.path = laced.path.reversed();
  return laced;
}

// Along an edge: as many as its spacing gives, evenly by it.
std::vector<double> placesAlong(double length, std::optional<double> waist, const Rules& rules) {
  const double wide = rules.length(key::kEyeletsApart), close = rules.length(key::kEyeletsWaist);
  const double from = std::min(kEyeletsFromEnds, length / 4), to = length - from;
  const auto perMm = [&](double s) { return 1 / (waist && std::abs(s - *waist) <= kBesideWaist ? close : wide); };
  std::vector<double> counted{0};  // at every step, how many spaces lie above it
  const auto steps = static_cast<size_t>(std::ceil((to - from) / kCountedEvery));
  const double step = (to - from) / static_cast<double>(steps);
  for (size_t i = 0; i < steps; ++i)
    counted.push_back(counted.back() + step * perMm(from + (static_cast<double>(i) + 0.5) * step));
  const double spaces = std::max(1.0, std::round(counted.back()));
  std::vector<double> places;
  for (double k = 0; k <= spaces; ++k) {
    const double wanted = counted.back() * k / spaces;
    const auto above = std::lower_bound(counted.begin() + 1, counted.end() - 1, wanted);
    const auto i = static_cast<double>(above - counted.begin());
    const double part = (wanted - *(above - 1)) / (*above - *(above - 1));
    places.push_back(from + (i - 1 + part) * step);
  }
  return places;
}

}  // namespace

bool isLaced(OpeningKind kind) { return kLacedBehind.holdsFor(static_cast<int>(kind)); }

double firstChannelFromEdge(OpeningKind kind) {
  const bool zip = kind == OpeningKind::Zip || kind == OpeningKind::ZipLaced;
  return zip ? inches(0.25) : 0;  // clear of its tape
}

double eyeletsFromEdge(OpeningKind kind, const Rules& rules) {
  constexpr double kClear = inches(3.0 / 16);  // from the channel to the middle of an eyelet
  const double chosen = rules.length(key::kEyeletsEdge);
  if (rules.option(key::kBonesAre) == BonesAre::None) return chosen;
  return std::max(chosen, firstChannelFromEdge(kind) + channelWidth(rules) + kClear);
}

std::vector<EyeletRow> eyeletsOf(const Pattern& pattern, const Block& block, const Rules& rules) {
  std::vector<EyeletRow> rows;
  for (size_t i = 0; i < pattern.shellPieces(); ++i) {
    const Piece& p = pattern.pieces[i];
    const OpeningKind kind = p.half == Half::Front ? block.front.opening.kind : block.back.opening.kind;
    if (p.part != Part::Panel || !isLaced(kind)) continue;
    const auto laced = lacedEdge(p);
    if (!laced) continue;
    EyeletRow row{i, laced->first, isLooped(kind), {}, laced->path.length(), 0};
    if (!row.loops) row.aside = eyeletsFromEdge(kind, rules);
    std::optional<double> waist;
    if (const auto line = p.level(level::kWaist))
      if (const auto met = laced->path.crossings(line->a, line->b - line->a); !met.empty()) waist = met.front();
    for (const double s : placesAlong(row.length, waist, rules)) {
      const Vec2 t = laced->path.tangentAt(s), in = laced->clothOnRight ? Vec2{-t.y, t.x} : Vec2{t.y, -t.x};
      row.places.push_back(laced->path.pointAt(s) + row.aside * in);
    }
    rows.push_back(std::move(row));
  }
  return rows;
}

double laceLength(const EyeletRow& row, const Rules& rules) {
  if (row.places.size() < 2) throw std::invalid_argument("a lace needs two rows of holes at least");
  const auto rows = static_cast<double>(row.places.size());
  const double apart = (row.length - 2 * std::min(kEyeletsFromEnds, row.length / 4)) / (rows - 1);
  const double across = rules.length(key::kLaceOpened) + 2 * row.aside;
  return 2 * rows * std::hypot(across, apart) + rules.length(key::kLaceEnds);
}

}  // namespace armure
