#include "parts/cups/standing.h"

#include <algorithm>
#include <boost/polygon/voronoi.hpp>
#include <cmath>
#include <map>
#include <set>

#include "operations/crossing.h"
#include "pattern/outline_parts.h"

namespace armure {
namespace {

Vec3 operator+(Vec3 a, Vec3 b) { return {a.x + b.x, a.y + b.y, a.z + b.z}; }
Vec3 operator-(Vec3 a, Vec3 b) { return {a.x - b.x, a.y - b.y, a.z - b.z}; }
Vec3 operator*(double s, Vec3 a) { return {s * a.x, s * a.y, s * a.z}; }
double length(Vec3 a) { return std::sqrt(a.x * a.x + a.y * a.y + a.z * a.z); }
Vec3 crossed(Vec3 a, Vec3 b) { return {a.y * b.z - a.z * b.y, a.z * b.x - a.x * b.z, a.x * b.y - a.y * b.x}; }

// The pieces of the cup alone, with the seams between them.
struct CupPieces {
  Pattern pattern;
  std::vector<size_t> place;  // in the whole pattern
};

CupPieces cupPieces(const Pattern& pattern) {
  CupPieces cup;
  std::map<size_t, size_t> at;
  for (size_t i = 0; i < pattern.pieces.size(); ++i) {
    const Piece& p = pattern.pieces[i];
    if (!isCup(p)) continue;
    at[i] = cup.pattern.pieces.size();
    cup.pattern.pieces.push_back(p);
    cup.place.push_back(i);
  }
  for (Seam s : pattern.seams) {
    if (!at.contains(s.a.piece) || !at.contains(s.b.piece) || s.a.piece == s.b.piece) continue;
    s.a.piece = at.at(s.a.piece);
    s.b.piece = at.at(s.b.piece);
    cup.pattern.seams.push_back(std::move(s));
  }
  return cup;
}

// Every piece beside one it is sewn to, flat; where the sheets begin.
std::vector<Motion> layTogether(const Pattern& cup) {
  std::vector<Motion> motions(cup.pieces.size());
  std::vector<bool> lies(cup.pieces.size(), false);
  lies.front() = true;
  for (bool more = true; more;) {
    more = false;
    for (const Seam& seam : cup.seams)
      for (const auto& [from, to] : {std::pair{&seam.a, &seam.b}, {&seam.b, &seam.a}}) {
        if (!lies[from->piece] || lies[to->piece]) continue;
        motions[to->piece] = endsTogether(cup.sidePath(*from).transformed(motions[from->piece]), cup.sidePath(*to));
        lies[to->piece] = more = true;
      }
  }
  return motions;
}

class Mesher {
 public:
  Mesher(const Pattern& whole, const CupPieces& cup, double spacing)
      : whole_(whole), cup_(cup.pattern), spacing_(spacing), place_(cup.place), laid_(layTogether(cup_)) {}

  StandingCup mesh() && {
    for (const Seam& s : cup_.seams) sampleSeam(s);
    for (size_t i = 0; i < cup_.pieces.size(); ++i) meshPiece(i);
    raise();
    return std::move(out_);
  }

  // Pairs of points with the distance they have in the flat cloth: sides of triangles, then points across a side.
  struct Link {
    size_t a, b;
    double rest;
  };
  std::vector<Link> sides, across;
  std::vector<bool> grounded;  // points of the cup line

 private:
  size_t addPoint(Vec2 p) {
    out_.points.push_back({p.x, p.y, 0});
    grounded_.push_back(false);
    return out_.points.size() - 1;
  }
  // The corner of a piece, shared with what is sewn there.
  size_t cornerAt(size_t piece, Vec2 p) {
    for (const auto& [at, id] : corners_[piece])
      if (distance(at, p) < 0.05) return id;
    const size_t id = addPoint(laid_[piece].apply(p));
    corners_[piece].emplace_back(p, id);
    return id;
  }
  void shareCorner(size_t a, Vec2 pa, size_t b, Vec2 pb) {
    const size_t ia = cornerAt(a, pa);
    for (auto& [at, id] : corners_[b])
      if (distance(at, pb) < 0.05) {
        if (id != ia) merged_[id] = ia;
        id = ia;
        return;
      }
    corners_[b].emplace_back(pb, ia);
  }

