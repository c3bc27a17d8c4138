#include "tryon/sewn_pattern.h"

#include <algorithm>
#include <cmath>
#include <functional>

#include "sheet/measure.h"

namespace armure {
namespace {

constexpr double kSame = 0.5;  // mm: places nearer than this are one

}  // namespace

bool isWorn(const Piece& p) {
  if (p.layer != "shell") return false;
  switch (p.part) {
    case Part::Panel:
    case Part::Cup:
    case Part::CupBand:
    case Part::CupCover:
    case Part::Yoke:
    case Part::Insert:
      return true;
    case Part::Skirt:
    case Part::ShoulderBand:
    case Part::Strap:
    case Part::Modesty:
    case Part::Pad:
    case Part::Trim:
      return false;
  }
  return false;
}

namespace {

size_t lineNumber(const Piece& p, const std::string& edge) {
  for (size_t i = 0; i < p.lines(); ++i)
    if (p.lineAt(i).id == edge) return i;
  return p.lines();
}

// Where vertices are to lie on a stretch, its ends included: as far apart as each place asks for.
std::vector<double> spacedPlaces(double length, const std::function<double(double)>& spacingAt) {
  constexpr double kLook = 4;  // mm
  const int looks = std::max(1, static_cast<int>(std::ceil(length / kLook)));
  const double step = length / looks;
  std::vector<double> sums{0};  // of vertices, up to there
  for (int i = 0; i < looks; ++i) sums.push_back(sums.back() + step / spacingAt(step * (i + 0.5)));
  const int parts = std::max(1, static_cast<int>(std::round(sums.back())));
  std::vector<double> places{0};
  size_t look = 1;
  for (int k = 1; k < parts; ++k) {
    const double wanted = sums.back() * k / parts;
    while (sums[look] < wanted) ++look;
    places.push_back(step * (static_cast<double>(look) - (sums[look] - wanted) / (sums[look] - sums[look - 1])));
  }
  places.push_back(length);
  return places;
}

// What each piece is meshed with.
class SpacingByPiece {
 public:
  SpacingByPiece(double plain, const SewnPattern::Spacings& otherwise) : plain_(plain), otherwise_(otherwise) {}
  const MeshSpacing& of(size_t piece) const {
    const auto found = otherwise_.find(piece);
    return found != otherwise_.end() ? found->second : plain_;
  }

 private:
  const MeshSpacing plain_;
  const SewnPattern::Spacings& otherwise_;
};

using LineKey = std::pair<size_t, size_t>;  // piece of the pattern, its line
struct Sample {
  LineKey line;
  double at = 0;  // along the line
};

// The places of both sides of a seam that are sewn to each other, as parts of the stretch they lie in.
class SeamSamples {
 public:
  SeamSamples(const Pattern& pattern, const Seam& seam, const SpacingByPiece& spacings)
      : pattern_(pattern), spacings_(spacings) {
    const MeasuredSeam m = measureSeam(pattern, seam);
    double a = 0, b = 0;
    for (const MeasuredStretch& s : m.stretches) {
      std::vector<double> parts{0, 1};
      addJoints(seam.a, a, s.lengthA, parts);
      addJoints(seam.b, b, s.lengthB, parts);
      std::sort(parts.begin(), parts.end());
      const double length = std::max(s.lengthA, s.lengthB);
      std::vector<double> apart{parts.front()};
      for (const double p : parts)
        if ((p - apart.back()) * length > kSame) apart.push_back(p);
      apart.back() = 1;
      for (size_t i = 0; i + 1 < apart.size(); ++i) {
        const std::vector<double> places = spacedPlaces((apart[i + 1] - apart[i]) * length, [&](double at) {
          const double part = apart[i] + at / length;
          return std::min(spacingAt(seam.a, a + part * s.lengthA), spacingAt(seam.b, b + part * s.lengthB));
        });
        for (size_t k = 0; k + 1 < places.size(); ++k) add(seam, a, b, s, apart[i] + places[k] / length);
      }
      a += s.lengthA;
      b += s.lengthB;
    }
    if (!m.stretches.empty())
      add(seam, a - m.stretches.back().lengthA, b - m.stretches.back().lengthB, m.stretches.back(), 1);
  }

