#include "parts/inserts/inserts.h"

#include <algorithm>
#include <cmath>

#include "operations/divide.h"
#include "operations/grain.h"
#include "operations/join.h"
#include "parts/inserts/rules.h"
#include "pattern/outline_parts.h"
#include "rules/prepare_rules.h"

namespace armure {
namespace {

constexpr double kClothBesideInsert = 12;  // mm of cloth on either side of the line
constexpr double kSameInsert = 3;          // mm: the other half's insert has cut the shoulder seam there already
constexpr double kAboveBust = 30;          // mm: a wedge ends so far above the bust point

class InsertMaker {
 public:
  InsertMaker(Pattern& pattern, const Block& block, const Rules& rules)
      : pattern_(pattern), block_(block), rules_(rules) {}

  // From the hem up to the upper edge, so that the centre lies on the left.
  std::optional<Problem> atCentre() {
    const size_t index = pattern_.panel(Half::Front, 1).value();
    const Piece& p = pattern_.pieces[index];
    const double top = rules_.length(key::kInsertTop), hem = rules_.length(key::kInsertHem);
    const auto ends = [&](bool upper) -> std::optional<Anchor> {
      std::optional<Anchor> best;
      for (const Edge& e : p.edges) {
        const bool fits = upper ? e.role == EdgeRole::Top || e.role == EdgeRole::Yoke : e.role == EdgeRole::Hem;
        if (!fits || best) continue;
        const double centre = centreX(p, upper);
        const auto met = e.path.crossings({centre + (upper ? top : hem), 0}, {0, 1});
        if (!met.empty()) best = {e.id, met.front()};
      }
      return best;
    };
    const bool pointed = rules_.option(key::kInsertEnd) == InsertEnd::Point;
    const auto from = pointed ? pointOnFold(p) : ends(false), to = ends(true);
    if (pointed && !from)
      return Problem{"Insert at the centre front", "its point does not lie on a fold or seam at the centre front",
                     "put the opening behind, let the point end elsewhere (insert.point), or let the insert run to the "
                     "hem (insert.end)"};
    if (!from || !to || nearEnd(p, *from) || nearEnd(p, *to))
      return Problem{"Insert at the centre front", msg("there is no room for it on the {}", p.name),
                     "make it narrower, or keep the bust in the princess seam"};
    const Vec2 a = p.edge(from->edge).path.pointAt(from->at), b = p.edge(to->edge).path.pointAt(to->at);
    if (runsThroughDart(p, Path::line(a, b)))
      return Problem{"Insert at the centre front", msg("it would cut through the dart of the {}", p.name),
                     "move the dart elsewhere (dial.centre), or put the insert at the shoulder (insert.kind)"};
    divide(index, {index, *from, *to, Path::line(a, b)}, "insert-centre", "Centre insert", key::kInsertTop);
    return std::nullopt;
  }

  // Where the wedge ends on the fold, or on the seam, of the centre front.
  std::optional<Anchor> pointOnFold(const Piece& p) const {
    const double y = block_.levels.at(level::kUnderbust).front - rules_.length(key::kInsertPoint);
    for (const Edge& e : p.edges) {
      if (e.role != EdgeRole::Fold && e.role != EdgeRole::Centre) continue;
      const auto met = e.path.crossings({0, y}, {1, 0});
      if (!met.empty()) return Anchor{e.id, met.front(), {}};
    }
    return std::nullopt;
  }

  // The seam between the first panels of the front, where it runs up to a shoulder on both.
  const Seam* seamToShoulder() const {
    const auto inner = pattern_.panel(Half::Front, 1), outer = pattern_.panel(Half::Front, 2);
    if (!inner || !outer) return nullptr;
    const Piece &a = pattern_.pieces[*inner], &b = pattern_.pieces[*outer];
    if (!hasEdge(a, "shoulder") || !hasEdge(b, "shoulder")) return nullptr;
    const auto meets = [&](const Seam& s) {
      return s.a.piece == *inner && s.b.piece == *outer && s.kind == SeamKind::Plain &&
             distance(a.edge("shoulder").path.end(), pattern_.sidePath(s.a).start()) < 1 &&
             distance(b.edge("shoulder").path.start(), pattern_.sidePath(s.b).start()) < 1;
    };
    const auto found = std::find_if(pattern_.seams.begin(), pattern_.seams.end(), meets);
    return found == pattern_.seams.end() ? nullptr : &*found;
  }