  // Both sides of a seam get the same points, in the same parts of their lengths.
  void sampleSeam(const Seam& seam) {
    const Path a = cup_.sidePath(seam.a), b = cup_.sidePath(seam.b);
    const int n = std::max(2, static_cast<int>(std::lround(a.length() / spacing_)));
    shareCorner(seam.a.piece, a.start(), seam.b.piece, b.start());
    shareCorner(seam.a.piece, a.end(), seam.b.piece, b.end());
    std::vector<size_t> line{cornerAt(seam.a.piece, a.start())};
    for (int i = 1; i < n; ++i) {
      const double part = static_cast<double>(i) / n;
      const Vec2 pa = a.pointAt(part * a.length()), pb = b.pointAt(part * b.length());
      const size_t id = addPoint(lerp(laid_[seam.a.piece].apply(pa), laid_[seam.b.piece].apply(pb), 0.5));
      rim_[seam.a.piece].emplace_back(pa, id);
      rim_[seam.b.piece].emplace_back(pb, id);
      line.push_back(id);
    }
    line.push_back(cornerAt(seam.a.piece, a.end()));
    out_.seams.push_back(std::move(line));
    for (const SeamSide* side : {&seam.a, &seam.b})
      for (const EdgeUse& use : side->chain) sewn_.insert({side->piece, use.edge});
  }

  // The free edges of a piece: top edge and cup line.
  void sampleRim(size_t i) {
    for (const Edge& e : cup_.pieces[i].edges) {
      if (sewn_.contains({i, e.id})) continue;
      const int n = std::max(1, static_cast<int>(std::lround(e.path.length() / spacing_)));
      std::vector<size_t> line{cornerAt(i, e.path.start())};
      for (int k = 1; k < n; ++k) {
        const Vec2 p = e.path.pointAt(e.path.length() * k / n);
        const size_t id = addPoint(laid_[i].apply(p));
        rim_[i].emplace_back(p, id);
        line.push_back(id);
      }
      line.push_back(cornerAt(i, e.path.end()));
      if (e.role == EdgeRole::Cup)
        for (int k = 0; k <= n; ++k) ground(line[static_cast<size_t>(k)], i, e, e.path.length() * k / n);
      out_.edges.push_back(std::move(line));
    }
  }

  // A point of the cup line stands where the frame has it, the frame's princess seam closed.
  void ground(size_t id, size_t piece, const Edge& edge, double at) {
    grounded_[id] = true;
    for (const Seam& s : whole_.seams) {
      if (s.b.piece != place_[piece] || !s.b.uses(edge.id)) continue;
      const Path frame = whole_.sidePath(s.a);
      const double part = whole_.alongSide(s.b, {edge.id, at}) / whole_.sidePath(s.b).length();
      const Vec2 p = frameMotion(s.a.piece).apply(frame.pointAt(part * frame.length()));
      out_.points[id] = {p.x, p.y, 0};
    }
  }
  Motion frameMotion(size_t piece) const {
    for (const Seam& s : whole_.seams)
      if (s.b.piece == piece && whole_.panel(Half::Front, 1) == s.a.piece) return closedAt(whole_, s, true);
    return {};
  }

