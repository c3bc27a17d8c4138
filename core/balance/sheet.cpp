#include "balance/sheet.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>

#include "balance/fit.h"
#include "lowered.h"
#include "measure/measure_table.h"
#include "pieces/crossing.h"
#include "pieces/outline_parts.h"

namespace armure {
namespace {

constexpr double kDegrees = 180 / std::numbers::pi;
constexpr double kStraight = 1e5;    // mm of radius: an edge without a bend
constexpr double kShownTrim = 0.05;  // mm: less is not worth a line
constexpr int kSpots = 65;
constexpr double kFlatness = 0.02;  // mm, for outlines checked as polygons

class SheetMaker {
 public:
  explicit SheetMaker(const SheetInput& input) : input_(input), pattern_(input.pattern), cut_(input.cutOutlines) {
    for (const Seam& seam : pattern_.seams) along_.push_back(evenPoints(pattern_.sidePath(seam.a), kSpots));
  }

  // Told first: the rows that fail for it come after.
  void wishes() {
    if (!input_.balanced) return;
    for (const Unreachable& u : input_.balanced->unreachable) {
      const UnreachableWords words = wordsOf(u, pattern_);
      CheckRow r;
      r.kind = CheckKind::Wish;
      r.verdict = Verdict::Fail;
      r.quantity = Quantity::Count;
      r.amount = 1;
      r.subject = "Cannot be balanced" + (words.subject.empty() ? "" : ": " + words.subject);
      r.detail = words.detail;
      r.remedy = "let go of an edge that is held, or let both sides of the seam give way";
      r.seam = u.seam;
      rows_.push_back(std::move(r));
    }
  }

  void seams() {
    for (const Seam& seam : pattern_.seams) {
      const Walk w = walk(pattern_, seam);
      for (const Stretch& s : w.stretches) {
        CheckRow r = seamRow(CheckKind::Stretch, seam,
                             fmt::format("{}, {} to {}", seam.name, placeName(seam, s.from), placeName(seam, s.to)));
        r.detail = fmt::format("{} longer", longer(seam, s.mismatch()));
        r.level = s.to == "hem" ? s.from : s.to;
        r.spot = spotOn(seam, s, w);
        judge(r, std::abs(s.mismatch()), limits::kLengthMm,
              "move the longer edge in or the shorter one out between these notches");
      }
      CheckRow r = seamRow(CheckKind::Seam, seam, seam.name + ", whole");
      r.detail = fmt::format("{} longer", longer(seam, w.mismatch()));
      judge(r, std::abs(w.mismatch()), limits::kLengthMm, "trim the longer side at the top or the hem");
    }
  }

  void girths() {
    for (const PatternLevel& l : pattern_.levels) {
      CheckRow r;
      r.kind = CheckKind::Girth;
      r.level = l.id;
      r.subject = fmt::format("{}, closed girth", l.name);
      if (!l.ring) {
        r.verdict = Verdict::Note;
        r.detail = "not measured: the top edge or the hem cuts through this level, so the pieces do not make a ring";
        rows_.push_back(std::move(r));
        continue;
      }
      const double off = pattern_.closedGirth(l) - l.finishedGirth;
      r.detail = off > 0 ? "the pieces close too wide" : "the pieces close too narrow";
      judge(r, std::abs(off), limits::kLengthMm,
            "give the difference back at the side, or change the intakes of this level");
      skin(l);
    }
  }

  // What a plunge leaves open, measured between its edges: from the piece next to the centre front to the centre.
  void skin(const PatternLevel& level) {
    constexpr double kNone = 0.01;  // mm
    if (std::abs(level.gaps.skin) < kNone) return;
    const Edge* centre = nullptr;
    for (const Piece& p : pattern_.pieces)
      for (const Edge& e : p.edges)
        if (p.layer == "shell" && p.half == Half::Front && isCentre(e.role) && !centre) centre = &e;
    if (!centre) return;
    const Vec2 down = unit(centre->path.end() - centre->path.start());
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
    r.subject = fmt::format("{}, open between the edges of the plunge", level.name);
    const double off = 2 * nearest - level.gaps.skin;
    r.detail =
        off > 0 ? "it leaves more open than the girth counts with" : "it leaves less open than the girth counts with";
    judge(r, std::abs(off), limits::kLengthMm, "hold the front panels, or draw the plunge again");
  }

