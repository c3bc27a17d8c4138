#include "tryon/sewn_pattern.h"

#include <algorithm>
#include <cmath>
#include <map>

#include "sheet/measure.h"

namespace armure {
namespace {

constexpr double kSame = 0.5;  // mm: places nearer than this are one

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
      return false;
  }
  return false;
}

size_t lineNumber(const Piece& p, const std::string& edge) {
  for (size_t i = 0; i < p.lines(); ++i)
    if (p.lineAt(i).id == edge) return i;
  return p.lines();
}

using LineKey = std::pair<size_t, size_t>;  // piece of the pattern, its line
struct Sample {
  LineKey line;
  double at = 0;  // along the line
};

// The places of both sides of a seam that are sewn to each other, as parts of the stretch they lie in.
class SeamSamples {
 public:
  SeamSamples(const Pattern& pattern, const Seam& seam, double spacing) : pattern_(pattern) {
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
        const int n = std::max(1, static_cast<int>(std::round((apart[i + 1] - apart[i]) * length / spacing)));
        for (int k = 0; k < n; ++k) add(seam, a, b, s, apart[i] + (apart[i + 1] - apart[i]) * k / n);
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
  void add(const Seam& seam, double a, double b, const MeasuredStretch& s, double part) {
    a_.push_back(placed(seam.a, a + part * s.lengthA));
    b_.push_back(placed(seam.b, b + part * s.lengthB));
  }
  Sample placed(const SeamSide& side, double along) const {
    const Piece& p = pattern_.pieces[side.piece];
    for (size_t i = 0; i < side.chain.size(); ++i) {
      const EdgeUse& use = side.chain[i];
      const double length = p.edge(use.edge).path.length();
      if (along <= length + kSame || i + 1 == side.chain.size()) {
        double at = std::clamp(use.reversed ? length - along : along, 0.0, length);
        if (at < kSame) at = 0;
        if (at > length - kSame) at = length;
        return {{side.piece, lineNumber(p, use.edge)}, at};
      }
      along -= length;
    }
    return {{side.piece, p.lines()}, 0};
  }

  const Pattern& pattern_;
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

std::vector<double> evenPlaces(double length, double spacing) {
  const int parts = std::max(1, static_cast<int>(std::round(length / spacing)));
  std::vector<double> all;
  for (int i = 0; i <= parts; ++i) all.push_back(length * i / parts);
  return all;
}

}  // namespace

SewnPattern::SewnPattern(const Pattern& pattern, double spacing) {
  std::map<LineKey, std::vector<double>> sewn;
  std::vector<SeamSamples> seams;
  for (const Seam& s : pattern.seams) {
    if (!isWorn(pattern.pieces[s.a.piece]) || !isWorn(pattern.pieces[s.b.piece])) continue;
    const SeamSamples& samples = seams.emplace_back(pattern, s, spacing);
    for (const auto* side : {&samples.a(), &samples.b()})
      for (const Sample& one : *side) sewn[one.line].push_back(one.at);
  }

  Sewing sewing;
  std::map<LineKey, std::vector<std::pair<double, PieceVertex>>> vertices;
  for (size_t i = 0; i < pattern.pieces.size(); ++i) {
    const Piece& p = pattern.pieces[i];
    if (!isWorn(p)) continue;
    std::vector<Vec2> outline;
    const int number = static_cast<int>(pieces_.size());
    std::vector<LineKey> order;
    for (const size_t line : roundOf(p)) {
      const double length = p.lineAt(line).path.length();
      std::vector<double> places{0, length};
      if (const auto found = sewn.find({i, line}); found != sewn.end())
        places.insert(places.end(), found->second.begin(), found->second.end());
      else
        places = evenPlaces(length, spacing);
      std::sort(places.begin(), places.end());
      auto& mine = vertices[{i, line}];
      for (const double at : places) {
        if (!mine.empty() && at - mine.back().first < kSame / 2) continue;
        if (length - at < kSame / 2) continue;  // the end is the next line's start
        mine.push_back({at, {number, static_cast<int>(outline.size())}});
        outline.push_back(p.lineAt(line).path.pointAt(at));
      }
      order.push_back({i, line});
    }
    for (size_t k = 0; k < order.size(); ++k)
      vertices[order[k]].push_back(
          {p.lineAt(order[k].second).path.length(), vertices[order[(k + 1) % order.size()]].front().second});
    pieces_.push_back(i);
    sewing.add(meshOutline(outline, spacing));
  }

  const auto vertexAt = [&](const Sample& s) -> std::optional<PieceVertex> {
    const auto found = vertices.find(s.line);
    if (found == vertices.end()) return std::nullopt;
    const auto nearest = std::min_element(
        found->second.begin(), found->second.end(),
        [&](const auto& x, const auto& y) { return std::abs(x.first - s.at) < std::abs(y.first - s.at); });
    return nearest->second;
  };
  for (const SeamSamples& s : seams)
    for (size_t i = 0; i < s.a().size(); ++i) {
      const auto a = vertexAt(s.a()[i]), b = vertexAt(s.b()[i]);
      if (a && b) sewing.sew(*a, *b);
    }
  mesh_ = sewing.done();

  for (const auto& [key, places] : vertices) {
    const Edge& edge = pattern.pieces[key.first].lineAt(key.second);
    Line line{key.first, edge.id, edge.role, {}, {}};
    for (const auto& [at, vertex] : places) {
      line.at.push_back(at);
      line.vertices.push_back(mesh_.vertexOf(vertex));
    }
    lines_.push_back(std::move(line));
  }
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
