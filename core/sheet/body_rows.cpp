#include "sheet/rows.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <utility>

#include "balance/fit.h"
#include "geometry/tolerances.h"
#include "measure/measure_table.h"
#include "pattern/outline_parts.h"

namespace armure {
namespace {

class BodyRows : RowMaker {
 public:
  using RowMaker::RowMaker;

  void girths() {
    for (const PatternLevel& l : pattern_.levels) {
      CheckRow r;
      r.kind = CheckKind::Girth;
      r.level = l.id;
      r.subject = msg("{}, closed girth", l.name);
      if (!l.ring) {
        r.verdict = Verdict::Note;
        r.detail = "not measured: the top edge or the hem cuts through this level, so the pieces do not make a ring";
        rows_.push_back(std::move(r));
        continue;
      }
      const double off = measureGirth(pattern_, l) - l.finishedGirth;
      r.detail = off > 0 ? "the pieces close too wide" : "the pieces close too narrow";
      judge(r, std::abs(off), limits::kLengthMm,
            "give the difference back at the side, or change the intakes of this level");
      skin(l);
      given(l);
    }
  }

  // How a strapless edge closes along itself, which need not be what the level above it closes to. A note: how far the
  // edge runs from level, and over what, only trying on can tell.
  void topEdge() {
    const PatternLevel* top = pattern_.level(level::kTop);
    double along = 0;
    for (const Piece& p : pattern_.pieces)
      for (const Edge& e : p.edges) {
        if (p.layer != "shell") continue;
        if (e.role == EdgeRole::Armhole) return;
        if (e.role == EdgeRole::Top) along += e.path.length() * p.girthWeight();
      }
    if (!top || along <= 0) return;
    CheckRow r;
    r.kind = CheckKind::Girth;
    r.level = level::kTop;
    r.subject = "Top edge, closed along itself";
    r.amount = along + top->gaps.opening - top->finishedGirth;
    r.verdict = Verdict::Note;
    r.detail =
        msg("{} along the edge, {} wanted on the level", Length{along + top->gaps.opening}, Length{top->finishedGirth});
    r.remedy = "where it stands off when tried on, hold it in more (hold.top)";
    rows_.push_back(std::move(r));
  }

  // Every line of a layer is as long as the shell's it lies on.
  void layers() {
    for (const LayerLine& l : pattern_.layerLines) {
      CheckRow r;
      r.kind = CheckKind::Layer;
      r.piece = pattern_.pieces[l.layer.front().piece].id;
      r.edge = l.layer.front().edge;
      r.subject = msg("{}: {}", pattern_.pieces[l.layer.front().piece].name, l.name);
      r.spot = evenPoints(pattern_.pieces[l.layer.front().piece].edge(r.edge).path, 3)[1];
      const double off = measureEdges(pattern_, l.layer) - shellLength(l);
      r.detail = off > 0 ? "longer than the shell it lies on" : "shorter than the shell it lies on";
      judge(r, std::abs(off), limits::kLengthMm, "keep the pieces balanced, so that the layer follows the shell");
    }
  }

  // Whether it is told of one half of the body alone; else of the left one for both.
  bool isOfOneSide(const Attachment& a) const {
    const Piece &host = pattern_.pieces[a.piece], &sewn = pattern_.pieces[a.attached.piece];
    return host.side != BodySide::Both || sewn.side != BodySide::Both || host.edge(a.edge).side != BodySide::Both ||
           sewn.edge(a.attached.edge).side != BodySide::Both;
  }

  // Every edge that is sewn on is so many times as long as its stretch, and all of it lies on one.
  void trims() {
    struct Sewn {
      const Attachment* first = nullptr;
      double covered = 0, off = 0;  // mm: on all copies; the worst of its stretches
    };
    std::map<std::pair<size_t, std::string>, Sewn> edges;
    for (const Attachment& a : pattern_.attachments) {
      if (a.trim.empty() || a.full == 0) continue;
      Sewn& sewn = edges[{a.attached.piece, a.attached.edge}];
      if (!sewn.first) sewn.first = &a;
      sewn.covered += (isOfOneSide(a) ? 1 : 2) * (a.onTo - a.onFrom + a.loose);
      sewn.off = std::max(sewn.off, std::abs(a.onTo - a.onFrom - a.full * (a.to - a.from)));
    }
    for (const auto& [where, sewn] : edges) {
      const Piece& p = pattern_.pieces[where.first];
      CheckRow r = edgeRow(CheckKind::Trim, p, p.edge(where.second), msg("{}, against its edge", p.name));
      r.detail = "what is sewn on is not as long as its edge and its fullness ask for";
      // One on the fold has its other half beyond it.
      const double length =
          (p.symmetry == Symmetry::OnFold ? 2 : p.copies) * measureEdges(pattern_, {sewn.first->attached});
      judge(r, std::max(sewn.off, std::abs(length - sewn.covered)), limits::kTrimMm,
            "this is a fault of the program: please keep the order file");
    }
  }