  void joins() {
    for (const Seam& seam : pattern_.seams) {
      for (const bool atTop : {true, false}) {
        const SeamEnd a = seamEnd(pattern_, seam.a, atTop), b = seamEnd(pattern_, seam.b, atTop);
        if (a.acrossRole != b.acrossRole || !(isFree(a.acrossRole) || isSewn(a.acrossRole))) continue;
        const double turn = turnAcross(pattern_, seam, atTop) * kDegrees;
        if (!isFree(a.acrossRole) && std::abs(turn) > limits::kMeantCornerDegrees) continue;
        CheckRow r = seamRow(
            CheckKind::Join, seam,
            fmt::format("{} at the {}{}", acrossName(seam.a, a), lowered(seam.name), whichEnd(a.acrossRole, atTop)));
        r.detail = turn > 0 ? "points outwards when closed" : "dips in when closed";
        r.quantity = Quantity::Angle;
        r.spot = a.corner;
        judge(r, std::abs(turn), limits::kJoinDegrees,
              "redraw the line across the seam with the pieces laid edge to edge");

        CheckRow c = seamRow(CheckKind::Corner, seam,
                             fmt::format("{}, corners at the {}", seam.name, placeName(seam, atTop ? "top" : "hem")));
        c.spot = a.corner;
        if (a.fromUnderbust && b.fromUnderbust) {
          c.detail = "the corners do not meet when the seam is closed from the underbust notch";
          judge(c, std::abs(*a.fromUnderbust - *b.fromUnderbust - easeBeyondUnderbust(walk(pattern_, seam), atTop)),
                limits::kLengthMm, "trim the longer side");
        }
      }
    }
  }

  void curves() {
    for (const Piece& p : pattern_.pieces) {
      for (const Edge& e : p.edges) {
        if (!isSewn(e.role) && e.role != EdgeRole::Centre) continue;
        CheckRow r = edgeRow(CheckKind::Curve, p, e, fmt::format("{}, {} edge, tightest bend", p.name, e.id));
        const double radius = e.path.tightestRadius();
        r.detail = "the radius is below the limit: the cloth will pucker there";
        r.amount = std::min(radius, kStraight);
        r.limit = e.role == EdgeRole::Cup ? limits::kCupRadiusMm : limits::kRadiusMm;
        if (!(radius >= r.limit)) {
          r.verdict = Verdict::Advice;
          r.remedy = "round the bust point over a longer stretch, or take less into this seam";
        }
        rows_.push_back(r);

        CheckRow b = edgeRow(CheckKind::Curve, p, e, fmt::format("{}, {} edge, changes of bend", p.name, e.id));
        b.quantity = Quantity::Count;
        b.detail = "the edge wiggles";
        // Each level may ask for one; more than that no width explains.
        judge(b, e.path.inflections(), std::max(limits::kMostBends, static_cast<int>(p.levelLines().size())),
              "make the intakes run more evenly from level to level", Verdict::Advice);
      }
    }
  }