  void meshPiece(size_t i) {
    sampleRim(i);
    const Polyline outline = cup_.pieces[i].outline(0.2);
    std::vector<std::pair<Vec2, size_t>> flat = rim_[i];
    flat.insert(flat.end(), corners_[i].begin(), corners_[i].end());
    Polyline ring = outline;
    ring.push_back(outline.front());
    Vec2 low = outline.front(), high = low;
    for (Vec2 p : outline) {
      low = {std::min(low.x, p.x), std::min(low.y, p.y)};
      high = {std::max(high.x, p.x), std::max(high.y, p.y)};
    }
    const double rise = spacing_ * std::sqrt(3) / 2;
    int row = 0;
    for (double y = low.y + rise / 2; y < high.y; y += rise, ++row)
      for (double x = low.x + (row % 2 ? spacing_ / 2 : 0); x < high.x; x += spacing_) {
        const Vec2 p{x, y};
        if (contains(outline, p) && distanceToPolyline(p, ring) > 0.55 * spacing_)
          flat.emplace_back(p, addPoint(laid_[i].apply(p)));
      }
    triangulate(i, flat, outline);
  }

  void triangulate(size_t piece, const std::vector<std::pair<Vec2, size_t>>& flat, const Polyline& outline) {
    constexpr double kGrid = 1000;  // points to the mm for the integer geometry of Boost.Polygon
    using Site = boost::polygon::point_data<int>;
    std::vector<Site> sites;
    for (const auto& [p, id] : flat)
      sites.emplace_back(static_cast<int>(std::lround(p.x * kGrid)), static_cast<int>(std::lround(p.y * kGrid)));
    boost::polygon::voronoi_diagram<double> diagram;
    boost::polygon::construct_voronoi(sites.begin(), sites.end(), &diagram);
    std::map<std::pair<size_t, size_t>, size_t> opposite;  // of a side, in places of `flat`
    std::set<std::pair<size_t, size_t>> known;
    for (const auto& vertex : diagram.vertices()) {
      std::vector<size_t> round;
      const auto* e = vertex.incident_edge();
      do {
        round.push_back(e->cell()->source_index());
        e = e->rot_next();
      } while (e != vertex.incident_edge());
      for (size_t k = 1; k + 1 < round.size(); ++k)
        addTriangle(piece, flat, outline, {round[0], round[k], round[k + 1]}, known, opposite);
    }
  }

  void addTriangle(size_t piece, const std::vector<std::pair<Vec2, size_t>>& flat, const Polyline& outline,
                   std::array<size_t, 3> t, std::set<std::pair<size_t, size_t>>& known,
                   std::map<std::pair<size_t, size_t>, size_t>& opposite) {
    const Vec2 a = flat[t[0]].first, b = flat[t[1]].first, c = flat[t[2]].first;
    const double area = cross(b - a, c - a) / 2;
    if (std::abs(area) < 0.2 || !contains(outline, (a + b + c) / 3)) return;
    if (area < 0) std::swap(t[1], t[2]);
    out_.triangles.push_back({flat[t[0]].second, flat[t[1]].second, flat[t[2]].second});
    out_.pieceOf.push_back(place_[piece]);
    for (size_t k = 0; k < 3; ++k) {
      const size_t i = t[k], j = t[(k + 1) % 3], far = t[(k + 2) % 3];
      const auto side = std::minmax(i, j);
      if (known.insert(side).second) {
        sides.push_back({flat[i].second, flat[j].second, distance(flat[i].first, flat[j].first)});
        opposite[side] = far;
      } else {
        const size_t other = opposite[side];
        across.push_back({flat[far].second, flat[other].second, distance(flat[far].first, flat[other].first)});
      }
    }
  }

