#include "parts/yoke/yoke.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "draft/line_paths.h"
#include "geometry/spline.h"
#include "operations/divide.h"
#include "operations/grain.h"
#include "operations/join.h"
#include "operations/pivot.h"
#include "parts/edges/rules.h"
#include "parts/edges/style_line.h"
#include "parts/edges/upper_outline.h"
#include "parts/yoke/rules.h"
#include "pattern/marks.h"
#include "pattern/outline_parts.h"
#include "rules/prepare_rules.h"

namespace armure {
namespace {

constexpr double kLeastStretch = 30;  // mm: a yoke's edge is not sewn to less of a panel than this
constexpr double kBeforeLine = 8;     // mm
// mm: a yoke beside an open upper edge begins so far up the rising neckline, which runs on smoothly there.
constexpr double kAboveOpen = 28;

// One half of the panels, counted from the centre outwards.
class HalfPanels {
 public:
  HalfPanels(const Pattern& pattern, const Block& block, bool front) : pattern_(pattern), front_(front) {
    const size_t f = block.front.lines.size() + 1, b = block.back.lines.size() + 1;
    for (size_t i = 0; i < (front ? f : b); ++i) pieces_.push_back(front ? i : f + b - 1 - i);
  }

  size_t count() const { return pieces_.size(); }
  size_t piece(size_t k) const { return pieces_[k]; }
  const Piece& operator[](size_t k) const { return pattern_.pieces[pieces_[k]]; }

  // The seam on the outer edge of panel k, and this panel's side of it, and the next one's.
  const Seam& seam(size_t k) const { return pattern_.seams[front_ ? pieces_[k] : pieces_[k] - 1]; }
  const SeamSide& outerSide(size_t k) const { return front_ ? seam(k).a : seam(k).b; }
  const SeamSide& nextSide(size_t k) const { return front_ ? seam(k).b : seam(k).a; }

  std::string_view centreEdge() const {
    for (const Edge& e : (*this)[0].edges)
      if (isCentre(e.role)) return e.id;
    return "";
  }

 private:
  const Pattern& pattern_;
  const bool front_;
  std::vector<size_t> pieces_;
};

// Where a level depth crosses an edge.
std::optional<Anchor> placeAtDepth(const Piece& piece, std::string_view edge, double y) {
  const std::vector<double> found = piece.edge(edge).path.crossings({0, y}, {1, 0});
  if (found.empty()) return std::nullopt;
  return Anchor{std::string(edge), found.front()};
}

Vec2 pointAt(const Piece& piece, const Anchor& p) { return piece.edge(p.edge).path.pointAt(p.at); }

class YokeMaker {
 public:
  YokeMaker(Pattern& pattern, const Block& block, const Rules& rules, bool front)
      : pattern_(pattern),
        rules_(rules),
        front_(front),
        panels_(pattern, block, front),
        top_(topEdge(block, rules)),
        plan_(block.plan),
        at_(block),
        level_(rules.option(front ? key::kYokeLineFront : key::kYokeLineBack) == YokeLine::Level),
        first_(front && rules.option(key::kNeckShape) == NeckShape::Edge ? 1 : 0),
        end_(endAtArmhole(block)) {}

  std::optional<Problem> make() && {
    if (auto problem = findPlaces()) return problem;
    const std::string id = front_ ? "yoke-front" : "yoke-back";
    const Message name = front_ ? "Front yoke" : "Back yoke";
    DividingLine line{
        id, msg("{} seam", name), "in the yoke", EdgeRole::Yoke, rules_.length(key::kAllowanceYoke), throughPieces()};
    std::vector<PieceName> names;
    for (size_t k = 0; k < line.through.size(); ++k)
      names.push_back({k == 0 ? id : fmt::format("{}-{}", id, k + 1), name, Part::Yoke});
    std::vector<std::string> between;
    for (size_t k = first_; k + 1 < first_ + line.through.size(); ++k)
      if (plan_.line(SectionKind::Yoke, front_, k) == LineKind::None) between.push_back(panels_.seam(k).id + "-" + id);
    dividePieces(pattern_, line, names);
    for (Piece& p : pattern_.pieces)  // where the line meets the armhole beside a joint of it
      for (Edge& e : p.edges)
        if (e.role == EdgeRole::Armhole) e.path = withoutCrumbs(e.path);
    double gap = 0;
    for (const std::string& seam : between) gap = std::max(gap, joinPieces(pattern_, seam, name).gap);
    uniteSeams(pattern_, "line");
    finish(id, name, gap);
    return std::nullopt;
  }