  // A ready-made cup against the opening it is sewn into: the frame's edges along the cup line.
  void cupRim() {
    if (input_.cupRim > 0)
      for (const SheetHalf& half : halves()) cupRim(half);
  }

  // Shoulder and armhole as the body has them, and as they were measured.
  void upperEdges() {
    for (const SheetHalf& half : halves()) {
      upperEdges(half);
      sideLength(half);
    }
  }

 private:
  void cupRim(const SheetHalf& half) {
    double opening = 0;
    for (const Piece& p : half.pattern.pieces)
      for (const Edge& e : p.edges)
        if (p.layer == "shell" && p.part == Part::Panel && e.role == EdgeRole::Cup) opening += e.path.length();
    CheckRow r;
    r.kind = CheckKind::Body;
    r.subject = onSide("Rim of the ready-made cup, against its opening", half.side);
    r.detail = input_.cupRim > opening
                   ? msg("{} along the rim, only {} along the opening", Length{input_.cupRim}, Length{opening})
                   : msg("{} along the rim, {} along the opening", Length{input_.cupRim}, Length{opening});
    judge(
        r, std::abs(input_.cupRim - opening), limits::kRimMm,
        "widen or narrow the outer cup (cup.outer_extra), move where it ends (cup.side), or pinch the dart in the cup "
        "by as much (mould.dart_wide)",
        Verdict::Advice);
  }

  void upperEdges(const SheetHalf& of) {
    double shoulder[2] = {0, 0}, armhole[2] = {0, 0};
    for (const Seam& s : of.pattern.seams) {
      if (s.kind != SeamKind::Shoulder) continue;
      for (const SeamSide* side : {&s.a, &s.b})
        shoulder[of.pattern.pieces[side->piece].half == Half::Back] += measureSide(of.pattern, *side).length;
    }
    for (const Piece& p : of.pattern.pieces)
      if (p.layer == "shell" && p.half != Half::Both)
        for (const Edge& e : p.edges)
          if (e.role == EdgeRole::Armhole) armhole[p.half == Half::Back] += e.path.length();
    const UpperLengths& u = of.upper;
    for (const bool back : {false, true}) {
      const char* half = back ? "back" : "front";
      againstBlock(onSide(msg("Shoulder, {}, against the body's", half), of.side), shoulder[back],
                   back ? u.shoulderBack : u.shoulderFront, limits::kShoulderMm,
                   "give back at the shoulder what the lines take in there (cover.dart, hold.top)");
      againstBlock(onSide(msg("Armhole, {}, against the block's", half), of.side), armhole[back],
                   back ? u.armholeBack : u.armholeFront, limits::kArmholeMm,
                   "take less in where a line meets the armhole, or let the line end on the shoulder (princess.above)");
    }
    if (u.armholeFront > 0 && u.armholeBack > 0)
      againstTape(onSide("Armhole, front and back together", of.side), id::kArmhole, armhole[0] + armhole[1],
                  "move the armhole in or out (armhole.inset_front, armhole.inset_back) or the chest line up or down");
  }

  // What a layer's line lies on: edges of the shell, a seam of it down to a notch, less what stays uncovered.
  double shellLength(const LayerLine& line) const {
    double sum = measureEdges(pattern_, line.shell) - line.uncovered;
    if (const Seam* seam = line.seam.empty() ? nullptr : pattern_.seam(line.seam)) {
      const MeasuredSide side = measureSide(pattern_, line.ofA ? seam->a : seam->b);
      if (const SidePlace* notch = side.find(line.notch)) sum += notch->at;
    }
    return sum;
  }

  // The uppermost edge at the centre front: an opening that ends above the hem has others below it.
  const Edge* upperCentre() const {
    const auto top = [](const Edge& e) { return std::min(e.path.start().y, e.path.end().y); };
    const Edge* centre = nullptr;
    for (const Piece& p : pattern_.pieces)
      for (const Edge& e : p.edges)
        if (p.layer == "shell" && p.half == Half::Front && isCentre(e.role) && (!centre || top(e) < top(*centre)))
          centre = &e;
    return centre;
  }