  // A low dome to begin with; points that were merged are followed.
  void raise() {
    const auto final = [&](size_t id) {
      while (merged_.contains(id)) id = merged_.at(id);
      return id;
    };
    for (auto& t : out_.triangles)
      for (size_t& id : t) id = final(id);
    for (auto* lines : {&out_.seams, &out_.edges})
      for (auto& line : *lines)
        for (size_t& id : line) id = final(id);
    for (auto* links : {&sides, &across})
      for (Link& l : *links) l = {final(l.a), final(l.b), l.rest};
    grounded.assign(out_.points.size(), false);
    for (size_t i = 0; i < out_.points.size(); ++i)
      if (grounded_[i]) grounded[final(i)] = true;
    Vec3 middle;
    double count = 0;
    for (const auto& t : out_.triangles)
      for (size_t id : t) middle = middle + out_.points[id], count += 1;
    middle = (1 / std::max(1.0, count)) * middle;
    double reach = 1;
    for (const auto& t : out_.triangles)
      for (size_t id : t) reach = std::max(reach, length(out_.points[id] - middle));
    for (size_t i = 0; i < out_.points.size(); ++i) {
      Vec3& p = out_.points[i];
      p = p - middle;  // the sheets begin about the middle of the frame's opening
      const double d = std::min(1.0, length(p) / reach);
      p.z = grounded[i] ? 0 : 0.5 * reach * (1 - d * d);
    }
  }

  const Pattern& whole_;
  const Pattern& cup_;
  const double spacing_;
  const std::vector<size_t>& place_;
  const std::vector<Motion> laid_;
  std::map<size_t, std::vector<std::pair<Vec2, size_t>>> corners_, rim_;
  std::map<size_t, size_t> merged_;
  std::set<std::pair<size_t, std::string>> sewn_;
  std::vector<bool> grounded_;
  StandingCup out_;
};

using Link = Mesher::Link;

void pull(std::vector<Vec3>& points, const std::vector<Link>& links, const std::vector<bool>& grounded,
          double stiffness) {
  for (const Link& l : links) {
    const Vec3 d = points[l.b] - points[l.a];
    const double now = length(d);
    const double movable = (grounded[l.a] ? 0 : 1) + (grounded[l.b] ? 0 : 1);
    if (now < 1e-9 || movable == 0) continue;
    const Vec3 by = (stiffness * (now - l.rest) / now / movable) * d;
    if (!grounded[l.a]) points[l.a] = points[l.a] + by;
    if (!grounded[l.b]) points[l.b] = points[l.b] - by;
  }
}

void settle(StandingCup& cup, const std::vector<Link>& sides, const std::vector<Link>& across,
            const std::vector<bool>& grounded) {
  constexpr int kRounds = 450, kLast = 100;
  constexpr double kPressure = 0.02, kStiff = 0.08;  // mm a round; part of a correction
  for (int round = 0; round < kRounds; ++round) {
    const bool inflating = round < kRounds - kLast;
    if (inflating) {
      std::vector<Vec3> push(cup.points.size());
      for (const auto& t : cup.triangles) {
        const Vec3 a = cup.points[t[0]], n = crossed(cup.points[t[1]] - a, cup.points[t[2]] - a);
        const double size = length(n);
        if (size < 1e-9) continue;
        for (size_t id : t) push[id] = push[id] + (kPressure / size) * n;
      }
      for (size_t i = 0; i < cup.points.size(); ++i)
        if (!grounded[i]) cup.points[i] = cup.points[i] + push[i];
      pull(cup.points, across, grounded, kStiff);
    }
    pull(cup.points, sides, grounded, 1);
  }
}

}  // namespace

StandingCup standingCup(const Pattern& pattern, double spacing) {
  const CupPieces pieces = cupPieces(pattern);
  if (pieces.place.empty()) return {};
  Mesher mesher(pattern, pieces, spacing);
  StandingCup cup = std::move(mesher).mesh();
  settle(cup, mesher.sides, mesher.across, mesher.grounded);
  for (const Link& l : mesher.sides)
    cup.strain += std::abs(length(cup.points[l.b] - cup.points[l.a]) - l.rest) / l.rest;
  cup.strain /= static_cast<double>(std::max<size_t>(1, mesher.sides.size()));
  for (const auto& t : cup.triangles)
    for (size_t id : t) cup.depth = std::max(cup.depth, cup.points[id].z);
  return cup;
}

}  // namespace armure
