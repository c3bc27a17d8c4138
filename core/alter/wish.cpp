#include "alter/wish.h"

#include <algorithm>

#include "alter/alter.h"

namespace armure {
namespace {

Message listed(const std::vector<std::string>& ids) {
  std::vector<Message> all;
  for (const std::string& id : ids) all.push_back(verbatim(id));
  return msg("it is one of {}", Listed{all, Listed::By::Or});
}

std::vector<ShiftAt> across(const std::vector<std::string>& places, size_t from, size_t to, double mm) {
  const std::vector<std::string> full = fullPlaces(places, from, to, true, true);
  if (from == to) {  // at one level: it runs out at its neighbours, where there are any
    if (from > 0) --from;
    if (to + 1 < places.size()) ++to;
  }
  std::vector<ShiftAt> at;
  if (full.front() != places[from]) at.push_back({places[from], 0});
  for (const std::string& place : full) at.push_back({place, mm});
  if (full.back() != places[to]) at.push_back({places[to], 0});
  return at;
}

std::vector<ShiftAt> along(const std::vector<std::string>& places, size_t from, size_t to, double mm) {
  if (places[from] == kUpperEnd) return {{places[from], -mm}, {places[to], 0}};
  return {{places[from], 0}, {places[to], mm}};
}

}  // namespace

std::vector<std::string> fullPlaces(const std::vector<std::string>& places, size_t from, size_t to, bool atUpperEnd,
                                    bool atLowerEnd) {
  if (from == to) return {places[from]};
  std::vector<std::string> full;
  if (atUpperEnd && places[from] == kUpperEnd) full.push_back(places[from]);
  for (size_t k = from + 1; k < to; ++k) full.push_back(places[k]);
  if (atLowerEnd && places[to] == kLowerEnd) full.push_back(places[to]);
  if (full.empty()) full.push_back(places[from] + "~" + places[to]);
  return full;
}

std::vector<std::string> placesOn(const Pattern& pattern, const std::string& line) {
  std::vector<std::string> places{std::string(kUpperEnd)};
  const std::vector<LineSide> sides =
      line == kEveryLine ? std::vector<LineSide>{} : linesOf(pattern, {line, ShiftSides::Both, ShiftWay::Across, {}});
  for (const PatternLevel& l : pattern.levels) {
    if (l.id == kUpperEnd || l.id == kLowerEnd) continue;
    if (std::ranges::all_of(sides, [&](const LineSide& s) { return placeOnLine(pattern, s.side, l.id).has_value(); }))
      places.push_back(l.id);
  }
  places.emplace_back(kLowerEnd);
  return places;
}

std::vector<std::string> shiftableLines(const Pattern& pattern) {
  std::vector<std::string> lines;
  for (const Seam& s : pattern.seams)
    if (pattern.pieces[s.a.piece].layer == "shell") lines.push_back(s.id);
  for (const Piece& p : pattern.pieces)
    for (const Edge& e : p.edges) {
      const bool crossed = std::ranges::any_of(
          p.marks, [&](const Mark& m) { return m.isLevel() && (m.a.edge == e.id || m.b.edge == e.id); });
      if (p.layer == "shell" && !isSewn(e.role) && crossed) lines.push_back(p.id + "." + e.id);
    }
  return lines;
}

bool aIsForward(const Pattern& pattern, const std::string& line) {
  const Seam* s = pattern.seam(line);
  if (!s) return true;
  const Piece &a = pattern.pieces[s->a.piece], &b = pattern.pieces[s->b.piece];
  if (a.half != b.half) return a.half == Half::Front;
  return a.half == Half::Back ? a.ordinal > b.ordinal : a.ordinal < b.ordinal;
}

Message lineName(const Pattern& pattern, std::string_view line) {
  if (line == kEveryLine || line.empty()) return "every line";
  if (const Seam* s = pattern.seam(line)) return s->name;
  const size_t dot = line.find('.');
  for (const Piece& p : pattern.pieces)
    if (dot != std::string_view::npos && p.id == line.substr(0, dot))
      return msg("{}, {} edge", p.name, verbatim(line.substr(dot + 1)));
  return verbatim(line);
}

Result<Shift> shiftOf(const Pattern& pattern, const ShiftWish& wish) {
  Shift shift{wish.line, wish.sides, wish.way, {}};
  if (wish.line != kEveryLine && linesOf(pattern, shift).empty()) {
    std::vector<std::string> lines = shiftableLines(pattern);
    lines.emplace_back(kEveryLine);
    return Problem{"line", msg("there is no \"{}\"", wish.line), listed(lines)};
  }
  if (wish.line == kEveryLine && wish.way == ShiftWay::Across)
    return Problem{"line", "every line can only be lengthened or shortened",
                   "name the seam to take in or let out, or shift along"};
  const std::vector<std::string> places = placesOn(pattern, wish.line);
  const auto placeOf = [&](const std::string& id) {
    return static_cast<size_t>(std::ranges::find(places, id) - places.begin());
  };
  const size_t from = placeOf(wish.from), to = placeOf(wish.to);
  for (const auto& [place, id, what] : {std::tuple{from, wish.from, Message("from")}, {to, wish.to, "to"}})
    if (place == places.size())
      return Problem{what, msg("{} does not cross \"{}\"", lineName(pattern, wish.line), id), listed(places)};
  if (from > to) return Problem{"from", msg("{} lies below {}", wish.from, wish.to), "name the upper level first"};
  if (wish.way == ShiftWay::Along && from == to)
    return Problem{"to", "nothing lies between a level and itself", "name two levels"};
  // Both edges share what is said of the seam; an edge in no seam, or one side alone, takes all of it.
  const bool shared = wish.sides == ShiftSides::Both && pattern.seam(wish.line) && wish.way == ShiftWay::Across;
  const double each = shared ? wish.mm / 2 : wish.mm;
  shift.at = wish.way == ShiftWay::Across ? across(places, from, to, each) : along(places, from, to, each);
  return shift;
}

}  // namespace armure
