#include "cutting/cutting.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <optional>

#include "cutting/panels.h"
#include "cutting/upper_lengths.h"
#include "operations/crossing.h"
#include "operations/grain.h"
#include "operations/sew.h"
#include "parts/edges/upper_outline.h"
#include "pattern/outline_parts.h"
#include "rules/prepare_rules.h"

namespace armure {
namespace {

// The arc length at which `path` meets the level line y (in the half's axes) carried by `frame`, nearest to where the
// boundary was drafted.
std::optional<double> meet(const Path& path, const Motion& frame, double y, double expectedX) {
  const std::vector<double> found = path.crossings(frame.apply({0, y}), frame.applyToDirection({1, 0}));
  if (found.empty()) return std::nullopt;
  const Vec2 expected = frame.apply({expectedX, y});
  return *std::min_element(found.begin(), found.end(), [&](double a, double b) {
    return distance(path.pointAt(a), expected) < distance(path.pointAt(b), expected);
  });
}

class Cutter {
 public:
  Cutter(const Block& block, const Rules& rules)
      : block_(block),
        rules_(rules),
        at_(block),
        top_(topEdge(block, rules)),
        hem_(hemLine(block, rules)),
        upperFront_(upperOutline(block, rules, true)),
        upperBack_(upperOutline(block, rules, false)) {}

  Result<Pattern> cut() && {
    panels_ = layOutPanels(block_, rules_, {upperFront_, upperBack_});
    for (Panel& p : panels_)
      for (DraftedEdge* e : {&p.left, &p.right})
        if (auto problem = locate(p, *e, e == &p.left ? p.leftBoundary : p.rightBoundary)) return *problem;
    for (const Panel& p : panels_)
      if (p.goesUp() && upperEdges(p).empty())
        return Problem{p.name, "nothing of the neckline, the shoulder or the armhole lies between its two lines",
                       "use fewer lines, or let the princess line end elsewhere (princess.above)"};
    for (size_t i = 0; i + 1 < panels_.size(); ++i) trimSeam(i);
    for (size_t i = 0; i < panels_.size(); ++i) pattern_.pieces.push_back(makePiece(i));
    for (size_t i = 0; i + 1 < panels_.size(); ++i) pattern_.seams.push_back(makeSeam(i));
    if (upperFront_ && upperBack_) keepShoulders(pattern_, *upperFront_, *upperBack_);
    sewShoulders();
    runOnAcrossSeams(pattern_);
    if (upperFront_ || upperBack_) keepArmholes(pattern_, upperFront_, upperBack_);
    makeLevels();
    pattern_.closing = {block_.dart.angle, distance(block_.dart.upper, block_.dart.lower), widthsChanged()};
    return std::move(pattern_);
  }

 private:
  bool onBack(const Panel& p) const { return p.half == &block_.back; }

  double draftedX(const Panel& p, size_t boundary, double y) const {
    if (boundary == 0 || boundary == at_.centreBack()) return p.half->centre.xAtDepth(y);
    if (boundary == at_.side()) return onBack(p) ? p.half->side.xAtDepth(y) : block_.frontSideAt(y).x;
    const PanelLine& line = p.half->lines[at_.line(boundary)];
    return (boundary == p.leftBoundary) == !onBack(p) ? line.toSideX(y) : line.toCentreX(y);
  }

  // Where a level that stands at a depth meets a boundary: the front's side may be met higher.
  double metAt(const Panel& p, size_t boundary, double y) const {
    return boundary == at_.side() && !onBack(p) ? block_.frontSideAt(y).y : y;
  }

  double styleDepth(const StyleLine& line, const Panel& p, size_t boundary) const {
    return boundary == at_.side() && onBack(p) ? line.sideDepthOnBack : line.depth[boundary];
  }