  // Whether a wedge so wide to either side and so long has its room.
  std::optional<Problem> noRoomForWedge(const Seam& princess, double half, double down) const {
    const SeamNotch* notch = princess.notch(level::kBust);
    const double bust = notch ? notch->a : pattern_.sidePath(princess.a).length();
    if (down > bust - kAboveBust)
      return Problem{"Wedge at the shoulder", "it reaches down into the round of the bust point",
                     "make it shorter (insert.shoulder_long)"};
    for (const size_t i : {princess.a.piece, princess.b.piece})
      if (half > pattern_.pieces[i].edge("shoulder").path.length() - kClothBesideInsert)
        return Problem{"Wedge at the shoulder", "it is wider than the shoulder on one side of the princess line",
                       "make it narrower (insert.shoulder), or let the line end elsewhere (princess.shoulder)"};
    return std::nullopt;
  }

  // A wedge across the princess line, from the shoulder down to a round tip, its halves made one piece.
  std::optional<Problem> wedgeAtShoulder() {
    const Seam* princess = seamToShoulder();
    if (!princess)
      return Problem{"Wedge at the shoulder", "the princess line does not run up to a shoulder that is one with it",
                     "cover the shoulders without a yoke (cover.kind=covered, yoke.front=none) and let the line end "
                     "there (princess.above=shoulder)"};
    const double half = rules_.length(key::kInsertShoulder) / 2, down = rules_.length(key::kInsertShoulderLong);
    if (auto problem = noRoomForWedge(*princess, half, down)) return problem;
    const size_t inner = princess->a.piece, outer = princess->b.piece;
    const Path sideA = pattern_.sidePath(princess->a), sideB = pattern_.sidePath(princess->b);
    const Path &shoulderA = pattern_.pieces[inner].edge("shoulder").path,
               &shoulderB = pattern_.pieces[outer].edge("shoulder").path;
    const Anchor fromA{"shoulder", shoulderA.length() - half, {}}, toB{"shoulder", half, {}};
    const auto flank = [&](Vec2 upper, const Path& side, bool towardsSide) {
      const Vec2 tip = side.pointAt(down), along = side.tangentAt(down),
                 square = (towardsSide ? 1 : -1) * Vec2{along.y, -along.x};
      return Path(Cubic{upper, upper + 0.55 * (tip - upper) - 0.35 * half * square, tip - 0.9 * half * square, tip});
    };
    const Path left = flank(shoulderA.pointAt(fromA.at), sideA, true),
               right = flank(shoulderB.pointAt(toB.at), sideB, false).reversed();
    DividingLine line{"insert-wedge",
                      "Shoulder wedge seam",
                      "in the wedge",
                      EdgeRole::Seam,
                      rules_.length(key::kAllowanceYoke),
                      {{inner, fromA, pattern_.placeOnSide(princess->a, down), left},
                       {outer, pattern_.placeOnSide(princess->b, down), toB, right}}};
    const std::string between = princess->id + "-insert-wedge";
    const size_t wedge = pattern_.pieces.size();
    dividePieces(
        pattern_, line,
        {{"insert-wedge", "Shoulder wedge", Part::Insert}, {"insert-wedge-2", "Shoulder wedge", Part::Insert}});
    const Joined done = joinPieces(pattern_, between, "Shoulder wedge");
    uniteSeams(pattern_, "line");
    walkDown(wedge);
    pattern_.pieces[wedge].cloth = "net";
    for (const size_t i : {inner, outer, wedge}) layGrain(pattern_.pieces[i]);
    pattern_.workings.push_back({"insert.wedge",
                                 "Shoulder wedge, its halves joined",
                                 {{'+', "the edges stood apart by at the most", done.gap, Source::Computed}},
                                 done.gap,
                                 "what the princess line takes in there is closed for good in the wedge; its tip is "
                                 "round, so that it can be sewn; common practice"});
    return std::nullopt;
  }