  // What a plunge leaves open, measured between its edges: from the piece next to the centre front to the centre.
  void skin(const PatternLevel& level) {
    constexpr double kNone = 0.01;  // mm
    if (std::abs(level.gaps.skin) < kNone) return;
    const Edge* centre = upperCentre();
    if (!centre) return;
    const Vec2 down = unit(centre->path.end() - centre->path.start());
    // Where the centre is taken in, the edge that was cut away ran elsewhere: the closed girth alone tells then.
    for (const Vec2 q : centre->path.flattened(tolerance::kOutlineFlatness))
      if (std::abs(cross(down, q - centre->path.start())) > limits::kLengthMm / 4) return;
    double nearest = HUGE_VAL;
    for (const Piece& p : pattern_.pieces) {
      if (p.layer != "shell" || p.half != Half::Front) continue;
      for (const LevelLine& l : p.levelLines())
        if (l.level == level.id) nearest = std::min(nearest, std::abs(cross(down, l.a - centre->path.start())));
    }
    if (nearest == HUGE_VAL) return;
    CheckRow r;
    r.kind = CheckKind::Girth;
    r.level = level.id;
    r.subject = msg("{}, open between the edges of the plunge", level.name);
    const double off = 2 * nearest - level.gaps.skin;
    r.detail =
        off > 0 ? "it leaves more open than the girth counts with" : "it leaves less open than the girth counts with";
    judge(r, std::abs(off), limits::kLengthMm, "hold the front panels, or draw the plunge again");
  }

  // What cloth on the bias has to give over a cup, against the width it has there.
  void given(const PatternLevel& level) {
    if (level.gaps.gathers <= limits::kLengthMm) return;
    for (const Piece& p : pattern_.pieces) {
      if (p.layer != "shell" || p.part != Part::CupCover) continue;
      for (const LevelLine& l : p.levelLines()) {
        if (l.level != level.id) continue;
        CheckRow r = pieceRow(p, msg("given by the bias on the {}", level.name));
        r.kind = CheckKind::Girth;
        r.level = level.id;
        r.detail = "more than cloth on the bias gives without a crease";
        judge(r, level.gaps.gathers / p.girthWeight(), limits::kBiasGives * l.width(),
              "use cut cups, a stretch cloth, or a flatter ready-made cup", Verdict::Advice);
      }
    }
  }

  void againstBlock(Message subject, double found, double wanted, double limit, Message remedy) {
    if (wanted <= 0) return;
    CheckRow r;
    r.kind = CheckKind::Body;
    r.subject = std::move(subject);
    r.detail = found > wanted ? "longer than it should be" : "shorter than it should be";
    judge(r, std::abs(found - wanted), limit, remedy);
  }

  void againstTape(Message subject, std::string_view measure, double found, Message remedy) {
    const Fact* fact = input_.body.find(measure);
    if (!fact || fact->source != Source::Taken) return;
    CheckRow r;
    r.kind = CheckKind::Body;
    r.subject = msg("{}, against the tape", subject);
    r.level = measure;
    r.detail = found > fact->mm ? "longer than measured" : "shorter than measured";
    judge(r, std::abs(found - fact->mm), limits::kMeasuredMm, remedy, Verdict::Advice);
  }

  // From the underarm, or the chest line, to the waist along both sides of the side seam; where it begins lower it
  // cannot be compared.
  void sideLength(const SheetHalf& half) {
    const Seam* side = bodiceSide(half.pattern);
    if (!side) return;
    for (const auto& [s, name] : {std::pair{&side->a, "front"}, {&side->b, "back"}}) {
      const Path path = measureSide(half.pattern, *s).path;
      const auto placeOf = [&](std::string_view level) -> std::optional<double> {
        for (const LevelLine& m : half.pattern.pieces[s->piece].levelLines())
          if (m.level == level)
            for (const Vec2 end : {m.a, m.b})
              if (const auto at = nearOn(path, end)) return at;
        return std::nullopt;
      };
      auto chest = placeOf(level::kChest);
      const auto waist = placeOf(level::kWaist);
      // Under an armhole the side begins at the underarm.
      if (!chest && measureCorner(half.pattern, *s, true).across->role == EdgeRole::Armhole) chest = 0;
      if (chest && waist)
        againstTape(
            onSide(msg("Side length, {}", name), half.side), id::kSideLength, std::abs(*waist - *chest),
            "draft the side by its length (side.school), let the dart follow it (dart.side), or check the heights that "
            "were taken");
    }
  }
};

}  // namespace

void addBodyRows(const SheetInput& input, std::vector<CheckRow>& rows) {
  BodyRows maker(input, rows);
  maker.girths();
  maker.topEdge();
  maker.layers();
  maker.trims();
  maker.upperEdges();
  maker.cupRim();
}

}  // namespace armure
