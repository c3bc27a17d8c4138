#include "sheet/rows.h"

#include <algorithm>
#include <cmath>

#include <numbers>

#include "balance/fit.h"
#include "pattern/outline_parts.h"

namespace armure {
namespace {

constexpr double kDegrees = 180 / std::numbers::pi;
constexpr double kShownTrim = 0.05;  // mm: less is not worth a line
constexpr int kSpots = 65;

class SeamRows : RowMaker {
 public:
  SeamRows(const SheetInput& input, std::vector<CheckRow>& rows) : RowMaker(input, rows) {
    for (const Seam& seam : pattern_.seams) {
      measured_.push_back(measureSeam(pattern_, seam));
      along_.push_back(evenPoints(measured_.back().a.path, kSpots));
    }
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
      r.subject = words.subject.empty() ? Message("Cannot be balanced") : msg("Cannot be balanced: {}", words.subject);
      r.detail = words.detail;
      r.remedy = "let go of an edge that is held, or let both sides of the seam give way";
      r.seam = u.seam;
      rows_.push_back(std::move(r));
    }
  }

  void seams() {
    for (const Seam& seam : pattern_.seams) {
      const MeasuredSeam& w = measuredOf(seam);
      for (const MeasuredStretch& s : w.stretches) {
        CheckRow r = seamRow(CheckKind::Stretch, seam,
                             msg("{}, {} to {}", seam.name, placeName(seam, s.from), placeName(seam, s.to)));
        r.detail = msg("{} longer", longer(seam, s.mismatch()));
        r.level = s.to == "hem" ? s.from : s.to;
        r.spot = spotOn(seam, s, w);
        judge(r, std::abs(s.mismatch()), limits::kLengthMm,
              "move the longer edge in or the shorter one out between these notches");
      }
      CheckRow r = seamRow(CheckKind::Seam, seam, msg("{}, whole", seam.name));
      r.detail = msg("{} longer", longer(seam, w.mismatch()));
      judge(r, std::abs(w.mismatch()), limits::kLengthMm, "trim the longer side at the top or the hem");
    }
  }

  // Lines that run on across the ends of seams, and the corners there.
  void joins() {
    for (const Seam& seam : pattern_.seams)
      for (const bool atTop : {true, false}) {
        const MeasuredCorner a = measureCorner(pattern_, seam.a, atTop), b = measureCorner(pattern_, seam.b, atTop);
        const EdgeRole role = a.across->role;
        if (role != b.across->role || !(isFree(role) || isSewn(role))) continue;
        const double turn = turnBetween(a, b) * kDegrees;
        // What meets its mirror image at the centre makes the point or the dip that was drawn.
        if ((!isFree(role) || atCentre(seam)) && std::abs(turn) > limits::kMeantCornerDegrees) continue;
        CheckRow r = seamRow(CheckKind::Join, seam,
                             msg("{} at the {}{}", acrossName(seam.a, *a.across), seam.name, whichEnd(role, atTop)));
        r.detail = turn > 0 ? "points outwards when closed" : "dips in when closed";
        r.quantity = Quantity::Angle;
        r.spot = a.point;
        judge(r, std::abs(turn), limits::kJoinDegrees,
              "redraw the line across the seam with the pieces laid edge to edge");
        corner(seam, atTop, a.point);
      }
  }

  // What closing the dart and trimming changed; nothing is done in silence.
  void changes() {
    if (pattern_.closing.angleRad > 0) {
      CheckRow r;
      r.kind = CheckKind::Girth;
      r.level = level::kBust;
      r.subject = "Closing the side bust dart";
      r.detail = msg(
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
        CheckRow r = seamRow(CheckKind::Seam, seam, msg("{}, trimmed at the {}", seam.name, t.atTop ? "top" : "hem"));
        r.verdict = Verdict::Note;
        r.detail = msg("cut off the {}, which was longer", pattern_.pieces[t.piece].name);
        r.amount = t.amount;
        rows_.push_back(std::move(r));
      }
    }
  }

  void sides() {
    for (const SheetHalf& half : halves())
      if (const Seam* side = bodiceSide(half.pattern)) sides(half, *side);
  }