 private:
  double endAtArmhole(const Block& block) const {
    if (level_) return rules_.length(front_ ? key::kYokeBelowFront : key::kYokeBelowBack);
    const Level& chest = block.levels.at(level::kChest);
    const bool own = !front_ && !rules_.isDefault(key::kYokeArmholeBack);
    return (front_ ? chest.front : chest.back) - rules_.length(own ? key::kYokeArmholeBack : key::kYokeArmhole);
  }

  // Two places on the edges of one panel, and how the line leaves and arrives, from the centre outwards.
  struct Through {
    Anchor from, to;
    Vec2 leaves, arrives;
  };

  Problem missing(const Message& piece, const Message& what) const {
    return {front_ ? msg("Front yoke, {}", piece) : msg("Back yoke, {}", piece), what,
            "move the upper edge or where the yoke ends at the armhole"};
  }

  // Directions on the half's own axes, x outwards; the back lies mirrored on the paper.
  Vec2 onPaper(Vec2 d) const { return front_ ? d : Vec2{-d.x, d.y}; }

  std::optional<Problem> findPlaces() {
    // The panel on which the line ends, and how far round from the centre that is, the lines between closed.
    size_t last = first_;
    std::optional<Anchor> end;
    const std::optional<Anchor> begin = first_ > 0 ? onNeck(panels_[first_]) : std::nullopt;
    if (first_ > 0 && !begin) return missing("neck", "its lower edge does not meet the neckline beside the upper edge");
    std::vector<double> x{0};
    for (; last < panels_.count() && !end; ++last) {
      const Piece& piece = panels_[last];
      if (hasEdge(piece, "armhole")) end = placeAtDepth(piece, "armhole", end_);
      const double inner = begin && last == first_ ? pointAt(piece, *begin).x : innerX(last);
      x.push_back(x.back() + std::abs((end ? pointAt(piece, *end).x : outerX(last)) - inner));
    }
    if (!end) return missing("armhole", "its lower edge does not meet the armhole");
    if (begin && *std::max_element(x.begin(), x.end()) < kLeastStretch)
      return missing("neck", "between the open edge and the armhole there is no room for it");
    if (!level_ && last > first_ + 1 && x.back() - x[x.size() - 2] < kLeastStretch &&
        hasEdge(panels_[last - 2], "armhole")) {
      const Path& arm = panels_[last - 2].edge("armhole").path;  // end before the last line instead of just behind it
      const double lowest = std::max(arm.start().y, arm.end().y) - kBeforeLine;
      if (lowest < end_) {
        end_ = lowest;
        return findPlaces();
      }
    }
    const std::vector<Station> line = begin ? besideOpen(x, pointAt(panels_[first_], *begin).y) : depths(x);

    const auto start = begin ? begin : placeAtDepth(panels_[0], panels_.centreEdge(), line.front().x);
    if (!start) return missing(panels_[0].name, "its lower edge does not meet the centre below the neck");
    Anchor from = *start;
    Vec2 leaves = onPaper(unit({1, line.front().slope}));
    for (size_t k = first_; k + 1 < last; ++k) {
      const Station& there = line[k - first_ + 1];
      const Path outer = pattern_.sidePath(panels_.outerSide(k));
      const auto at = outer.crossings({0, there.x}, {1, 0});
      if (at.empty())
        return missing(panels_[k].name, msg("its lower edge does not cross the {}", panels_.seam(k).name));
      const double along = at.front();
      // Half of what the closed seam turns, to either side.
      const Path next = pattern_.sidePath(panels_.nextSide(k));
      const double half = angleBetween(next.tangentAt(along), outer.tangentAt(along)) / 2;
      const Vec2 through = onPaper(unit({1, there.slope}));
      through_.push_back({from, pattern_.placeOnSide(panels_.outerSide(k), along), leaves, rotated(through, half)});
      from = pattern_.placeOnSide(panels_.nextSide(k), along);
      leaves = rotated(through, -half);
    }
    through_.push_back({from, *end, leaves, onPaper(unit({1, line.back().slope}))});
    return std::nullopt;
  }