  // Finds every place on an edge. The bust line itself belongs to the upper part, which the dart does not turn.
  std::optional<Problem> locate(const Panel& p, DraftedEdge& e, size_t at) const {
    const auto upper = p.goesUp() ? meetOutline(p.upper, e.path) : std::nullopt;
    if (upper) e.onOutline = upper->second;
    struct Wanted {
      std::string name;
      double y;
      double DraftedEdge::*place;
    };
    const std::array<Wanted, 5> all{{{"top edge", styleDepth(top_, p, at), &DraftedEdge::top},
                                     {"bust line", p.half->at(level::kBust).y, &DraftedEdge::bust},
                                     {"underbust line", p.half->at(level::kUnderbust).y, &DraftedEdge::underbust},
                                     {"waist line", p.half->at(level::kWaist).y, &DraftedEdge::waist},
                                     {"hem", styleDepth(hem_, p, at), &DraftedEdge::hem}}};
    const double bust = p.half->at(level::kBust).y;
    // A deep top edge may lie below the bust line, at the centre (a plunge) even below the underbust.
    const bool sewn = e.role == EdgeRole::Seam;
    double before = -1;
    for (const Wanted& w : all) {
      const bool isUpper = w.place == &DraftedEdge::top && p.goesUp();
      const auto s = isUpper
                         ? (upper ? std::optional(upper->first) : std::nullopt)
                         : meet(e.path, w.y > bust + 1e-9 ? p.lower : p.still, metAt(p, at, w.y), draftedX(p, at, w.y));
      const bool mayBeCutOff = w.place == &DraftedEdge::bust || (!sewn && w.place == &DraftedEdge::underbust);
      if (s && mayBeCutOff && *s <= before) {
        e.*w.place = *s;
        continue;
      }
      if (!s || *s <= before)
        return Problem{msg("{}, {} edge", p.name, e.id), msg("the {} does not cross it where it should", w.name),
                       "move the top edge, the back slope or the hem, or check the heights"};
      e.*w.place = before = *s;
    }
    return std::nullopt;
  }

  // Both sides reach equally far from the underbust notch; the longer one is trimmed. On a shoulder or an armhole they
  // meet half way: the shorter leg of a dart is lengthened there and the longer one shortened.
  void trimSeam(size_t i) {
    DraftedEdge &a = panels_[i].right, &b = panels_[i + 1].left;
    const double upA = a.underbust - a.top, upB = b.underbust - b.top;
    const bool halfWay = panels_[i].goesUp() && panels_[i + 1].goesUp() && panels_[i].rightBoundary != at_.side();
    const double up = halfWay ? std::min({(upA + upB) / 2, a.underbust, b.underbust}) : std::min(upA, upB);
    const double downA = a.hem - a.underbust, downB = b.hem - b.underbust, down = std::min(downA, downB);
    const auto note = [&](bool atTop, double lengthA, double lengthB) {
      const double surplus = lengthA - lengthB;
      if (std::abs(surplus) > 1e-9) pattern_.trims.push_back({a.id, atTop, surplus > 0 ? i : i + 1, std::abs(surplus)});
    };
    if (isCut(i, SectionKind::Bodice)) {
      a.top = a.underbust - up;
      b.top = b.underbust - up;
      note(true, halfWay ? upA - up : upA, halfWay ? 0 : upB);
    }
    if (isCut(i, SectionKind::Skirt)) {
      a.hem = a.underbust + down;
      b.hem = b.underbust + down;
      note(false, downA, downB);
    }
  }

  // Whether panel i is cut apart from the next one in a section (in the bodice, where there is no such section): where
  // it is not, both edges meet as drafted.
  bool isCut(size_t i, SectionKind section) const {
    const size_t boundary = panels_[i].rightBoundary;
    return boundary == at_.side() ||
           block_.plan.line(section, !at_.onBack(boundary), at_.line(boundary)) == LineKind::Seam;
  }

  // The direction in which a style line runs at one end of a piece, as drafted; across seams it is drawn anew when the
  // pieces are all there.
  Vec2 drafted(const StyleLine& line, const Panel& p, size_t at) const {
    const double slope = line.slope[at];
    const bool isTop = &line == &top_;
    // In the half's own axes a back panel is mirrored: going round means x falling.
    const Vec2 direction = onBack(p) ? Vec2{-1, slope} : Vec2{1, slope};
    return unit((isTop ? p.still : p.lower).applyToDirection(direction));
  }

