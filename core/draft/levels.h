// core/draft/levels.h
//
// The level lines: how far down each stands, what the body measures there and what the garment is to measure.
//
// Heights are from the shoulder line, mm. With front waist length f, back waist length b, the front's chest line c and
// the length of the side s (underarm to waist):
//   side bust dart  d = (f - c) - s      rise of the back  r = (f - b) - d
// Down to the bust the back's levels stand higher than the front's by r, which is used up over the breast's upper side;
// below it by r + d = f - b. So both sides are s long once the dart is closed, and match level by level. "As in front":
// d = f - b, r = 0. What of the dart is not closed (dial.foot) the front's levels below the bust rise towards the side
// by, from the last line on, so that both sides are s long all the same. Common practice, no source.
#pragma once

#include <string>
#include <vector>

#include "measure/estimate.h"
#include "result.h"
#include "rules/rules.h"
#include "working.h"

namespace armure {

namespace level {
inline constexpr std::string_view kTop = "top", kChest = "chest", kBust = "bust", kUnderbust = "underbust",
                                  kWaist = "waist", kHighHip = "high_hip", kHip = "hip", kHem = "hem";
}

struct Level {
  std::string id;
  Message name;
  double front = 0, back = 0;  // depth below the shoulder line on the front and the back half
  double bodyGirth = 0;        // what the tape says
  double finishedGirth = 0;    // body + ease - reduction; includes an opening gap
  double frontShare = 0;       // of half the finished girth: frontShare + backShare = finishedGirth / 2
  double backShare = 0;
  bool girthTaken = true, heightTaken = true;  // else estimated, or between its neighbours
  bool readOff = false;    // no girth is prescribed here; the draft's smooth lines give it (chest line, hem)
  bool follows = false;    // its girth was not taken: the side runs straight past it, and the girth follows from that
  bool own = false;        // added by the maker; its girth lies between its neighbours unless it was given
  bool beyondHem = false;  // below the garment; the side line is drawn towards it and cut where the garment ends

  bool estimated() const { return !girthTaken || !heightTaken; }
};

struct Levels {
  std::vector<Level> all;  // from the top down
  double sideDart = 0;     // width of the side bust dart at the side, mm
  double sideFoot = 0;     // what of it is not closed but taken off the foot of the front's side, mm
  double backRise = 0;     // how much higher the back's levels down to the bust stand than the front's, mm
  std::vector<Working> workings;

  // Throws std::out_of_range when the draft has no such level.
  const Level& at(std::string_view id) const;
  Level& at(std::string_view id);
};

inline constexpr double kLeastBetweenLevels = 20;  // mm: closer, no seam can be drawn through both

// How wide a side bust dart has room between bust and underbust, mm.
double mostSideDart(const Body& body);

// Whether the panels run on below the hip as a skirt. Their hem in the draft then lies just below the hip.
bool hasSkirt(const Rules& rules);

// Whether the garment goes below the waist, so that high hip and hip count.
bool goesBelowWaist(const Rules& rules);

// Lays out the levels. Fails when their order on the body cannot be (the bust below the waist, the chest line below the
// bust), naming the measures.
//   chest line, three schools: bust point - 2 in | shoulder slope + bust/6 + 1.5 in | half the round armhole
//   finished(top) = upper bust - hold. The chest line already lies on the breast's rise and the hem between measured
//   levels: no girth is prescribed for these two, the draft gives it (Level::readOff).
// A level of the maker's own has the body's girth between the measured levels (one smooth curve down the body) less the
// reduction between its neighbours, or the girth the maker gave it.
Result<Levels> layOutLevels(const Body& body, const Rules& rules);

}  // namespace armure