  // Where a yoke beside an open upper edge begins: just above where the neckline leaves that, or at its own height.
  std::optional<Anchor> onNeck(const Piece& piece) const {
    if (!hasEdge(piece, "neck")) return std::nullopt;
    const Path& neck = piece.edge("neck").path;
    if (level_) return placeAtDepth(piece, "neck", end_);
    constexpr double kClear = 3;  // mm from the ends of the edge
    double along = 0;
    for (const Cubic& c : neck.cubics()) {
      along += c.length();
      if (along > kClear && along < neck.length() - 2 * kAboveOpen) return Anchor{"neck", along + kAboveOpen, {}};
    }
    return std::nullopt;
  }

  // As depths(), from the place beside the open edge, which it leaves level.
  std::vector<Station> besideOpen(const std::vector<double>& x, double y) const {
    const std::vector<Station> ends{{0, y, 0, true}, {x.back(), end_, level_ ? 0 : (end_ - y) / x.back(), true}};
    return withStationsAt(ends, std::vector<double>(x.begin() + 1, x.end() - 1));
  }

  double innerX(size_t k) const {
    if (k == 0) return panels_[0].edge(panels_.centreEdge()).path.xAtDepth(end_);
    return pattern_.sidePath(panels_.nextSide(k - 1)).xAtDepth(end_);
  }
  double outerX(size_t k) const { return pattern_.sidePath(panels_.outerSide(k)).xAtDepth(end_); }

  // How deep the line stands and how it runs at the centre, at each line it crosses and at the armhole, at these
  // distances from the centre: one monotone curve. In a station y is the distance, x the depth.
  std::vector<Station> depths(const std::vector<double>& x) const {
    if (level_) {
      std::vector<Station> line;
      for (const double at : x) line.push_back({at, end_, 0, true});
      return line;
    }
    const size_t centre = front_ ? 0 : at_.centreBack();
    const bool level = !front_ && rules_.option(key::kBackShape) == BackShape::Straight;
    const double first = level ? end_ : top_.depth[centre], chord = (end_ - first) / x.back();
    std::vector<Station> line{{0, first, 0, true}};
    if (front_) {
      line.front().slope = top_.slope[0];
      if (x.size() > 2) line.push_back({x[1], top_.depth[1]});
    } else if (rules_.option(key::kBackShape) == BackShape::V) {
      line.front().slope = chord;
    }
    line.push_back({x.back(), end_});
    const std::vector<double> slopes = monotoneSlopes(line);
    for (size_t i = 0; i < line.size(); ++i) line[i].slope = slopes[i], line[i].slopeGiven = true;
    return withStationsAt(line, std::vector<double>(x.begin() + 1, x.end() - 1));
  }

  std::vector<LineThrough> throughPieces() const {
    std::vector<LineThrough> out;
    for (size_t k = 0; k < through_.size(); ++k) {
      const Through& t = through_[k];
      const Piece& piece = panels_[first_ + k];
      const Vec2 a = pointAt(piece, t.from), b = pointAt(piece, t.to);
      LineThrough line{panels_.piece(first_ + k), t.from, t.to, pathBetween(a, b, t, first_ + k == 0)};
      if (!front_) {
        std::swap(line.from, line.to);
        line.path = line.path.reversed();
      }
      out.push_back(std::move(line));
    }
    if (!front_) std::reverse(out.begin(), out.end());
    return out;
  }

  Path pathBetween(Vec2 a, Vec2 b, const Through& t, bool atCentre) const {
    if (atCentre && front_ && !level_ && !top_.plunge.empty()) {
      const Path up = withEnds(top_.plunge, a, top_.plunge.end());
      const double reach = distance(up.end(), b) / 3;
      return up + Path(Cubic{up.end(), up.end() + reach * up.endTangent(), b - reach * t.arrives, b});
    }
    const double reach = distance(a, b) / 3;
    return Path(Cubic{a, a + reach * t.leaves, b - reach * t.arrives, b});
  }