  // What closing the dart and trimming changed; nothing is done in silence.
  void changes() {
    if (pattern_.closing.angleRad > 0) {
      CheckRow r;
      r.kind = CheckKind::Girth;
      r.level = level::kBust;
      r.subject = "Closing the side bust dart";
      r.detail = fmt::format(
          "turned the side front by {:.1f} degrees about the bust point; the princess intake opens by as much below "
          "it; "
          "largest change of a width on any level",
          pattern_.closing.angleRad * kDegrees);
      judge(r, pattern_.closing.changed, limits::kLengthMm,
            "this is a fault of the program: please keep the order file");
    }
    for (const Trim& t : pattern_.trims) {
      if (t.amount < kShownTrim) continue;
      for (const Seam& seam : pattern_.seams) {
        if (seam.id != t.seam) continue;
        CheckRow r =
            seamRow(CheckKind::Seam, seam, fmt::format("{}, trimmed at the {}", seam.name, t.atTop ? "top" : "hem"));
        r.verdict = Verdict::Note;
        r.detail = fmt::format("cut off the {}, which was longer", lowered(pattern_.pieces[t.piece].name));
        r.amount = t.amount;
        rows_.push_back(std::move(r));
      }
    }
  }

  void sides() {
    for (const Seam& seam : pattern_.seams) {
      if (seam.id != "side") continue;
      // As they are pinned: right sides together, so one of them is turned over.
      const auto apart = [](const Path& a, const Path& b) {
        return shapeDifference(a, b.transformed(Motion::mirrorX()));
      };
      const double found = apart(pattern_.sidePath(seam.a), pattern_.sidePath(seam.b));
      const Path neededA = throughLevels(pattern_, seam.a), neededB = throughLevels(pattern_, seam.b);
      if (neededA.empty() || neededB.empty()) continue;  // a side so short that no level crosses it
      const double needed = apart(neededA, neededB);
      CheckRow r = seamRow(CheckKind::Sides, seam, "Front and back side, shape");
      r.detail = "farther apart, laid on each other, than their widths need";
      judge(r, std::max(0.0, found - needed), limits::kSideShapeMm,
            "draw both sides in one smooth curve from level to level");
      if (found <= limits::kSideLeanMm) continue;
      CheckRow lean = seamRow(CheckKind::Sides, seam, "Front and back side bend differently");
      lean.verdict = Verdict::Advice;
      lean.amount = found;
      lean.limit = limits::kSideLeanMm;
      lean.detail = "their widths on the levels need it; the seam leans";
      lean.remedy = "shift intake between the side and the lines next to it, or choose another front and back share";
      rows_.push_back(std::move(lean));
    }
  }

  void pieces() {
    for (size_t i = 0; i < pattern_.pieces.size(); ++i) {
      const Piece& p = pattern_.pieces[i];
      double gap = 0;
      for (size_t k = 0; k < p.edges.size(); ++k)
        gap = std::max(gap, distance(p.edges[k].path.end(), p.edges[(k + 1) % p.edges.size()].path.start()));
      CheckRow closed = pieceRow(p, "edges meet");
      closed.detail = "two edges do not meet";
      judge(closed, gap, limits::kClosedMm, "this is a fault of the program: please keep the order file");

      CheckRow simple = pieceRow(p, "outline");
      simple.quantity = Quantity::Count;
      const bool sewn = isSimple(p.outline(kFlatness)), cut = isSimple(cut_[i]);
      simple.detail = sewn ? "the outline to cut crosses itself" : "the sewn outline crosses itself";
      judge(simple, sewn && cut ? 0 : 1, 0, "take less into its seams, or make the allowance smaller");

      for (const Edge& e : p.edges) {
        // Pieces run clockwise, so outside is on the left of an edge: a hollow bends that way.
        const double hollow = e.path.tightestLeftRadius();
        if (hollow >= e.allowance) continue;
        CheckRow clip = edgeRow(CheckKind::Piece, p, e, fmt::format("{}, {} edge, allowance", p.name, e.id));
        clip.verdict = Verdict::Note;
        clip.detail =
            "wider than the hollow it lies in, which has this radius: the cut line runs a little further off there; "
            "clip it";
        clip.amount = hollow;
        rows_.push_back(std::move(clip));
      }
      for (const LevelLine& m : p.levelLines()) {
        const double width = m.width() * (p.onFold.empty() ? 1 : 2);
        const double least = betweenFoldAndCup(p, m) ? limits::kBridgeMm : limits::kNarrowMm;
        if (width >= least || cutsCorner(p, m)) continue;
        CheckRow narrow = pieceRow(p, "width");
        narrow.level = m.level;
        const bool sewable = width >= std::min(least, limits::kTooNarrowMm);
        narrow.detail =
            sewable ? "the piece is narrow: its seams lie close together" : "the piece is too narrow to sew";
        narrow.amount = width;
        narrow.limit = least;
        narrow.verdict = sewable ? Verdict::Advice : Verdict::Fail;
        narrow.remedy = "take less into its lines on this level, or use fewer lines";
        rows_.push_back(narrow);
      }
    }
  }