  const std::vector<Sample>& a() const { return a_; }
  const std::vector<Sample>& b() const { return b_; }

 private:
  // Where two edges of a side meet within a stretch.
  void addJoints(const SeamSide& side, double from, double length, std::vector<double>& parts) const {
    double at = 0;
    for (size_t i = 0; i + 1 < side.chain.size(); ++i) {
      at += pattern_.pieces[side.piece].edge(side.chain[i].edge).path.length();
      if (at > from + kSame && at < from + length - kSame) parts.push_back((at - from) / length);
    }
  }
  double spacingAt(const SeamSide& side, double along) const {
    const MeshSpacing& spacing = spacings_.of(side.piece);
    if (!(spacing.fine < spacing.plain)) return spacing.plain;
    const Anchor place = pattern_.placeOnSide(side, along);
    return spacing.at(pattern_.pieces[side.piece].edge(place.edge).path.pointAt(place.at));
  }
  void add(const Seam& seam, double a, double b, const MeasuredStretch& s, double part) {
    a_.push_back(placed(seam.a, a + part * s.lengthA));
    b_.push_back(placed(seam.b, b + part * s.lengthB));
  }
  Sample placed(const SeamSide& side, double along) const {
    const Piece& p = pattern_.pieces[side.piece];
    const Anchor place = pattern_.placeOnSide(side, along);
    const double length = p.edge(place.edge).path.length();
    const double at = place.at < kSame ? 0 : place.at > length - kSame ? length : place.at;
    return {{side.piece, lineNumber(p, place.edge)}, at};
  }

  const Pattern& pattern_;
  const SpacingByPiece& spacings_;
  std::vector<Sample> a_, b_;
};

// The lines round a piece with its open darts slit open, in order.
std::vector<size_t> roundOf(const Piece& p) {
  std::vector<size_t> all{0};
  // Line 0 may be a mouth, which the slit outline does not run along.
  const auto isMouth = [&](size_t i) {
    return i < p.edges.size() &&
           std::any_of(p.darts.begin(), p.darts.end(), [&](const Dart& d) { return d.mouth == p.edges[i].id; });
  };
  while (isMouth(all[0])) ++all[0];
  for (size_t i = p.next(all[0]); i != all[0] && all.size() <= p.lines(); i = p.next(i)) all.push_back(i);
  return all;
}

// Meshes the pieces one by one, then sews them.
class PatternSewing {
 public:
  PatternSewing(const Pattern& pattern, double spacing, const SewnPattern::Spacings& otherwise)
      : pattern_(pattern), spacings_(spacing, otherwise) {
    for (const Seam& s : pattern.seams) {
      if (!isWorn(pattern.pieces[s.a.piece]) || !isWorn(pattern.pieces[s.b.piece])) continue;
      const SeamSamples& samples = seams_.emplace_back(pattern, s, spacings_);
      for (const auto* side : {&samples.a(), &samples.b()})
        for (const Sample& one : *side) sewnAt_[one.line].push_back(one.at);
    }
    for (size_t i = 0; i < pattern.pieces.size(); ++i)
      if (isWorn(pattern.pieces[i])) addPiece(i);
    for (const SeamSamples& s : seams_) sew(s);
  }

  SewnMesh mesh() const { return sewing_.done(); }
  const std::vector<size_t>& pieces() const { return pieces_; }
  std::vector<SewnPattern::Line> lines(const SewnMesh& mesh) const {
    std::vector<SewnPattern::Line> all;
    for (const auto& [key, places] : vertices_) {
      const Edge& edge = pattern_.pieces[key.first].lineAt(key.second);
      SewnPattern::Line line{key.first, edge.id, edge.role, {}, {}};
      for (const auto& [at, vertex] : places) {
        line.at.push_back(at);
        line.vertices.push_back(mesh.vertexOf(vertex));
      }
      all.push_back(std::move(line));
    }
    return all;
  }