  void finish(const std::string& id, const Message& name, double gap) {
    const bool net = rules_.option(front_ ? key::kYokeFront : key::kYokeBack) == YokeKind::Net;
    for (size_t i = 0; i < pattern_.pieces.size(); ++i) {
      Piece& p = pattern_.pieces[i];
      if (p.id != id) continue;
      if (net) p.cloth = "net";
      if (!front_) foldArmhole(i);
      layGrain(p);
    }
    pattern_.workings.push_back(
        {id,
         msg("{}, its parts joined", name),
         {{'+', "the edges stood apart by at the most", gap, Source::Computed}},
         gap,
         "the lines that ran through it are closed for good above the edge it is sewn to; shoulder and armhole are as "
         "long as on the body, so what the lines took on their way up was given back there; common practice"});
  }

  // A small dart folded out at the back armhole, to nothing at the centre back, which is drawn straight again.
  void foldArmhole(size_t index) {
    const double width = rules_.length(key::kYokeFold);
    Piece& p = pattern_.pieces[index];
    if (width < 0.5 || !hasEdge(p, "armhole")) return;
    const Path arm = p.edge("armhole").path;
    const double at = 0.4 * arm.length();
    size_t centre = 0;
    while (!isCentre(p.edges[centre].role)) ++centre;
    const Edge edge = p.edges[centre];
    const auto met = edge.path.crossings({0, arm.pointAt(at).y}, {1, 0});
    const double pivot = met.empty() ? edge.path.length() / 2 : met.front();
    if (at + width > arm.length() - 2) return;
    const DartTurn turn =
        foldOut(pattern_, {index, {edge.id, pivot}, {"armhole", at}, TurnedPart::FromMouthToPivot}, width);
    Piece& folded = pattern_.pieces[index];
    const std::vector<LevelLine> levels = folded.levelLines();
    if (isCentre(folded.edges.front().role) &&
        isCentre(folded.edges.back().role))  // begin with the centre's first half
      std::rotate(folded.edges.begin(), folded.edges.end() - 1, folded.edges.end());
    for (size_t i = 0; i + 1 < folded.edges.size(); ++i) {
      Edge &first = folded.edges[i], &second = folded.edges[i + 1];
      const bool divided = first.role == second.role && (isCentre(first.role) || first.role == EdgeRole::Armhole);
      if (!divided) continue;
      const double before = first.path.length(), behind = second.path.length();
      first.path =
          isCentre(first.role) ? Path::line(first.path.start(), second.path.end()) : smoothly(first.path, second.path);
      // Marks go with the edge, at the same part of its length.
      const double scale = first.path.length() / (before + behind);
      carryMarks(folded, {{.was = first.id, .is = first.id, .scale = scale},
                          {.was = second.id, .is = first.id, .start = before * scale, .scale = scale}});
      folded.edges.erase(folded.edges.begin() + static_cast<std::ptrdiff_t>(i) + 1);
    }
    settleLevels(folded, levels);
    pattern_.workings.push_back(
        {"yoke.fold",
         "Back yoke, folded out at the armhole",
         {rules_.term(key::kYokeFold)},
         -turn.width,
         "a dart to nothing at the centre back, so that the armhole does not gape; the centre is "
         "drawn straight again; common practice"});
  }

  // Two paths that meet in a small corner, made one without it.
  static Path smoothly(const Path& a, const Path& b) {
    const Vec2 through = unit(a.endTangent() + b.startTangent());
    std::vector<Cubic> cubics = a.cubics();
    const size_t joint = cubics.size();
    cubics.insert(cubics.end(), b.cubics().begin(), b.cubics().end());
    Cubic &before = cubics[joint - 1], &after = cubics[joint];
    before.p2 = before.p3 - distance(before.p2, before.p3) * through;
    after.p0 = before.p3;
    after.p1 = after.p0 + distance(after.p0, after.p1) * through;
    return Path(std::move(cubics));
  }

  Pattern& pattern_;
  const Rules& rules_;
  const bool front_;
  const HalfPanels panels_;
  const StyleLine top_;
  const PanelPlan& plan_;
  const Boundaries at_;
  const bool level_;    // the line stands at one height
  const size_t first_;  // the panel it begins on: where the upper edge stays open, the first beyond the princess line
  double end_;
  std::vector<Through> through_;
};

}  // namespace

std::optional<Problem> setYokes(Pattern& pattern, const Block& block, const Rules& rules) {
  for (const bool front : {true, false})
    if (block.plan.find(SectionKind::Yoke, front))
      if (auto problem = YokeMaker(pattern, block, rules, front).make()) return problem;
  return std::nullopt;
}

}  // namespace armure
