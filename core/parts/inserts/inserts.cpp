#include "parts/inserts/inserts.h"

#include <algorithm>
#include <cmath>

#include "operations/divide.h"
#include "operations/grain.h"
#include "parts/inserts/rules.h"
#include "pattern/outline_parts.h"
#include "rules/prepare_rules.h"

namespace armure {
namespace {

constexpr double kClothBesideInsert = 12;  // mm of cloth on either side of the line

class InsertMaker {
 public:
  InsertMaker(Pattern& pattern, const Rules& rules) : pattern_(pattern), rules_(rules) {}

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
    const auto from = ends(false), to = ends(true);
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

  std::optional<Problem> atShoulder() {
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
      const bool divided = std::abs(width - last.length()) < 1;  // the other half's insert cut the seam there already
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

  void divide(size_t index, LineThrough through, const std::string& id, const Message& name, LengthKey rule) {
    DividingLine line{id,
                      msg("{} seam", name),
                      "in the insert",
                      EdgeRole::Seam,
                      rules_.length(key::kAllowanceYoke),
                      {std::move(through)}};
    dividePieces(pattern_, line, {{id, name, Part::Insert}});
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
  const Rules& rules_;
};

}  // namespace

std::optional<Problem> setInserts(Pattern& pattern, const Rules& rules) {
  const auto kind = rules.option(key::kInsertKind);
  InsertMaker maker(pattern, rules);
  if (kind == InsertKind::Shoulder || kind == InsertKind::Both)
    if (auto problem = maker.atShoulder()) return problem;
  if (kind == InsertKind::Centre || kind == InsertKind::Both)
    if (auto problem = maker.atCentre()) return problem;
  return std::nullopt;
}

}  // namespace armure
