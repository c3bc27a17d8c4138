// core/recalc/idle.h
//
// What an order holds that has no effect: choices that do not count beside others (a keyhole on straps), places the
// garment does not have (a seam, a level below its hem), measures nothing reads. They are kept; the maker is told, so
// that nothing she asked for is passed over in silence.
#pragma once

#include <string>
#include <vector>

#include "order/order.h"
#include "recalc/recalc.h"

namespace armure {

struct Idle {
  std::string key;           // "keyhole.kind", "measure cup_up"
  Message reason;            // why, as far as it can be said
  std::string measure = {};  // its id, where it is a measure; else empty
};

// Every choice and every measure of `order` is left out, and set otherwise, in turn; what changes the pieces in neither
// way is idle. Choices of balancing are held against the seams and edges of `design`, which must be that of `order`.
// A draft for each choice and measure: some milliseconds, not for every step of a drag.
std::vector<Idle> idleIn(const Order& order, const Design& design);

}  // namespace armure