  Path styleEdge(const StyleLine& line, size_t i) const {
    const Panel& p = panels_[i];
    const bool isTop = &line == &top_;
    const Vec2 a = p.left.path.pointAt(isTop ? p.left.top : p.left.hem),
               b = p.right.path.pointAt(isTop ? p.right.top : p.right.hem);
    if (isTop && i == 0 && !line.plunge.empty()) return plungeEdge(line, a, b, drafted(line, p, p.rightBoundary));
    const double reach = distance(a, b) / 3;
    return Path(
        Cubic{a, a + reach * drafted(line, p, p.leftBoundary), b - reach * drafted(line, p, p.rightBoundary), b});
  }

  // Beside the centre front up to the bust line, then on to the corner at the first line.
  static Path plungeEdge(const StyleLine& line, Vec2 from, Vec2 to, Vec2 arrival) {
    const Path up = Path(withStart(line.plunge.cubics().front(), from));
    const double reach = distance(up.end(), to) / 3;
    return up + Path(Cubic{up.end(), up.end() + reach * up.endTangent(), to - reach * arrival, to});
  }
  static Cubic withStart(Cubic c, Vec2 start) {
    c.p0 = start;
    return c;
  }

  Piece makePiece(size_t i) const {
    const Panel& p = panels_[i];
    Piece piece;
    piece.id = p.id;
    piece.ordinal = p.ordinal;
    piece.name = p.name;
    piece.half = onBack(p) ? Half::Back : Half::Front;
    const DraftedEdge* fold = nullptr;
    for (const DraftedEdge* e : {&p.left, &p.right})
      if (e->role == EdgeRole::Fold) fold = e;
    piece.symmetry = fold ? Symmetry::OnFold : Symmetry::Pair;
    piece.copies = fold ? 1 : 2;
    piece.onFold = fold ? fold->id : "";

    Path left = p.left.path.sub(p.left.top, p.left.hem), right = p.right.path.sub(p.right.top, p.right.hem);
    Path hem = styleEdge(hem_, i).reversed();
    std::vector<Edge> upper =
        p.goesUp() ? upperEdges(p)
                   : std::vector<Edge>{{"top", EdgeRole::Top, rules_.length(key::kAllowanceTop), styleEdge(top_, i)}};
    // The edges meet to the last bit: the corners take the ends of the side edges.
    upper.front().path = withCorners(upper.front().path, left.start(), upper.front().path.end());
    upper.back().path = withCorners(upper.back().path, upper.back().path.start(), right.start());
    for (Edge& e : upper)
      if (e.id == "shoulder") e.path = Path::line(e.path.start(), e.path.end());
    hem = withCorners(hem, right.end(), left.end());
    piece.edges = std::move(upper);
    piece.edges.push_back({p.right.id, p.right.role, p.right.allowance, std::move(right)});
    piece.edges.push_back({"hem", EdgeRole::Hem, rules_.length(key::kAllowanceHem), std::move(hem)});
    piece.edges.push_back({p.left.id, p.left.role, p.left.allowance, left.reversed()});
    addLevelMarks(p, piece);
    addNotches(p, piece);
    addGrain(p, piece);
    return piece;
  }

  static Path withCorners(const Path& path, Vec2 start, Vec2 end) {
    std::vector<Cubic> cubics = path.cubics();
    cubics.front().p0 = start;
    cubics.back().p3 = end;
    return Path(std::move(cubics));
  }

  // The stretches of the upper outline between both edges of the panel, clockwise.
  std::vector<Edge> upperEdges(const Panel& p) const {
    constexpr double kLeast = 1;  // mm: a shorter stretch is left to its neighbour
    const double from = std::min(p.left.onOutline, p.right.onOutline),
                 to = std::max(p.left.onOutline, p.right.onOutline);
    std::vector<Edge> edges;
    double before = 0;
    for (const UpperStretch& s : p.upper) {
      const double length = s.path.length(), a = std::max(from - before, 0.0), b = std::min(to - before, length);
      before += length;
      if (b - a < kLeast) continue;
      const Path path = withoutCrumbs(s.path.sub(a, b));
      edges.push_back(s.part == UpperPart::Neck ? Edge{"neck", EdgeRole::Top, rules_.length(key::kAllowanceTop), path}
                      : s.part == UpperPart::Shoulder
                          ? shoulderEdge(path)
                          : Edge{"armhole", EdgeRole::Armhole, rules_.length(key::kAllowanceArmhole), path});
    }
    for (size_t i = 0; i + 1 < edges.size(); ++i)
      edges[i].path = withEnds(edges[i].path, edges[i].path.start(), edges[i + 1].path.start());
    if (onBack(p)) {  // there the outline runs from right to left
      std::reverse(edges.begin(), edges.end());
      for (Edge& e : edges) e.path = e.path.reversed();
    }
    return edges;
  }

