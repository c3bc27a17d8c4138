#include "garment/worn.h"

#include <Eigen/Cholesky>
#include <algorithm>
#include <cmath>

namespace armure {
namespace {

constexpr int kParts = 8;           // of a seam, between its nodes
constexpr double kPinned = 1e4;     // weight of what is given against what is fitted
constexpr double kMeasured = 0.02;  // weight of the width on a level
constexpr double kAside = 0.02;     // what a pair counts for across its own direction, against along it
constexpr double kSame = 1e-3;      // parts of a seam nearer than this are one

// Where the edges of a side meet, as parts of its length.
std::vector<double> cornersOf(const Pattern& pattern, const SeamSide& side) {
  const Piece& piece = pattern.pieces[side.piece];
  std::vector<double> at{0};
  for (const EdgeUse& use : side.chain) at.push_back(at.back() + piece.edge(use.edge).path.length());
  for (double& a : at) a /= std::max(at.back(), 1e-9);
  return at;
}

size_t lineOf(const Piece& piece, std::string_view id) {
  size_t i = 0;
  while (piece.lineAt(i).id != id) ++i;
  return i;
}

}  // namespace

WornHalf::WornHalf(const Pattern& pattern, const Block& block, bool front) : pattern_(pattern), front_(front) {
  const Half half = front ? Half::Front : Half::Back;
  for (size_t i = 0; i < pattern.shellPieces(); ++i) {
    const Piece& p = pattern.pieces[i];
    if (p.half != half) continue;
    pieces_.push_back(i);
    // Cut on the bias, a cover lies as it is worn.
    const Vec2 down = p.part == Part::CupCover ? Vec2{0, 1} : unit(p.grainBottom - p.grainTop);
    turned_[i] = Motion::rotationAbout(p.grainTop, angleBetween(down, {0, 1}));
  }
  layNodes();
  solve((front ? block.front : block.back).opening);
}

Vec2 WornHalf::upright(size_t piece, Vec2 p) const {
  const Vec2 q = turned_.at(piece).apply(p);
  return front_ ? q : Vec2{-q.x, q.y};  // the back lies mirrored
}

size_t WornHalf::root(size_t node) const {
  while (parent_[node] != node) node = parent_[node] = parent_[parent_[node]];
  return node;
}

void WornHalf::layNodes() {
  for (const Seam& s : pattern_.seams) laySeam(s);
  layOpenLines();
  mergeCorners();
}

// Both sides of a seam have the same nodes, at the same parts of their lengths; at every corner of either there is one.
void WornHalf::laySeam(const Seam& seam) {
  std::vector<const SeamSide*> sides;
  for (const SeamSide* side : {&seam.a, &seam.b})
    if (turned_.contains(side->piece)) sides.push_back(side);
  if (sides.empty()) return;
  std::vector<double> parts;
  for (const SeamSide* side : sides) {
    const std::vector<double> corners = cornersOf(pattern_, *side);
    parts.insert(parts.end(), corners.begin(), corners.end());
  }
  for (int i = 0; i <= kParts; ++i) {
    const double part = static_cast<double>(i) / kParts;
    if (std::none_of(parts.begin(), parts.end(), [&](double p) { return std::abs(p - part) < 0.4 / kParts; }))
      parts.push_back(part);
  }
  std::sort(parts.begin(), parts.end());
  parts.erase(std::unique(parts.begin(), parts.end(), [](double a, double b) { return b - a < kSame; }), parts.end());
  const size_t first = parent_.size();
  for (size_t i = 0; i < parts.size(); ++i) parent_.push_back(first + i);
  for (const SeamSide* side : sides) {
    const Piece& piece = pattern_.pieces[side->piece];
    const std::vector<double> corners = cornersOf(pattern_, *side);
    for (size_t e = 0; e < side->chain.size(); ++e) {
      const EdgeUse& use = side->chain[e];
      const size_t line = lineOf(piece, use.edge);
      const double length = piece.lineAt(line).path.length(), wide = std::max(corners[e + 1] - corners[e], 1e-9);
      std::vector<Place>& places = lines_[{side->piece, line}];
      for (size_t i = 0; i < parts.size(); ++i) {
        if (parts[i] < corners[e] - kSame || parts[i] > corners[e + 1] + kSame) continue;
        const double along = std::clamp((parts[i] - corners[e]) / wide, 0.0, 1.0);
        places.push_back({first + i, length * (use.reversed ? 1 - along : along)});
      }
      if (use.reversed) std::reverse(places.begin(), places.end());
    }
  }
}

// Lines that are not sewn in this half.
void WornHalf::layOpenLines() {
  for (const size_t i : pieces_) {
    const Piece& p = pattern_.pieces[i];
    for (size_t l = 0; l < p.lines(); ++l) {
      if (p.lineAt(l).role == EdgeRole::Mouth || lines_.contains({i, l})) continue;
      const double length = p.lineAt(l).path.length();
      for (int k = 0; k <= kParts; ++k) {
        lines_[{i, l}].push_back({parent_.size(), length * k / kParts});
        parent_.push_back(parent_.size());
      }
    }
  }
}

void WornHalf::mergeCorners() {
  for (const auto& [key, places] : lines_) {
    const auto next = lines_.find({key.first, pattern_.pieces[key.first].next(key.second)});
    if (next != lines_.end()) parent_[root(places.back().node)] = root(next->second.front().node);
  }
}

// The normal equations of the fit, for either coordinate.
struct WornHalf::Fit {
  Eigen::MatrixXd across, down;
  Eigen::VectorXd x, y;

