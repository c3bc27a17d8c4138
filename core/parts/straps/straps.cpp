#include "parts/straps/straps.h"

#include <algorithm>

#include "draft/upper_block.h"
#include "parts/edges/rules.h"
#include "parts/edges/style_line.h"
#include "parts/straps/rules.h"
#include "pattern/outline_parts.h"
#include "pattern/places.h"
#include "rules/prepare_rules.h"

namespace armure {
namespace {

// Over the shoulder from the front edge at its crest to the back edge.
Working lengthOf(const Block& block, const Body& body, const Rules& rules) {
  const StyleLine top = topEdge(block, rules);
  const Boundaries at(block);
  const auto middle = [&](const HalfBlock& half, bool front) {
    const UpperPoints p = upperPoints(body, rules, front, half.at(level::kChest).y);
    return lerp(p.neck, p.shoulder, 0.5);
  };
  const size_t crest = 1, behind = at.centreBack() - 1;
  const double front = distance({block.front.lines.front().position, top.depth[crest]}, middle(block.front, true));
  const double back = distance({block.back.lines.front().position, top.depth[behind]}, middle(block.back, false));
  return {"strap.length",
          "Strap, long",
          {{'+', "front edge to the shoulder", front, Source::Computed},
           {'+', "shoulder to the back edge", back, Source::Computed},
           rules.term(key::kStrapExtra)},
          front + back + rules.length(key::kStrapExtra),
          "straight on the block, from the crest of the front edge over the middle of the shoulder to the back edge at "
          "the first back line; common practice"};
}

}  // namespace

namespace {

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
  const double x = pattern.right() + kBesideShell, y = block.levels.at(level::kTop).front;
  const double back = rules.length(key::kStrapWidth) * (shaped ? 1 : 2),
               front = shaped ? std::max(back, rules.length(key::kStrapFront)) : back;
  const double allowance = rules.length(key::kAllowanceStrap), end = y + length.result, middle = x + front / 2;
  // The back end above, the front end below; both sides alike.
  const auto sideAt = [&](double sign) {
    const Vec2 a{middle + sign * back / 2, y}, b{middle + sign * front / 2, end};
    const double third = length.result / 3;
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
             {"front-end", EdgeRole::Strap, allowance, Path::line(right.end(), left.end())},
             {"left", EdgeRole::Strap, allowance, left.reversed()}};
  p.grainTop = {middle, y + 0.2 * length.result};
  p.grainBottom = {middle, y + 0.8 * length.result};
  pattern.pieces.push_back(std::move(p));
  pattern.workings.push_back(std::move(length));
  const size_t strap = pattern.pieces.size() - 1;
  const double finished = rules.length(key::kStrapWidth);
  sewOn(pattern, Places(pattern).crest(), shaped ? front : finished, "strap-front", "Strap, front end",
        {strap, "front-end"});
  sewOn(pattern, atBackLine(pattern), finished, "strap-back", "Strap, back end", {strap, "back-end"});
}

}  // namespace armure
