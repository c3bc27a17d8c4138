#include "sheet/rows.h"

#include <algorithm>
#include <cmath>

#include "balance/fit.h"
#include "geometry/tolerances.h"
#include "pattern/outline_parts.h"

namespace armure {
namespace {

constexpr double kStraight = 1e5;  // mm of radius: an edge without a bend

class PieceRows : RowMaker {
 public:
  using RowMaker::RowMaker;

  void curves() {
    for (const Piece& p : pattern_.pieces) {
      for (size_t i = 0; i < p.lines(); ++i) {
        const Edge& e = p.lineAt(i);
        if (!isSewn(e.role) && e.role != EdgeRole::Centre) continue;
        CheckRow r = edgeRow(CheckKind::Curve, p, e, msg("{}, {} edge, tightest bend", p.name, e.id));
        const double radius = e.path.tightestRadius();
        r.detail = "the radius is below the limit: the cloth will pucker there";
        r.amount = std::min(radius, kStraight);
        r.limit = e.role == EdgeRole::Cup ? limits::kCupRadiusMm : limits::kRadiusMm;
        if (!(radius >= r.limit)) {
          r.verdict = Verdict::Advice;
          r.remedy = "round the bust point over a longer stretch, or take less into this seam";
        }
        rows_.push_back(r);

        CheckRow b = edgeRow(CheckKind::Curve, p, e, msg("{}, {} edge, changes of bend", p.name, e.id));
        b.quantity = Quantity::Count;
        b.detail = "the edge wiggles";
        // Each level may ask for one; more than that no width explains.
        judge(b, e.path.inflections(),
              std::max(limits::kMostBends, static_cast<int>(std::ranges::distance(p.levelMarks()))),
              "make the intakes run more evenly from level to level", Verdict::Advice);
      }
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

      CheckRow simple = pieceRow(p, Message("outline"));
      simple.quantity = Quantity::Count;
      const bool sewn = isSimple(p.outline(tolerance::kOutlineFlatness)), cut = isSimple(input_.cutOutlines[i]);
      simple.detail = sewn ? "the outline to cut crosses itself" : "the sewn outline crosses itself";
      judge(simple, sewn && cut ? 0 : 1, 0, "take less into its seams, or make the allowance smaller");

      for (const Edge& e : p.edges) {
        // Pieces run clockwise, so outside is on the left of an edge: a hollow bends that way.
        const double hollow = e.path.tightestLeftRadius();
        if (hollow >= e.allowance) continue;
        CheckRow clip = edgeRow(CheckKind::Piece, p, e, msg("{}, {} edge, allowance", p.name, e.id));
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
        CheckRow narrow = pieceRow(p, Message("width"));
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

  // How far balancing has redrawn the edges that are not sewn: what one sees of a garment.
  void freeEdges() {
    if (!input_.balanced) return;
    for (const EdgeMove& m : input_.balanced->moves) {
      const Piece& p = pattern_.pieces[m.piece];
      const Edge& e = p.edge(m.edge);
      if (!isFree(e.role)) continue;
      CheckRow r = edgeRow(CheckKind::FreeEdge, p, e, msg("{}, {} edge, as drafted", p.name, e.id));
      r.detail = "balancing has redrawn it further than a line one sees may go";
      r.spot = m.at;
      judge(r, m.across, input_.freeLimit,
            "let only one side of the seams beside it give way, hold them, or keep their difference as ease; or allow "
            "more (balance.free_limit)");
    }
  }

  void intakes(const std::vector<Intake>& all) {
    for (const Intake& i : all) {
      if (i.amount < 1e-9) continue;
      CheckRow r;
      r.kind = CheckKind::Intake;
      r.level = i.level;
      r.seam = i.line;
      r.subject = msg("{}, intake at the {}", i.name.empty() ? verbatim(i.line) : i.name, pattern_.levelName(i.level));
      r.detail = "more than one seam should take";
      judge(r, i.amount, i.cap,
            i.cures.empty() ? Message("use more panel lines, reduce less, or allow this line more") : i.cures,
            Verdict::Advice);
    }
  }

 private:
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
};

}  // namespace

void addPieceRows(const SheetInput& input, std::vector<CheckRow>& rows) {
  PieceRows maker(input, rows);
  maker.curves();
  maker.pieces();
  maker.freeEdges();
  maker.intakes(input.intakes);
}

}  // namespace armure
