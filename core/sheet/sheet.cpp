#include "sheet/sheet.h"

#include <algorithm>
#include <cmath>
#include <iterator>

#include "at_once.h"
#include "balance/fit.h"
#include "measure/measure_table.h"
#include "operations/both_sides.h"
#include "sheet/rows.h"

namespace armure {
namespace {

void addFacts(const SheetInput& input, std::vector<CheckRow>& rows) {
  for (const Fact& f : input.body.facts()) {
    if (f.source != Source::Estimated) continue;
    CheckRow r;
    r.kind = CheckKind::Facts;
    r.verdict = Verdict::Note;
    r.subject = msg("{} is estimated", known(findMeasure(f.id)->name));
    r.detail = "measure it before cutting; one standard deviation";
    r.amount = f.spread;
    r.level = f.id;
    rows.push_back(std::move(r));
  }
}

// Failing rows come first, then advice, notes, and what passes.
int rank(const CheckRow& r) {
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
}

}  // namespace

void RowMaker::judge(CheckRow& r, double amount, double limit, Message remedy, Verdict otherwise) {
  r.amount = amount;
  r.limit = limit;
  r.verdict = std::isfinite(amount) && amount <= limit + 1e-9 ? Verdict::Pass : otherwise;
  if (!r.passes()) r.remedy = remedy;
  rows_.push_back(r);
}

std::vector<SheetHalf> RowMaker::halves() const {
  if (!input_.halves.empty()) return input_.halves;
  return {SheetHalf{BodySide::Both, pattern_, input_.upper}};
}

const Seam& RowMaker::wholeSeam(const Seam& ofHalf, BodySide side) const {
  return *pattern_.seam(inWhole(pattern_, ofHalf, side));
}

CheckRow RowMaker::edgeRow(CheckKind kind, const Piece& p, const Edge& e, Message subject) {
  CheckRow r;
  r.kind = kind;
  r.piece = p.id;
  r.edge = e.id;
  r.subject = std::move(subject);
  r.spot = evenPoints(e.path, 3)[1];
  return r;
}

CheckRow RowMaker::pieceRow(const Piece& p, Message what) {
  CheckRow r;
  r.kind = CheckKind::Piece;
  r.piece = p.id;
  r.subject = msg("{}, {}", p.name, what);
  r.spot = lerp(p.grainTop, p.grainBottom, 0.5);
  return r;
}

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
    case CheckKind::Trim:
      return "trim";
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
  const auto rowsOf = [&](auto... parts) {
    std::vector<CheckRow> rows;
    (parts(input, rows), ...);
    return rows;
  };
  auto [first, rest] =
      atOnce([&] { return rowsOf(addSeamRows, addBodyRows); }, [&] { return rowsOf(addPieceRows, addFacts); });
  Sheet sheet{std::move(first)};
  std::ranges::move(rest, std::back_inserter(sheet.rows));
  std::stable_sort(sheet.rows.begin(), sheet.rows.end(),
                   [](const CheckRow& a, const CheckRow& b) { return rank(a) < rank(b); });
  return sheet;
}

void addIdleRows(Sheet& sheet, const std::vector<std::pair<std::string, Message>>& keysAndReasons) {
  const auto firstPassing =
      std::find_if(sheet.rows.begin(), sheet.rows.end(), [](const CheckRow& r) { return r.passes(); });
  std::vector<CheckRow> rows;
  for (const auto& [key, reason] : keysAndReasons) {
    CheckRow r;
    r.kind = CheckKind::Idle;
    r.verdict = Verdict::Note;
    r.quantity = Quantity::Count;
    r.subject = msg("{} is idle", key);
    r.detail = reason;
    r.level = key;
    rows.push_back(std::move(r));
  }
  sheet.rows.insert(firstPassing, rows.begin(), rows.end());
}

}  // namespace armure
