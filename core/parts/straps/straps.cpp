#include "parts/straps/straps.h"

#include <algorithm>

#include "draft/upper_block.h"
#include "parts/edges/rules.h"
#include "parts/edges/style_line.h"
#include "parts/straps/rules.h"
#include "parts/straps/strap_end.h"
#include "pattern/outline_parts.h"
#include "pattern/places.h"
#include "rules/prepare_rules.h"

namespace armure {
namespace {

// Over the shoulder from the front edge at its crest to the back edge; or to behind the neck.
Working lengthOf(const Block& block, const Body& body, const Rules& rules) {
  if (rules.option(key::kStrapLong) == StrapLength::Given)
    return {"strap.length",
            "Strap, long",
            {rules.term(key::kStrapGiven)},
            rules.length(key::kStrapGiven),
            "as set; 12 in is usual; common practice"};
  const StyleLine top = topEdge(block, rules);
  const Boundaries at(block);
  const auto middle = [&](const HalfBlock& half, bool front) {
    const UpperPoints p = upperPoints(body, rules, front, half.at(level::kChest).y);
    return lerp(p.neck, p.shoulder, 0.5);
  };
  const size_t crest = 1, behind = at.centreBack() - 1;
  const UpperPoints above = upperPoints(body, rules, true, block.front.at(level::kChest).y);
  const StrapRuns runs = rules.option(key::kStrapRun);
  const bool halter = runs == StrapRuns::Halter;
  const Vec2 crestAt{block.front.lines.front().position, top.depth[crest]};
  // Behind, one that is crossed ends as far beyond the centre.
  const Vec2 behindAt{(runs == StrapRuns::Crossed ? -1 : 1) * block.back.lines.front().position, top.depth[behind]};
  const double front = distance(crestAt, halter ? above.neck : middle(block.front, true));
  const double back = halter ? block.back.neck.length() : distance(behindAt, middle(block.back, false));
  return {"strap.length",
          "Strap, long",
          {{'+', halter ? Message("front edge to beside the neck") : Message("front edge to the shoulder"), front,
            Source::Computed},
           {'+',
            halter                       ? Message("back neck of the block")
            : runs == StrapRuns::Crossed ? Message("shoulder to the back edge, crossed")
                                         : Message("shoulder to the back edge"),
            back, Source::Computed},
           rules.term(key::kStrapExtra)},
          front + back + rules.length(key::kStrapExtra),
          halter ? Message("straight on the block, from the crest of the front edge to the neck and round it to the "
                           "centre back; common practice")
                 : Message("straight on the block, from the crest of the front edge over the middle of the shoulder to "
                           "the back edge at the first back line; common practice")};
}

// Behind the neck, from the shoulder's inner end to the centre back and as much over as it is adjusted by.
void addHalterStrap(Pattern& pattern, const Block& block, const Rules& rules) {
  Working length{"halter.strap",
                 "Halter, each half behind the neck",
                 {{'+', "back neck of the block", block.back.neck.length(), Source::Computed},
                  rules.term(key::kHalterWiden),
                  rules.term(key::kStrapExtra)},
                 block.back.neck.length() + rules.length(key::kHalterWiden) + rules.length(key::kStrapExtra),
                 "from beside the neck to the centre back, where both halves are closed; common practice"};
  const double x = pattern.right() + kBesideShell, y = block.levels.at(level::kTop).front, end = y + length.result;
  const double wide = 2 * rules.length(key::kHalterWidth), allowance = rules.length(key::kAllowanceStrap);
  const Vec2 a{x, y}, b{x + wide, y}, c{x + wide, end}, d{x, end};
  Piece p;
  p.id = "halter-strap";
  p.part = Part::Strap;
  p.name = "Halter strap, folded lengthwise";
  p.layer = "strap";
  p.edges = {{"back-end", EdgeRole::Strap, allowance, Path::line(a, b)},
             {"right", EdgeRole::Strap, allowance, Path::line(b, c)},
             {"front-end", EdgeRole::Strap, allowance, Path::line(c, d)},
             {"left", EdgeRole::Strap, allowance, Path::line(d, a)}};
  p.grainTop = lerp(lerp(a, b, 0.5), lerp(d, c, 0.5), 0.2);
  p.grainBottom = lerp(lerp(a, b, 0.5), lerp(d, c, 0.5), 0.8);
  pattern.pieces.push_back(std::move(p));
  pattern.workings.push_back(std::move(length));
}

// A stretch of this length about a place of the upper edge, as far as the edge has room.
void sewOn(Pattern& pattern, const std::optional<Place>& place, double width, std::string id, Message name,
           PieceEdge strap) {
  if (!place) return;
  const Piece& p = pattern.pieces[place->piece];
  for (const Edge& e : p.edges) {
    if (e.role != EdgeRole::Top) continue;
    const auto at = nearOn(e.path, place->at);
    if (!at) continue;
    const double length = e.path.length(), wide = std::min(width, length);
    const double from = std::clamp(*at - wide / 2, 0.0, length - wide);
    pattern.attachments.push_back(
        {std::move(id), std::move(name), place->piece, e.id, from, from + wide, std::move(strap)});
    return;
  }
}

// The strap as it is cut: its back end above, its front end below with its shape; both sides alike.
Piece strapPiece(Vec2 at, double length, const Rules& rules) {
  const bool shaped = rules.option(key::kStrapKind) == StrapKind::Shaped;
  const double finished = rules.length(key::kStrapWidth), allowance = rules.length(key::kAllowanceStrap);
  const double back = finished * (shaped ? 1 : 2),
               front = shaped ? std::max(back, rules.length(key::kStrapFront)) : back;
  // One that is too short for it has none.
  const StrapEnd asked = rules.option(key::kStrapFrontEnd),
                 end = strapEndDepth(asked, front) < length / 2 ? asked : StrapEnd::Straight;
  const double sides = length - strapEndDepth(end, front), middle = at.x + front / 2;
  const auto sideAt = [&](double sign) {
    const Vec2 a{middle + sign * back / 2, at.y}, b{middle + sign * front / 2, at.y + sides};
    const double third = sides / 3;
    return Path(Cubic{a, a + Vec2{0, third}, b - Vec2{0, third}, b});
  };
  const Path right = sideAt(1), left = sideAt(-1);
  Piece p;
  p.id = "strap";
  p.name = shaped ? "Strap" : "Strap, folded lengthwise";
  p.layer = "strap";
  p.part = Part::Strap;
  p.copies = shaped ? 4 : 2;
  p.edges = {{"back-end", EdgeRole::Strap, allowance, Path::line(left.start(), right.start())},
             {"right", EdgeRole::Strap, allowance, right},
             {"front-end", EdgeRole::Strap, allowance, strapEnd(right.end(), left.end(), end)},
             {"left", EdgeRole::Strap, allowance, left.reversed()}};
  p.grainTop = {middle, at.y + 0.2 * length};
  p.grainBottom = {middle, at.y + 0.8 * length};
  return p;
}

// As wide and long as the strap finishes, without allowances; of one that is folded it is half, and ends with its
// sides.
Piece wadding(const Pattern& pattern, const Piece& strap, const Rules& rules) {
  const bool shaped = rules.option(key::kStrapKind) == StrapKind::Shaped;
  Piece p = strap;
  p.id = "padding-strap";
  p.name = "Wadding of the strap";
  p.layer = "padding";
  p.cloth = "wadding";
  p.source = strap.id;
  p.copies = 2;
  const Motion beside = Motion::translation({pattern.right() + kBesideShell - strap.edge("left").path.end().x, 0});
  for (Edge& e : p.edges) e.allowance = 0, e.path = e.path.transformed(beside);
  p.grainTop = beside.apply(p.grainTop);
  p.grainBottom = beside.apply(p.grainBottom);
  if (shaped) return p;
  const double wide = rules.length(key::kStrapWidth);
  const Vec2 a = p.edge("left").path.end(), b = a + Vec2{wide, 0}, down = p.edge("left").path.start() - a;
  const Vec2 corners[] = {a, b, b + down, a + down};
  for (size_t i = 0; i < p.edges.size(); ++i) p.edges[i].path = Path::line(corners[i], corners[(i + 1) % 4]);
  p.grainTop = a + Vec2{wide / 2, 0} + 0.2 * down;
  p.grainBottom = a + Vec2{wide / 2, 0} + 0.8 * down;
  return p;
}

// Where the first back line meets the upper edge.
std::optional<Place> atBackLine(const Pattern& pattern) {
  const auto piece = pattern.panel(Half::Back, 1);
  if (!piece) return std::nullopt;
  for (const Edge& e : pattern.pieces[*piece].edges)  // clockwise: the back's centre lies on the right
    if (e.role == EdgeRole::Top) return Place{*piece, e.path.start()};
  return std::nullopt;
}

}  // namespace

void addStraps(Pattern& pattern, const Block& block, const Body& body, const Rules& rules) {
  const auto kind = rules.option(key::kStrapKind);
  if (rules.option(key::kCoverKind) == CoverKind::Halter) addHalterStrap(pattern, block, rules);
  if (kind == StrapKind::None || goesUp(rules, true)) return;
  Working length = lengthOf(block, body, rules);
  const bool shaped = kind == StrapKind::Shaped;
  const double finished = rules.length(key::kStrapWidth),
               front = shaped ? std::max(finished, rules.length(key::kStrapFront)) : finished;
  const Piece piece =
      strapPiece({pattern.right() + kBesideShell, block.levels.at(level::kTop).front}, length.result, rules);
  pattern.pieces.push_back(piece);
  pattern.workings.push_back(std::move(length));
  const size_t strap = pattern.pieces.size() - 1;
  sewOn(pattern, Places(pattern).crest(), front, "strap-front", "Strap, front end", {strap, "front-end"});
  if (rules.option(key::kStrapRun) != StrapRuns::Halter)
    sewOn(pattern, atBackLine(pattern), finished, "strap-back", "Strap, back end", {strap, "back-end"});
  if (rules.option(key::kStrapPadding) == StrapPad::Padded) pattern.pieces.push_back(wadding(pattern, piece, rules));
}

}  // namespace armure