  explicit Fit(Eigen::Index n)
      : across(Eigen::MatrixXd::Identity(n, n) * 1e-9),
        down(across),
        x(Eigen::VectorXd::Zero(n)),
        y(Eigen::VectorXd::Zero(n)) {}

  void keepApart(size_t a, size_t b, Vec2 d) {
    const double square = std::max(dot(d, d), 1.0);
    const double cx = d.x * d.x / square, cy = d.y * d.y / square;
    keep(across, x, a, b, d.x, (cx * cx + kAside) / square);
    keep(down, y, a, b, d.y, (cy * cy + kAside) / square);
  }

  static void keep(Eigen::MatrixXd& matrix, Eigen::VectorXd& right, size_t a, size_t b, double apart, double w) {
    const auto r = static_cast<Eigen::Index>(a), c = static_cast<Eigen::Index>(b);
    matrix(r, r) += w;
    matrix(c, c) += w;
    matrix(r, c) -= w;
    matrix(c, r) -= w;
    right[r] += w * apart;
    right[c] -= w * apart;
  }

  // sum of c_i x_i = apart
  void keepWidth(const std::vector<std::pair<size_t, double>>& terms, double apart) {
    for (const auto& [i, c] : terms) {
      const auto r = static_cast<Eigen::Index>(i);
      for (const auto& [j, d] : terms) across(r, static_cast<Eigen::Index>(j)) += kMeasured * c * d;
      x[r] += kMeasured * c * apart;
    }
  }