  void intakes(const std::vector<Intake>& all) {
    for (const Intake& i : all) {
      if (i.amount < 1e-9) continue;
      CheckRow r;
      r.kind = CheckKind::Intake;
      r.level = i.level;
      r.seam = i.line;
      r.subject = fmt::format("{}, intake at the {}", i.name.empty() ? i.line : i.name, lowered(levelName(i.level)));
      r.detail = "more than one seam should take";
      judge(r, i.amount, i.cap,
            i.cures.empty() ? "use more panel lines, reduce less, or allow this line more" : i.cures, Verdict::Advice);
    }
  }

  // How far balancing has redrawn the edges that are not sewn: what one sees of a garment.
  void freeEdges() {
    if (!input_.balanced) return;
    for (const EdgeMove& m : input_.balanced->moves) {
      const Piece& p = pattern_.pieces[m.piece];
      const Edge& e = p.edge(m.edge);
      if (!isFree(e.role)) continue;
      CheckRow r = edgeRow(CheckKind::FreeEdge, p, e, fmt::format("{}, {} edge, as drafted", p.name, e.id));
      r.detail = "balancing has redrawn it further than a line one sees may go";
      r.spot = m.at;
      judge(r, m.across, input_.freeLimit,
            "let only one side of the seams beside it give way, hold them, or keep their difference as ease; or allow "
            "more (balance.free_limit)");
    }
  }

  // Every line of a layer is as long as the shell's it lies on.
  void layers() {
    for (const LayerLine& l : pattern_.layerLines) {
      CheckRow r;
      r.kind = CheckKind::Layer;
      r.piece = pattern_.pieces[l.layer.front().piece].id;
      r.edge = l.layer.front().edge;
      r.subject = fmt::format("{}: {}", pattern_.pieces[l.layer.front().piece].name, l.name);
      r.spot = evenPoints(pattern_.pieces[l.layer.front().piece].edge(r.edge).path, 3)[1];
      const double off = pattern_.layerLength(l) - pattern_.shellLength(l);
      r.detail = off > 0 ? "longer than the shell it lies on" : "shorter than the shell it lies on";
      judge(r, std::abs(off), limits::kLengthMm, "keep the pieces balanced, so that the layer follows the shell");
    }
  }

  // Shoulder and armhole as the body has them, and as they were measured.
  void upperEdges() {
    double shoulder[2] = {0, 0}, armhole[2] = {0, 0};
    for (const Seam& s : pattern_.seams) {
      if (!s.id.starts_with("shoulder")) continue;
      for (const SeamSide* side : {&s.a, &s.b})
        shoulder[pattern_.pieces[side->piece].half == Half::Back] += pattern_.sidePath(*side).length();
    }
    for (const Piece& p : pattern_.pieces)
      if (p.layer == "shell" && p.half != Half::Both)
        for (const Edge& e : p.edges)
          if (e.role == EdgeRole::Armhole) armhole[p.half == Half::Back] += e.path.length();
    const UpperLengths& u = input_.upper;
    for (const bool back : {false, true}) {
      const char* half = back ? "back" : "front";
      againstBlock(fmt::format("Shoulder, {}, against the body's", half), shoulder[back],
                   back ? u.shoulderBack : u.shoulderFront, limits::kShoulderMm,
                   "give back at the shoulder what the lines take in there (cover.dart, hold.top)");
      againstBlock(fmt::format("Armhole, {}, against the block's", half), armhole[back],
                   back ? u.armholeBack : u.armholeFront, limits::kArmholeMm,
                   "take less in where a line meets the armhole, or let the line end on the shoulder (princess.above)");
    }
    if (u.armholeFront > 0 && u.armholeBack > 0)
      againstTape("Armhole, front and back together", id::kArmhole, armhole[0] + armhole[1],
                  "move the armhole in or out (armhole.inset_front, armhole.inset_back) or the chest line up or down");
    sideLength();
  }