 private:
  // Where a line has vertices, from its start to its end: as its seam asks, else evenly.
  std::vector<double> placesOn(const LineKey& key, const Path& path) const {
    const double length = path.length();
    const auto found = sewnAt_.find(key);
    const auto spacingAt = [&](double at) { return spacings_.of(key.first).at(path.pointAt(at)); };
    if (found == sewnAt_.end()) return spacedPlaces(length, spacingAt);
    std::vector<double> places{0};
    std::vector<double> between = found->second;
    std::sort(between.begin(), between.end());
    for (const double at : between)
      if (at - places.back() >= kSame / 2 && length - at >= kSame / 2) places.push_back(at);
    places.push_back(length);
    return places;
  }

  void addPiece(size_t i) {
    const Piece& p = pattern_.pieces[i];
    const int number = static_cast<int>(pieces_.size());
    std::vector<Vec2> outline;
    std::vector<LineKey> order;
    for (const size_t line : roundOf(p)) {
      const Path& path = p.lineAt(line).path;
      const std::vector<double> places = placesOn({i, line}, path);
      for (size_t k = 0; k + 1 < places.size(); ++k) {  // the end is the next line's start
        vertices_[{i, line}].push_back({places[k], {number, static_cast<int>(outline.size())}});
        outline.push_back(path.pointAt(places[k]));
      }
      order.push_back({i, line});
    }
    for (size_t k = 0; k < order.size(); ++k)
      vertices_[order[k]].push_back(
          {p.lineAt(order[k].second).path.length(), vertices_[order[(k + 1) % order.size()]].front().second});
    pieces_.push_back(i);
    sewing_.add(meshOutline(outline, spacings_.of(i)));
  }

  void sew(const SeamSamples& samples) {
    for (size_t i = 0; i < samples.a().size(); ++i) {
      const auto a = nearestTo(samples.a()[i]), b = nearestTo(samples.b()[i]);
      if (a && b) sewing_.sew(*a, *b);
    }
  }

  std::optional<PieceVertex> nearestTo(const Sample& s) const {
    const auto found = vertices_.find(s.line);
    if (found == vertices_.end()) return std::nullopt;
    const auto nearest = std::min_element(
        found->second.begin(), found->second.end(),
        [&](const auto& x, const auto& y) { return std::abs(x.first - s.at) < std::abs(y.first - s.at); });
    return nearest->second;
  }

  const Pattern& pattern_;
  const SpacingByPiece spacings_;
  std::vector<SeamSamples> seams_;
  std::map<LineKey, std::vector<double>> sewnAt_;
  std::map<LineKey, std::vector<std::pair<double, PieceVertex>>> vertices_;  // by line, from its start to its end
  std::vector<size_t> pieces_;
  Sewing sewing_;
};

}  // namespace

SewnPattern::SewnPattern(const Pattern& pattern, double spacing, const Spacings& otherwise) {
  const PatternSewing sewing(pattern, spacing, otherwise);
  mesh_ = sewing.mesh();
  lines_ = sewing.lines(mesh_);
  pieces_ = sewing.pieces();
}

std::optional<SewnPattern::Spot> SewnPattern::spot(size_t piece, const Anchor& anchor) const {
  for (const Line& l : lines_) {
    if (l.piece != piece || l.edge != anchor.edge) continue;
    const auto above = std::upper_bound(l.at.begin(), l.at.end(), anchor.at);
    const size_t i = std::clamp<size_t>(static_cast<size_t>(above - l.at.begin()), 1, l.at.size() - 1);
    return Spot{l.vertices[i - 1], l.vertices[i],
                std::clamp((anchor.at - l.at[i - 1]) / (l.at[i] - l.at[i - 1]), 0.0, 1.0)};
  }
  return std::nullopt;
}

}  // namespace armure
