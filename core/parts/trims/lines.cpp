#include "parts/trims/lines.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <set>
#include <utility>

#include "pattern/outline_parts.h"
#include "quotable.h"

namespace armure {
namespace {

constexpr double kLeastStretch = 10;  // mm: less is not worth sewing on
constexpr double kAtEnd = 0.01;       // mm

struct TrimmedLine {
  EdgeRole role{};
  std::string_view id, name;
  bool outwards = true;  // clockwise it runs from the centre front outwards, or down; else the other way
};
constexpr std::array<TrimmedLine, 4> kTrimmedLines{{{EdgeRole::Top, "top", "Upper edge", true},
                                                    {EdgeRole::Hem, "hem", "Hem", false},
                                                    {EdgeRole::Armhole, "armhole", "Armhole", true},
                                                    {EdgeRole::Opening, "opening", "Edge of the opening", true}}};

using EdgeOf = std::pair<size_t, std::string>;

// A line that comes back to itself begins in front at the shoulder.
void beginInFront(const Pattern& pattern, std::vector<SewnEdge>& line) {
  const auto half = [&](size_t k) { return pattern.pieces[line[k % line.size()].piece].half; };
  for (size_t k = 0; k < line.size(); ++k)
    if (half(k + line.size() - 1) == Half::Back && half(k) == Half::Front) {
      std::ranges::rotate(line, line.begin() + static_cast<std::ptrdiff_t>(k));
      return;
    }
}

// The longest lines of a role, none of them part of another.
std::vector<std::vector<SewnEdge>> linesOf(const Pattern& pattern, EdgeRole role) {
  std::vector<std::vector<SewnEdge>> all;
  for (size_t i = 0; i < pattern.shellPieces(); ++i)
    for (const Edge& e : pattern.pieces[i].edges)
      if (e.role == role) all.push_back(lineFrom(pattern, {i, {e.id, false}}, {}));
  if (role == EdgeRole::Armhole)
    for (auto& line : all) beginInFront(pattern, line);
  std::ranges::stable_sort(all, [](const auto& a, const auto& b) { return a.size() > b.size(); });
  std::set<EdgeOf> taken;
  std::erase_if(all, [&](const std::vector<SewnEdge>& line) {
    if (taken.contains({line.front().piece, line.front().use.edge})) return true;
    for (const SewnEdge& e : line) taken.emplace(e.piece, e.use.edge);
    return false;
  });
  return all;
}

// The edge of a piece beyond an end of a line.
const Edge& beyond(const Pattern& pattern, const SewnEdge& e, bool atStart) {
  const Piece& piece = pattern.pieces[e.piece];
  const size_t at = edgePlace(piece, e.use.edge), n = piece.edges.size();
  return piece.edges[atStart != e.use.reversed ? (at + n - 1) % n : (at + 1) % n];
}

const Seam* seamBetween(const Pattern& pattern, size_t a, size_t b) {
  const auto joins = [&](const Seam& s) {
    return (s.a.piece == a && s.b.piece == b) || (s.a.piece == b && s.b.piece == a);
  };
  const auto found = std::ranges::find_if(pattern.seams, joins);
  return found == pattern.seams.end() ? nullptr : &*found;
}

bool runsOver(const Edge& centre) { return centre.role == EdgeRole::Fold || centre.role == EdgeRole::Centre; }

// "centre-front" where the line ends at one.
void markCentre(const Pattern& pattern, GarmentLine& line, bool atStart) {
  const SewnEdge& last = atStart ? line.edges.front() : line.edges.back();
  const Edge& edge = beyond(pattern, last, atStart);
  line.runsOver[atStart ? 0 : 1] = runsOver(edge);
  if (!isCentre(edge.role)) return;
  const bool front = pattern.pieces[last.piece].half == Half::Front;
  line.marks.push_back(
      {front ? "centre-front" : "centre-back", front ? "Centre front" : "Centre back", atStart ? 0 : line.length()});
}

// An opening in front lies on the left of its pieces, where clockwise is up.
bool runsUp(const Pattern& pattern, const std::vector<SewnEdge>& edges) {
  const auto path = [&](const SewnEdge& e) -> const Path& { return pattern.pieces[e.piece].edge(e.use.edge).path; };
  return path(edges.front()).start().y > path(edges.back()).end().y;
}

GarmentLine lineOf(const Pattern& pattern, const TrimmedLine& kind, std::vector<SewnEdge> edges) {
  if (!kind.outwards || (kind.role == EdgeRole::Opening && runsUp(pattern, edges))) {
    std::ranges::reverse(edges);
    for (SewnEdge& e : edges) e.use.reversed = true;
  }
  GarmentLine line{std::string(kind.id), known(kind.name), std::move(edges), {}, {}, {}};
  double along = 0;
  for (const SewnEdge& e : line.edges)
    line.ends.push_back(along += pattern.pieces[e.piece].edge(e.use.edge).path.length());
  if (line.edges.size() > 1 && kind.role == EdgeRole::Armhole)
    line.isLoop = lineFrom(pattern, line.edges[1], {}).size() == line.edges.size();
  line.marks.push_back({"start", "Its start", 0});
  markCentre(pattern, line, true);
  for (size_t k = 0; k + 1 < line.edges.size(); ++k)
    if (const Seam* seam = seamBetween(pattern, line.edges[k].piece, line.edges[k + 1].piece))
      line.marks.push_back({seam->id, seam->name, line.ends[k], isSideSeam(pattern, *seam)});
  markCentre(pattern, line, false);
  line.marks.push_back({"end", "Its end", line.length()});
  return line;
}

std::vector<SewnEdge> edgesOf(const SeamSide& side) {
  std::vector<SewnEdge> edges;
  for (const EdgeUse& use : side.chain) edges.push_back({side.piece, use});
  return edges;
}

std::vector<double> endsOf(const Pattern& pattern, const std::vector<SewnEdge>& edges) {
  std::vector<double> ends;
  double along = 0;
  for (const SewnEdge& e : edges) ends.push_back(along += pattern.pieces[e.piece].edge(e.use.edge).path.length());
  return ends;
}

GarmentLine lineOf(const Pattern& pattern, const Seam& seam) {
  GarmentLine line{seam.id, seam.name, edgesOf(seam.a), {}, {}, {}, edgesOf(seam.b)};
  line.ends = endsOf(pattern, line.edges);
  line.partnerEnds = endsOf(pattern, line.partner);
  line.atHem = beyond(pattern, line.edges.back(), false).role == EdgeRole::Hem &&
               beyond(pattern, line.partner.back(), false).role == EdgeRole::Hem;
  line.marks.push_back({"start", "Its start", 0});
  for (const SeamNotch& n : seam.notches)
    if (n.a > kAtEnd && n.a < line.length() - kAtEnd) line.marks.push_back({n.id, pattern.levelName(n.id), n.a});
  line.marks.push_back({"end", "Its end", line.length()});
  return line;
}

// Seams of two pieces of the shell that are sewn flat.
bool canHold(const Pattern& pattern, const Seam& seam) {
  const size_t shell = pattern.shellPieces();
  return seam.kind == SeamKind::Plain && seam.a.piece < shell && seam.b.piece < shell;
}

Message listOf(const auto& all) {
  Listed ids{{}, Listed::By::Or};
  for (const auto& one : all) ids.all.push_back(verbatim(one.id));
  return msg("choose one of {}", std::move(ids));
}

Result<double> placeAlongLine(const GarmentLine& line, const TrimPlace& place, const TrimChoice& trim) {
  const auto mark = std::ranges::find(line.marks, place.mark, &LineMark::id);
  if (mark == line.marks.end())
    return Problem{trim.title(), msg("{} has no mark \"{}\"", line.name, quotable(place.mark)), listOf(line.marks)};
  return std::clamp(mark->at + place.on, 0.0, line.length());
}

// The loop cut open at the last joint before a place; what moves on it moves with it.
double openedBefore(GarmentLine& line, double at) {
  size_t k = 0;
  while (k + 1 < line.edges.size() && line.ends[k] <= at) ++k;
  const double by = k > 0 ? line.ends[k - 1] : 0, whole = line.length();
  const auto moved = [&](double s) { return s < by - kAtEnd ? s - by + whole : s - by; };
  std::ranges::rotate(line.edges, line.edges.begin() + static_cast<std::ptrdiff_t>(k));
  for (double& end : line.ends) end = end <= by + kAtEnd ? end - by + whole : end - by;
  std::ranges::sort(line.ends);
  for (LineMark& m : line.marks) m.at = moved(m.at);
  line.openedAt = by;
  return by;
}

}  // namespace

std::vector<GarmentLine> garmentLines(const Pattern& pattern) {
  std::vector<GarmentLine> all;
  for (const TrimmedLine& kind : kTrimmedLines) {
    int count = 0;
    for (std::vector<SewnEdge>& edges : linesOf(pattern, kind.role)) {
      all.push_back(lineOf(pattern, kind, std::move(edges)));
      if (++count > 1) all.back().id = fmt::format("{}-{}", kind.id, count);
    }
  }
  for (const Seam& seam : pattern.seams)
    if (canHold(pattern, seam)) all.push_back(lineOf(pattern, seam));
  return all;
}

const LineMark* GarmentLine::side() const {
  const auto found = std::ranges::find(marks, true, &LineMark::isSide);
  return found == marks.end() ? nullptr : &*found;
}

TrimStretch onPartner(const TrimStretch& stretch) {
  TrimStretch other = stretch;
  std::swap(other.line.edges, other.line.partner);
  std::swap(other.line.ends, other.line.partnerEnds);
  const double scale = other.line.length() / stretch.line.length();  // but for what is eased in they are as long
  other.from *= scale;
  other.to *= scale;
  return other;
}

TrimStretch about(const TrimStretch& stretch, double at, double wide) {
  TrimStretch part = stretch;
  part.from = std::clamp(at - wide / 2, 0.0, std::max(0.0, stretch.line.length() - wide));
  part.to = std::min(part.from + wide, stretch.line.length());
  return part;
}

Result<TrimStretch> stretchOf(const Pattern& pattern, const TrimChoice& trim) {
  std::vector<GarmentLine> lines = garmentLines(pattern);
  const auto line = std::ranges::find(lines, trim.on(), &GarmentLine::id);
  if (line == lines.end())
    return Problem{trim.title(), msg("this garment has no line \"{}\"", quotable(trim.on())), listOf(lines)};
  Result<double> from = placeAlongLine(*line, trim.from(), trim), to = placeAlongLine(*line, trim.to(), trim);
  if (!from.ok()) return from.problem();
  if (!to.ok()) return to.problem();
  if (line->isLoop && *to < *from) {
    const double by = openedBefore(*line, *from), whole = line->length();
    from = *from - by;
    to = *to - by + whole;
  }
  if (*to - *from < kLeastStretch)
    return Problem{trim.title(), msg("nothing is left of {} between its two places", line->name),
                   "let it end further along the line than it begins"};
  const bool over[2] = {line->runsOver[0] && *from < kAtEnd, line->runsOver[1] && line->length() - *to < kAtEnd};
  return TrimStretch{std::move(*line), *from, *to, {over[0], over[1]}};
}

}  // namespace armure