  Sheet finish() && {
    const auto rank = [](const CheckRow& r) {
      switch (r.verdict) {
        case Verdict::Fail:
          return 0;
        case Verdict::Advice:
          return 1;
        case Verdict::Note:
          return 2;
        case Verdict::Pass:
          break;
      }
      return 3;
    };
    std::stable_sort(rows_.begin(), rows_.end(),
                     [&](const CheckRow& a, const CheckRow& b) { return rank(a) < rank(b); });
    return {std::move(rows_)};
  }

  void facts() {
    for (const Fact& f : input_.body.facts()) {
      if (f.source != Source::Estimated) continue;
      CheckRow r;
      r.kind = CheckKind::Facts;
      r.verdict = Verdict::Note;
      r.subject = fmt::format("{} is estimated", findMeasure(f.id)->name);
      r.detail = "measure it before cutting; one standard deviation";
      r.amount = f.spread;
      r.level = f.id;
      rows_.push_back(std::move(r));
    }
  }

 private:
  void againstBlock(std::string subject, double found, double wanted, double limit, std::string_view remedy) {
    if (wanted <= 0) return;
    CheckRow r;
    r.kind = CheckKind::Body;
    r.subject = std::move(subject);
    r.detail = found > wanted ? "longer than it should be" : "shorter than it should be";
    judge(r, std::abs(found - wanted), limit, remedy);
  }

  void againstTape(std::string subject, std::string_view measure, double found, std::string_view remedy) {
    const Fact* fact = input_.body.find(measure);
    if (!fact || fact->source != Source::Taken) return;
    CheckRow r;
    r.kind = CheckKind::Body;
    r.subject = subject + ", against the tape";
    r.level = measure;
    r.detail = found > fact->mm ? "longer than measured" : "shorter than measured";
    judge(r, std::abs(found - fact->mm), limits::kMeasuredMm, remedy, Verdict::Advice);
  }

  // From the underarm, or the chest line, to the waist along both sides of the side seam; where it begins lower it
  // cannot be compared.
  void sideLength() {
    const Seam* side = pattern_.seam("side");
    if (!side) return;
    for (const auto& [s, name] : {std::pair{&side->a, "front"}, {&side->b, "back"}}) {
      const Path path = pattern_.sidePath(*s);
      const auto placeOf = [&](std::string_view level) -> std::optional<double> {
        for (const LevelLine& m : pattern_.pieces[s->piece].levelLines())
          if (m.level == level)
            for (const Vec2 end : {m.a, m.b})
              if (const auto at = nearOn(path, end)) return at;
        return std::nullopt;
      };
      auto chest = placeOf(level::kChest);
      const auto waist = placeOf(level::kWaist);
      // Under an armhole the side begins at the underarm.
      if (!chest && seamEnd(pattern_, *s, true).acrossRole == EdgeRole::Armhole) chest = 0;
      if (chest && waist)
        againstTape(fmt::format("Side length, {}", name), id::kSideLength, std::abs(*waist - *chest),
                    "move the chest line (shoulder_to_chest, chest.school) or check the heights that were taken");
    }
  }