  Edge shoulderEdge(Path path) const {
    const bool sewn = upperFront_ && upperBack_;
    return {"shoulder", sewn ? EdgeRole::Seam : EdgeRole::Strap, rules_.length(key::kAllowanceShoulder),
            std::move(path)};
  }

  // Front and back shoulder, from the neck outwards.
  void sewShoulders() {
    if (!upperFront_ || !upperBack_) return;
    std::vector<SewnEdge> front, back;
    for (size_t i = 0; i < panels_.size(); ++i) {
      if (!hasEdge(pattern_.pieces[i], "shoulder")) continue;
      if (onBack(panels_[i])) {
        back.insert(back.begin(), {i, {"shoulder", true}});
      } else {
        front.push_back({i, {"shoulder", false}});
      }
    }
    if (!front.empty() && !back.empty())
      sewLines(pattern_, front, back, "shoulder", "Shoulder seam", SeamKind::Shoulder);
  }

  void addLevelMarks(const Panel& p, Piece& piece) const {
    constexpr double kClear = 0.01;  // mm: a level through a corner is not a level across
    const double bust = p.half->at(level::kBust).y;
    for (const HalfLevel& l : p.half->levels) {
      if (block_.levels.at(l.level).beyondHem) continue;
      const Motion& frame = l.y > bust + 1e-9 ? p.lower : p.still;
      const auto a = meet(p.left.path, frame, l.y, draftedX(p, p.leftBoundary, l.y));
      const auto b = meet(p.right.path, frame, metAt(p, p.rightBoundary, l.y), draftedX(p, p.rightBoundary, l.y));
      if (!a || !b) continue;
      const auto within = [&](const DraftedEdge& e, double s) { return s > e.top + kClear && s < e.hem - kClear; };
      if (!within(p.right, *b)) continue;
      const Vec2 end = p.right.path.pointAt(*b);
      // A left edge runs up: its places count from the hem.
      const Anchor right{p.right.id, *b - p.right.top, {}};
      if (within(p.left, *a)) {
        piece.marks.push_back({MarkKind::Level, l.level, {p.left.id, p.left.hem - *a, {}}, right, false});
      } else if (p.leftBoundary == 0 && !p.goesUp() && !top_.plunge.empty() && *a <= p.left.top) {
        const Path& top = piece.edge("top").path;
        const std::vector<double> across = top.crossings(end, frame.applyToDirection({1, 0}));
        if (!across.empty())
          piece.marks.push_back({MarkKind::Level, l.level, {"top", across.front(), {}}, right, false});
      }
    }
  }

  // What a plunge leaves open on a level, on both halves together.
  double plungeGap(const std::string& levelId) const {
    if (upperFront_ || top_.plunge.empty()) return 0;
    const auto mark = pattern_.pieces.front().level(levelId);
    if (!mark) return 0;
    const Path& centre = panels_.front().left.path;
    return mark->a.y < centre.pointAt(panels_.front().left.top).y ? 2 * (mark->a.x - centre.xAtDepth(mark->a.y)) : 0;
  }

  void addNotches(const Panel& p, Piece& piece) const {
    for (const DraftedEdge* e : {&p.right, &p.left}) {
      if (e->role == EdgeRole::Fold) continue;
      const bool doubled = onBack(p) && e->id != "side";  // single on the front and the side, double on the back
      for (const auto& [name, s] :
           {std::pair{level::kBust, e->bust}, {level::kUnderbust, e->underbust}, {level::kWaist, e->waist}}) {
        if (s <= e->top + 1 || s >= e->hem - 1) continue;
        piece.marks.push_back(
            notchMark(std::string(name), {e->id, e == &p.right ? s - e->top : e->hem - s, {}}, doubled));
      }
    }
  }