 private:
  // As they are pinned: right sides together, so one of them is turned over.
  void sides(const SheetHalf& half, const Seam& side) {
    const auto apart = [](const Path& a, const Path& b) {
      return shapeDifference(a, b.transformed(Motion::mirrorX()));
    };
    const double found = apart(measureSide(half.pattern, side.a).path, measureSide(half.pattern, side.b).path);
    const Path neededA = throughLevels(half.pattern, side.a), neededB = throughLevels(half.pattern, side.b);
    if (neededA.empty() || neededB.empty()) return;  // a side so short that no level crosses it
    const double needed = apart(neededA, neededB);
    const Seam& seam = wholeSeam(side, half.side);
    CheckRow r = seamRow(CheckKind::Sides, seam, onSide("Front and back side, shape", half.side));
    r.detail = "farther apart, laid on each other, than their widths need";
    judge(r, std::max(0.0, found - needed), limits::kSideShapeMm,
          "draw both sides in one smooth curve from level to level");
    if (found <= limits::kSideLeanMm) return;
    CheckRow lean = seamRow(CheckKind::Sides, seam, onSide("Front and back side bend differently", half.side));
    lean.verdict = Verdict::Advice;
    lean.amount = found;
    lean.limit = limits::kSideLeanMm;
    lean.detail = "their widths on the levels need it; the seam leans";
    lean.remedy = "shift intake between the side and the lines next to it, or choose another front and back share";
    rows_.push_back(std::move(lean));
  }

  bool atCentre(const Seam& seam) const {
    const Piece &a = pattern_.pieces[seam.a.piece], &b = pattern_.pieces[seam.b.piece];
    return &a != &b && !a.splitOf.empty() && a.splitOf == b.splitOf;
  }

  // Both corners are as far from the underbust notch, where sewing starts.
  void corner(const Seam& seam, bool atTop, Vec2 spot) {
    const MeasuredSeam& w = measuredOf(seam);
    const SidePlace *a = w.a.find(level::kUnderbust), *b = w.b.find(level::kUnderbust);
    if (!a || !b) return;
    CheckRow c = seamRow(CheckKind::Corner, seam,
                         msg("{}, corners at the {}", seam.name, placeName(seam, atTop ? "top" : "hem")));
    c.spot = spot;
    c.detail = "the corners do not meet when the seam is closed from the underbust notch";
    const double off = atTop ? a->at - b->at : (w.a.length - a->at) - (w.b.length - b->at);
    judge(c, std::abs(off - easeBeyondUnderbust(w, atTop)), limits::kLengthMm, "trim the longer side");
  }

  // A notch of a seam, or one of its ends, in words.
  Message placeName(const Seam& seam, const std::string& id) const {
    if (id != "top" && id != "hem") return pattern_.levelName(id);
    const bool atTop = id == "top";
    const EdgeRole across = measureCorner(pattern_, seam.a, atTop).across->role;
    if (across == EdgeRole::Top) return "top edge";
    if (across == EdgeRole::Hem) return "hem";
    return across == EdgeRole::Cup ? "cup line" : atTop ? "upper end" : "lower end";
  }

  Message longer(const Seam& seam, double mismatch) const {
    return pattern_.pieces[(mismatch > 0 ? seam.a : seam.b).piece].name;
  }

  // The line that runs on across the end of a seam.
  Message acrossName(const SeamSide& side, const Edge& across) const {
    if (across.role == EdgeRole::Top) return "Top edge";
    if (across.role == EdgeRole::Hem) return "Hem";
    for (const Seam& s : pattern_.seams)
      for (const SeamSide* other : {&s.a, &s.b})
        if (other->piece == side.piece && other->uses(across.id)) return s.name;
    return "Edge";
  }

  // Top edge and hem say at which end of the seam it is.
  static Message whichEnd(EdgeRole across, bool atTop) {
    return !isSewn(across) ? "" : atTop ? ", upper end" : ", lower end";
  }

  // What is planned to be eased in between the underbust notch and one end of a seam.
  static double easeBeyondUnderbust(const MeasuredSeam& w, bool atTop) {
    double above = 0, below = 0;
    bool passed = false;
    for (const MeasuredStretch& s : w.stretches) {
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

  Vec2 spotOn(const Seam& seam, const MeasuredStretch& s, const MeasuredSeam& w) const {
    double at = 0;
    for (const MeasuredStretch& before : w.stretches) {
      if (before.from == s.from) break;
      at += before.lengthA;
    }
    return spotAlong(seam, (at + s.lengthA / 2) / w.a.length);
  }

  CheckRow seamRow(CheckKind kind, const Seam& seam, Message subject) const {
    CheckRow r;
    r.kind = kind;
    r.seam = seam.id;
    r.piece = pattern_.pieces[seam.a.piece].id;
    r.edge = seam.a.chain.front().edge;
    r.subject = std::move(subject);
    r.spot = spotAlong(seam, 0.5);
    return r;
  }

  const MeasuredSeam& measuredOf(const Seam& seam) const {
    return measured_[static_cast<size_t>(&seam - pattern_.seams.data())];
  }

  std::vector<MeasuredSeam> measured_;    // by seam
  std::vector<std::vector<Vec2>> along_;  // points along side a of every seam
};

}  // namespace

void addSeamRows(const SheetInput& input, std::vector<CheckRow>& rows) {
  SeamRows maker(input, rows);
  maker.wishes();
  maker.seams();
  maker.joins();
  maker.changes();
  maker.sides();
}

}  // namespace armure