  static void pin(Eigen::MatrixXd& matrix, Eigen::VectorXd& right, size_t node, double value) {
    const auto r = static_cast<Eigen::Index>(node);
    matrix(r, r) += kPinned;
    right[r] += kPinned * value;
  }
};

// Every place of a piece against every other.
void WornHalf::fitPiece(size_t i, Fit& fit) const {
  const Piece& p = pattern_.pieces[i];
  std::map<size_t, Vec2> places;
  for (size_t l = 0; l < p.lines(); ++l)
    if (const auto on = lines_.find({i, l}); on != lines_.end())
      for (const Place& place : on->second)
        places.emplace(root(place.node), upright(i, p.lineAt(l).path.pointAt(place.at)));
  for (auto a = places.begin(); a != places.end(); ++a)
    for (auto b = std::next(a); b != places.end(); ++b) fit.keepApart(a->first, b->first, a->second - b->second);
}

// A place on a line between two of its nodes: x there as a sum over both, and what is not theirs.
struct WornHalf::Between {
  std::vector<std::pair<size_t, double>> terms;
  double constant = 0;
};
WornHalf::Between WornHalf::between(size_t piece, const Anchor& place) const {
  const Piece& p = pattern_.pieces[piece];
  const size_t line = lineOf(p, place.edge);
  const Path& path = p.lineAt(line).path;
  const std::vector<Place>& places = lines_.at({piece, line});
  size_t k = 0;
  while (k + 2 < places.size() && places[k + 1].at < place.at) ++k;
  const Place &a = places[k], &b = places[k + 1];
  const double t = std::clamp((place.at - a.at) / std::max(b.at - a.at, 1e-9), 0.0, 1.0);
  const double ownA = upright(piece, path.pointAt(a.at)).x, ownB = upright(piece, path.pointAt(b.at)).x;
  return {{{root(a.node), 1 - t}, {root(b.node), t}},
          upright(piece, path.pointAt(place.at)).x - (1 - t) * ownA - t * ownB};
}

// The levels, as wide as they are.
void WornHalf::keepLevels(size_t i, Fit& fit) const {
  constexpr double kNarrow = 45;          // mm: a bridge would be pinched at its levels
  if (isCup(pattern_.pieces[i])) return;  // it is round: no width of it is seen
  for (const Mark& m : pattern_.pieces[i].levelMarks()) {
    const Piece& p = pattern_.pieces[i];
    if (p.line(m).width() < kNarrow || isFree(p.edge(m.a.edge).role) || isFree(p.edge(m.b.edge).role)) continue;
    const Between a = between(i, m.a), b = between(i, m.b);
    const double width = upright(i, p.point(m.b)).x - upright(i, p.point(m.a)).x;
    std::vector<std::pair<size_t, double>> terms = b.terms;
    for (const auto& [node, c] : a.terms) terms.emplace_back(node, -c);
    fit.keepWidth(terms, width - b.constant + a.constant);
  }
}

// Where the nodes at the centre lie: in the middle, or at the edge of a lacing.
std::map<size_t, Vec2> WornHalf::centre(const Opening& opening) const {
  std::map<size_t, Vec2> given;
  for (const auto& [key, places] : lines_) {
    const Edge& edge = pattern_.pieces[key.first].lineAt(key.second);
    if (!isCentre(edge.role)) continue;
    for (const Place& place : places) {
      const double y = edge.path.pointAt(place.at).y;
      const bool open = edge.role == EdgeRole::Opening && opening.isLaced();
      given.emplace(root(place.node), Vec2{open ? opening.gapAt(y) / 2 : 0, y});
    }
  }
  return given;
}

void WornHalf::solve(const Opening& opening) {
  Fit fit(static_cast<Eigen::Index>(parent_.size()));
  for (const size_t i : pieces_) {
    fitPiece(i, fit);
    keepLevels(i, fit);
  }
  const std::map<size_t, Vec2> given = centre(opening);
  for (const auto& [node, at] : given) Fit::pin(fit.across, fit.x, node, at.x);
  if (!given.empty()) Fit::pin(fit.down, fit.y, given.begin()->first, given.begin()->second.y);
  const Eigen::VectorXd x = fit.across.llt().solve(fit.x), y = fit.down.llt().solve(fit.y);
  for (size_t i = 0; i < parent_.size(); ++i) {
    const auto r = static_cast<Eigen::Index>(root(i));
    solved_.push_back({x[r], y[r]});
  }
}

// What the fit moved the nodes by, shared out along the line between them.
Polyline WornHalf::line(size_t piece, size_t line) const {
  constexpr double kStep = 12;  // mm
  Polyline out;
  const auto on = lines_.find({piece, line});
  if (on == lines_.end() || on->second.size() < 2) return out;
  const Path& path = pattern_.pieces[piece].lineAt(line).path;
  const std::vector<Place>& places = on->second;
  for (size_t k = 0; k + 1 < places.size(); ++k) {
    const Place &a = places[k], &b = places[k + 1];
    const Vec2 byA = solved_[a.node] - upright(piece, path.pointAt(a.at)),
               byB = solved_[b.node] - upright(piece, path.pointAt(b.at));
    const int steps = std::max(1, static_cast<int>(std::ceil((b.at - a.at) / kStep)));
    for (int i = k == 0 ? 0 : 1; i <= steps; ++i) {
      const double t = static_cast<double>(i) / steps;
      out.push_back(upright(piece, path.pointAt(a.at + t * (b.at - a.at))) + lerp(byA, byB, t));
    }
  }
  return out;
}

Polyline WornHalf::outline(size_t piece) const {
  Polyline out;
  for (size_t l = 0; l < pattern_.pieces[piece].edges.size(); ++l) {
    const Polyline part = line(piece, l);
    out.insert(out.end(), part.begin(), part.end());
  }
  return out;
}

}  // namespace armure