  std::optional<Problem> atShoulder() {
    if (rules_.option(key::kInsertShoulderAs) == ShoulderInsert::Wedge) return wedgeAtShoulder();
    bool any = false;
    const size_t before = pattern_.pieces.size();  // what comes behind them are inserts
    for (size_t i = 0; i < before; ++i) {
      const Piece& p = pattern_.pieces[i];
      if (!hasEdge(p, "shoulder") || !hasEdge(p, "armhole")) continue;
      const bool back = p.half == Half::Back;
      const Path& arm = p.edge("armhole").path;
      // Where several parts of a shoulder lie on one piece, the one beside the armhole.
      const std::string beside = besideArmhole(p, back);
      if (beside.empty()) continue;
      const Path& last = p.edge(beside).path;
      const double width = rules_.length(key::kInsertShoulder);
      const bool divided = std::abs(width - last.length()) < kSameInsert;
      if (!divided && width > last.length() - kClothBesideInsert)
        return Problem{"Insert at the shoulder",
                       msg("the shoulder of the {} is only {:.0f} mm wide", p.name, last.length()),
                       "make the insert narrower"};
      constexpr double kDown = 0.62;  // of the armhole
      const double wide = divided ? last.length() : width;
      const Anchor up{beside, back ? wide : last.length() - wide},
          down{"armhole", (back ? 1 - kDown : kDown) * arm.length()};
      const Vec2 a = last.pointAt(up.at), b = arm.pointAt(down.at), fall{0, 0.4 * (b.y - a.y)};
      const Vec2 out = unit(back ? Vec2{-1, 0.6} : Vec2{1, 0.6});
      const Path path(Cubic{a, a + fall, b - 0.35 * (b.y - a.y) * out, b});
      const std::string id = back ? "insert-shoulder-back" : "insert-shoulder-front";
      divide(i, back ? LineThrough{i, down, up, path.reversed()} : LineThrough{i, up, down, path}, id,
             back ? "Shoulder insert, back" : "Shoulder insert, front", key::kInsertShoulder);
      any = true;
    }
    if (any) return std::nullopt;
    return Problem{"Insert at the shoulder", "no piece has both the shoulder and the armhole",
                   "cover the shoulders (cover.kind=covered)"};
  }

 private:
  static double centreX(const Piece& p, bool upper) {
    for (const Edge& e : p.edges)
      if (isCentre(e.role)) return upper ? e.path.end().x : e.path.start().x;  // on the front it runs up
    return 0;
  }

  static bool nearEnd(const Piece& p, const Anchor& at) {
    const double length = p.edge(at.edge).path.length();
    return at.at < kClothBesideInsert || at.at > length - kClothBesideInsert;
  }

  // The part of the shoulder that meets the armhole.
  static std::string besideArmhole(const Piece& p, bool back) {
    const size_t n = p.edges.size(), arm = edgePlace(p, "armhole");
    const Edge& next = p.edges[(arm + (back ? 1 : n - 1)) % n];
    return next.id.starts_with("shoulder") ? next.id : "";
  }

  // Lines run so that the insert is on their left; its seams are walked from their upper ends.
  void walkDown(size_t insert) {
    for (Seam& s : pattern_.seams) {
      const Path side = pattern_.sidePath(s.a);
      if ((s.a.piece == insert || s.b.piece == insert) && side.start().y > side.end().y) turnSeam(pattern_, s);
    }
  }

  void divide(size_t index, LineThrough through, const std::string& id, const Message& name, LengthKey rule) {
    DividingLine line{id,
                      msg("{} seam", name),
                      "in the insert",
                      EdgeRole::Seam,
                      rules_.length(key::kAllowanceYoke),
                      {std::move(through)}};
    dividePieces(pattern_, line, {{id, name, Part::Insert}});
    walkDown(pattern_.pieces.size() - 1);
    Piece& insert = pattern_.pieces.back();
    insert.cloth = "net";
    layGrain(insert);
    layGrain(pattern_.pieces[index]);
    pattern_.workings.push_back(
        {id,
         msg("{}, wide at its upper end", name),
         {rules_.term(rule)},
         rules_.length(rule),
         "a piece of net, doubled, or of lace; sewn in with a seam of its own; common practice"});
  }

  Pattern& pattern_;
  const Block& block_;
  const Rules& rules_;
};

}  // namespace

std::optional<Problem> setInserts(Pattern& pattern, const Block& block, const Rules& rules) {
  const auto kind = rules.option(key::kInsertKind);
  InsertMaker maker(pattern, block, rules);
  if (kind == InsertKind::Shoulder || kind == InsertKind::Both)
    if (auto problem = maker.atShoulder()) return problem;
  if (kind == InsertKind::Centre || kind == InsertKind::Both)
    if (auto problem = maker.atCentre()) return problem;
  return std::nullopt;
}

}  // namespace armure