  std::string levelName(const std::string& id) const {
    for (const PatternLevel& l : pattern_.levels)
      if (l.id == id) return lowered(l.name);
    return id;
  }
  // A notch of a seam, or one of its ends, in words.
  std::string placeName(const Seam& seam, const std::string& id) const {
    if (id != "top" && id != "hem") return levelName(id);
    const bool atTop = id == "top";
    const EdgeRole across = seamEnd(pattern_, seam.a, atTop).acrossRole;
    if (across == EdgeRole::Top) return "top edge";
    if (across == EdgeRole::Hem) return "hem";
    return across == EdgeRole::Cup ? "cup line" : atTop ? "upper end" : "lower end";
  }
  std::string longer(const Seam& seam, double mismatch) const {
    return lowered(pattern_.pieces[(mismatch > 0 ? seam.a : seam.b).piece].name);
  }
  // The line that runs on across the end of a seam.
  std::string acrossName(const SeamSide& side, const SeamEnd& end) const {
    if (end.acrossRole == EdgeRole::Top) return "Top edge";
    if (end.acrossRole == EdgeRole::Hem) return "Hem";
    const std::string& edge = pattern_.pieces[side.piece].edges[end.across].id;
    for (const Seam& s : pattern_.seams)
      for (const SeamSide* other : {&s.a, &s.b})
        if (other->piece == side.piece && other->uses(edge)) return s.name;
    return "Edge";
  }
  // Top edge and hem say at which end of the seam it is.
  static std::string_view whichEnd(EdgeRole across, bool atTop) {
    return !isSewn(across) ? "" : atTop ? ", upper end" : ", lower end";
  }
  // A level between two edges that meet, or to the top edge or hem, only crosses a corner of the piece.
  static bool cutsCorner(const Piece& p, const LevelLine& m) {
    const size_t n = p.edges.size();
    std::vector<bool> a, b;
    for (const Edge& e : p.edges) {
      a.push_back(nearOn(e.path, m.a).has_value());
      b.push_back(nearOn(e.path, m.b).has_value());
    }
    for (size_t i = 0; i < n; ++i) {
      if ((isFree(p.edges[i].role) && (a[i] || b[i])) || (a[i] && b[(i + 1) % n]) || (b[i] && a[(i + 1) % n]))
        return true;
    }
    return false;
  }
  // The bridge between two cups: from the fold to a cup line.
  static bool betweenFoldAndCup(const Piece& p, const LevelLine& m) {
    const auto meets = [&](EdgeRole role) {
      return std::any_of(p.edges.begin(), p.edges.end(),
                         [&](const Edge& e) { return e.role == role && (nearOn(e.path, m.a) || nearOn(e.path, m.b)); });
    };
    return meets(EdgeRole::Cup) && (meets(EdgeRole::Fold) || meets(EdgeRole::Top));
  }
  // What is planned to be eased in between the underbust notch and one end of a seam.
  static double easeBeyondUnderbust(const Walk& w, bool atTop) {
    double above = 0, below = 0;
    bool passed = false;
    for (const Stretch& s : w.stretches) {
      passed = passed || s.from == level::kUnderbust;
      (passed ? below : above) += s.plannedEase;
    }
    return atTop ? above : below;
  }
  // Where to look along a seam: `part` of its length from the upper end, good to a sixty-fourth.
  Vec2 spotAlong(const Seam& seam, double part) const {
    const auto& points = along_[static_cast<size_t>(&seam - pattern_.seams.data())];
    return points[static_cast<size_t>(std::lround(std::clamp(part, 0.0, 1.0) * (kSpots - 1)))];
  }
  Vec2 spotOn(const Seam& seam, const Stretch& s, const Walk& w) const {
    double at = 0;
    for (const Stretch& before : w.stretches) {
      if (before.from == s.from) break;
      at += before.lengthA;
    }
    return spotAlong(seam, (at + s.lengthA / 2) / w.lengthA);
  }
  CheckRow seamRow(CheckKind kind, const Seam& seam, std::string subject) const {
    CheckRow r;
    r.kind = kind;
    r.seam = seam.id;
    r.piece = pattern_.pieces[seam.a.piece].id;
    r.edge = seam.a.chain.front().edge;
    r.subject = std::move(subject);
    r.spot = spotAlong(seam, 0.5);
    return r;
  }
  static CheckRow edgeRow(CheckKind kind, const Piece& p, const Edge& e, std::string subject) {
    CheckRow r;
    r.kind = kind;
    r.piece = p.id;
    r.edge = e.id;
    r.subject = std::move(subject);
    r.spot = evenPoints(e.path, 3)[1];
    return r;
  }
  static CheckRow pieceRow(const Piece& p, std::string_view what) {
    CheckRow r;
    r.kind = CheckKind::Piece;
    r.piece = p.id;
    r.subject = fmt::format("{}, {}", p.name, what);
    r.spot = lerp(p.grainTop, p.grainBottom, 0.5);
    return r;
  }
  void judge(CheckRow& r, double amount, double limit, std::string_view remedy, Verdict otherwise = Verdict::Fail) {
    r.amount = amount;
    r.limit = limit;
    r.verdict = std::isfinite(amount) && amount <= limit + 1e-9 ? Verdict::Pass : otherwise;
    if (!r.passes()) r.remedy = remedy;
    rows_.push_back(r);
  }