  // The grain runs square to the waist, to the left of the middle, where it leaves room for the label.
  void addGrain(const Panel& p, Piece& piece) const {
    const auto waist = piece.level(level::kWaist), under = piece.level(level::kUnderbust);
    if (!waist || !under) {  // a low edge: wherever there is room
      constexpr double kShort = 20;
      const Vec2 down = p.lower.applyToDirection({0, 1}), inside = piece.edges.front().path.pointAt(0.5);
      piece.grainTop = inside;
      piece.grainBottom = inside + kShort * down;
      return layGrain(piece);
    }
    constexpr double kAcross = 0.2;
    const Vec2 middle = lerp(lerp(waist->a, waist->b, kAcross), lerp(under->a, under->b, kAcross), 0.5);
    const Vec2 down = p.lower.applyToDirection({0, 1});
    const double reach = 0.9 * distance(lerp(waist->a, waist->b, 0.5), lerp(under->a, under->b, 0.5));
    piece.grainTop = middle - reach * down;
    piece.grainBottom = middle + reach * down;
  }

  Seam makeSeam(size_t i) const {
    const DraftedEdge &a = panels_[i].right, &b = panels_[i + 1].left;
    Seam seam;
    seam.id = a.id;
    seam.name = seamName(panels_[i]);
    seam.a = {i, {{a.id, false}}};
    seam.b = {i + 1, {{b.id, true}}};
    for (const auto& [name, place] : {std::pair{level::kBust, &DraftedEdge::bust},
                                      {level::kUnderbust, &DraftedEdge::underbust},
                                      {level::kWaist, &DraftedEdge::waist}}) {
      const double sa = a.*place - a.top, sb = b.*place - b.top;
      if (sa > 1 && sb > 1 && sa < a.hem - a.top - 1 && sb < b.hem - b.top - 1)
        seam.notches.push_back({std::string(name), sa, sb});
    }
    return seam;
  }

  Message seamName(const Panel& left) const {
    if (left.rightBoundary == at_.side()) return "Side seam";
    const size_t line = at_.line(left.rightBoundary);
    const bool back = at_.onBack(left.rightBoundary);
    if (line == 0) return back ? "Back seam" : "Princess seam";
    return back ? msg("Back seam {}", line + 1) : msg("Front seam {}", line + 1);
  }

  // Closing turns pieces and trimming shortens them; neither may change a width.
  double widthsChanged() const {
    double most = 0;
    for (size_t i = 0; i < panels_.size(); ++i)
      for (const LevelLine& m : pattern_.pieces[i].levelLines()) {
        const Panel& p = panels_[i];
        const double y = p.half->at(m.level).y;
        const double drafted = std::hypot(draftedX(p, p.rightBoundary, y) - draftedX(p, p.leftBoundary, y),
                                          metAt(p, p.rightBoundary, y) - y);
        const double open = i == 0 ? plungeGap(m.level) / 2 : 0;
        most = std::max(most, std::abs(m.width() + open - drafted));
      }
    return most;
  }

  void makeLevels() {
    for (const Level& l : block_.levels.all) {
      if (l.beyondHem) continue;
      PatternLevel out{l.id,
                       l.name,
                       l.bodyGirth,
                       l.finishedGirth,
                       {.opening = block_.gapOn(l.id), .skin = plungeGap(l.id)},
                       l.girthTaken,
                       l.heightTaken,
                       false};
      out.ring = std::all_of(pattern_.pieces.begin(), pattern_.pieces.end(),
                             [&](const Piece& p) { return p.levelMark(l.id) != nullptr; });
      pattern_.levels.push_back(std::move(out));
    }
  }

  const Block& block_;
  const Rules& rules_;
  const Boundaries at_;
  const StyleLine top_, hem_;
  const std::optional<UpperOutline> upperFront_, upperBack_;
  std::vector<Panel> panels_;
  Pattern pattern_;
};

}  // namespace

Result<Pattern> cutPieces(const Block& block, const Rules& rules) { return Cutter(block, rules).cut(); }

}  // namespace armure
