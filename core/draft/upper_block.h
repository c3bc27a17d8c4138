// core/draft/upper_block.h
//
// The covered part of the block above the chest line: shoulder, neck and armhole. On a strapless bodice it is cut away;
// it is drawn because straps, yokes and covered shoulders start from it, because the princess line may run towards it,
// and because the eye reads the block by it.
#pragma once

#include <optional>
#include <vector>

#include "draft/block.h"

namespace armure {

// Whether a half goes up over the shoulder, instead of ending at a strapless edge.
bool goesUp(const Rules& rules, bool front);

// What the first front line of a half that goes up takes in at a depth above the bust: the rule's dart at the shoulder,
// less in proportion towards the bust point.
double shoulderDartAt(const Rules& rules, double bustY, double y);

struct UpperPoints {
  Vec2 neck, shoulder;  // the ends of the shoulder
  Vec2 armholeMiddle;
};

// `chestY` is the depth of the chest line on that half.
UpperPoints upperPoints(const Body& body, const Rules& rules, bool front, double chestY);

// Where the first line of a half ends on the shoulder or the armhole, by the rule "princess.above"; nothing where it
// ends at the top edge.
std::optional<Vec2> endOfFirstLine(const Body& body, const Rules& rules, bool front, double chestY);

// Where the line at `place` (1 for the second from the centre) of `count` ends on the lower half of the armhole, evenly
// down from its middle; straight up where it stands further out than that.
Vec2 endOfFurtherLine(const Body& body, const Rules& rules, bool front, double chestY, size_t place, size_t count,
                      double position);

// Draws neck, shoulder and armhole of a half whose levels are set. Common practice:
//   shoulder point: half the shoulder width out, the slope down;
//   neck: the same half width front and back, its own depth;
//   armhole: from the shoulder point through the middle of the armhole depth, moved in, to the side on the chest line.
void drawUpperBlock(HalfBlock& half, const Body& body, const Rules& rules, std::vector<Working>& workings);

}  // namespace armure