  const SheetInput& input_;
  const Pattern& pattern_;
  const std::vector<Polyline>& cut_;
  std::vector<std::vector<Vec2>> along_;  // points along side a of every seam
  std::vector<CheckRow> rows_;
};

}  // namespace

std::string_view checkName(CheckKind kind) {
  switch (kind) {
    case CheckKind::Wish:
      return "wish";
    case CheckKind::Stretch:
      return "stretch";
    case CheckKind::Seam:
      return "seam";
    case CheckKind::Girth:
      return "girth";
    case CheckKind::Join:
      return "join";
    case CheckKind::Corner:
      return "corner";
    case CheckKind::Curve:
      return "curve";
    case CheckKind::Sides:
      return "front/back side";
    case CheckKind::Piece:
      return "piece";
    case CheckKind::FreeEdge:
      return "free edge";
    case CheckKind::Layer:
      return "layer";
    case CheckKind::Body:
      return "body";
    case CheckKind::Intake:
      return "intake";
    case CheckKind::Idle:
      return "idle";
    case CheckKind::Facts:
      break;
  }
  return "facts";
}

std::string_view verdictName(Verdict verdict) {
  switch (verdict) {
    case Verdict::Fail:
      return "fail";
    case Verdict::Advice:
      return "advice";
    case Verdict::Note:
      return "note";
    case Verdict::Pass:
      break;
  }
  return "pass";
}

size_t Sheet::count(Verdict verdict) const {
  return static_cast<size_t>(
      std::count_if(rows.begin(), rows.end(), [&](const CheckRow& r) { return r.verdict == verdict; }));
}

Sheet balanceSheet(const SheetInput& input) {
  SheetMaker maker(input);
  maker.wishes();
  maker.seams();
  maker.girths();
  maker.joins();
  maker.curves();
  maker.changes();
  maker.sides();
  maker.pieces();
  maker.freeEdges();
  maker.layers();
  maker.upperEdges();
  maker.intakes(input.intakes);
  maker.facts();
  return std::move(maker).finish();
}

void addIdleRows(Sheet& sheet, const std::vector<std::pair<std::string, std::string>>& keysAndReasons) {
  const auto firstPassing =
      std::find_if(sheet.rows.begin(), sheet.rows.end(), [](const CheckRow& r) { return r.passes(); });
  std::vector<CheckRow> rows;
  for (const auto& [key, reason] : keysAndReasons) {
    CheckRow r;
    r.kind = CheckKind::Idle;
    r.verdict = Verdict::Note;
    r.quantity = Quantity::Count;
    r.subject = key + " is idle";
    r.detail = reason;
    r.level = key;
    rows.push_back(std::move(r));
  }
  sheet.rows.insert(firstPassing, rows.begin(), rows.end());
}

}  // namespace armure
