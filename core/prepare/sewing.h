// core/prepare/sewing.h
//
// The order in which a garment is sewn, worked out from the garment: which seams there are, and which encloses which. A
// seam that ends on another line, where that line runs on across it, must be sewn before it: the cups' own seams before
// the cup line, the panel seams before a yoke or a waist that runs across them. Among what is free to come next, the
// table of works decides (kWorks), in one of two customs: the sides last, on flat halves, or with the panels.
//
//   for (const SewingStep& step : sewingOrder(pattern, block, rules)) say(step.what, units) ...
//
// Common practice, no source. Steps that a garment does not have are left out.
#pragma once

#include <array>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "message.h"
#include "pattern/pattern.h"
#include "rules/rules.h"

namespace armure {

// What is done. In the order of kWorks.
enum class Work {
  Fuse,
  Bond,
  Mount,
  Darts,
  CupSeams,
  YokeSeams,
  FrontPanels,
  BackPanels,
  SkirtSeams,
  Inserts,
  Busk,
  SetCups,
  SetYokes,
  SetBand,
  Bones,
  Covers,
  Straps,
  LiningSeams,
  SetLining,
  Waist,
  Shoulders,
  Zip,
  Sides,
  SideBones,
  WaistStay,
  Pads,
  Edges,
  Trims,
  Hem,
  Eyelets,
  Modesty,
};

struct WorkRow {
  Work work{};
  std::string_view id, words;
  int rank = 0;             // the lowest comes first of what is free to come next
  int sidesWithPanels = 0;  // its rank where the sides are sewn with the panels
};
inline constexpr std::array kWorks{
    WorkRow{Work::Fuse, "fuse", "Fuse the interfacing", 0, 0},
    WorkRow{Work::Bond, "bond", "Bond the overlay to the shell; from now on the two are one cloth", 1, 1},
    WorkRow{Work::Mount, "mount", "Baste the strength layer and net to the shell; they are sewn as one", 2, 2},
    WorkRow{Work::Darts, "darts", "Sew the darts", 5, 5},
    WorkRow{Work::CupSeams, "cup-seams", "Sew the pieces of each cup together", 10, 10},
    WorkRow{Work::YokeSeams, "yoke-seams", "Sew the pieces of the yokes together", 12, 12},
    WorkRow{Work::FrontPanels, "front-panels", "Sew the panels of the front", 20, 20},
    WorkRow{Work::BackPanels, "back-panels", "Sew the panels of the back", 21, 21},
    WorkRow{Work::SkirtSeams, "skirt-seams", "Sew the panels of the skirt", 22, 22},
    WorkRow{Work::Inserts, "inserts", "Set the inserts", 24, 24},
    WorkRow{Work::Busk, "busk", "Set the busk", 26, 26},
    WorkRow{Work::SetCups, "set-cups", "Set the cups into the frame", 28, 28},
    WorkRow{Work::SetYokes, "set-yokes", "Set the yokes, between shell and lining where it is lined", 30, 30},
    WorkRow{Work::SetBand, "set-band", "Set the band off the shoulders", 32, 32},
    WorkRow{Work::Bones, "bones", "Sew the channels, put in the bones", 40, 40},
    WorkRow{Work::Covers, "covers", "Cover the ready-made cups and set them in", 42, 42},
    WorkRow{Work::Straps, "straps", "Baste the straps to the upper edge", 43, 43},
    WorkRow{Work::LiningSeams, "lining-seams", "Sew the lining together like the shell", 44, 44},
    WorkRow{Work::SetLining, "set-lining", "Sew the lining to the shell at the upper edge; turn", 46, 46},
    WorkRow{Work::Waist, "waist", "Sew bodice and skirt together, front and back", 50, 38},
    WorkRow{Work::Shoulders, "shoulders", "Close the shoulders", 54, 37},
    WorkRow{Work::Zip, "zip", "Set the zip, or hooks and eyes", 56, 66},
    WorkRow{Work::Sides, "sides", "Close the sides, checked against the half girths", 60, 36},
    WorkRow{Work::SideBones, "side-bones", "Put in the bones of the sides", 62, 41},
    WorkRow{Work::WaistStay, "waist-stay", "Fasten the waist stay", 64, 48},
    WorkRow{Work::Pads, "pads", "Sew in the pads", 65, 49},
    WorkRow{Work::Edges, "edges", "Bind or face the upper edges that are still open", 66, 67},
    WorkRow{Work::Trims, "trims", "Gather or pleat what is sewn on, and sew it between its marks", 68, 68},
    WorkRow{Work::Hem, "hem", "Finish the hem", 70, 70},
    WorkRow{Work::Eyelets, "eyelets", "Set eyelets or loops, thread the lace", 80, 80},
    WorkRow{Work::Modesty, "modesty", "Sew in the panel behind the lacing", 82, 82},
};
static_assert([] {  // one row for each work, in the order of the enumeration
  for (size_t i = 0; i < kWorks.size(); ++i)
    if (static_cast<size_t>(kWorks[i].work) != i) return false;
  return kWorks.size() == static_cast<size_t>(Work::Modesty) + 1;
}());
constexpr const WorkRow& workRow(Work work) { return kWorks[static_cast<size_t>(work)]; }

// A seam as it is sewn: how long, and its notches from the upper end.
struct SewnSeam {
  std::string seam;  // id; of a centre seam that of its edge
  Message name;
  double length = 0, ease = 0;  // mm; of side a, and what of it is eased or gathered in
  std::vector<SeamNotch> notches = {};
};

struct SewingStep {
  Work work{};
  Message what;
  std::vector<SewnSeam> seams = {};
};
std::vector<SewingStep> sewingOrder(const Pattern& pattern, const Block& block, const Rules& rules);

// Which seam must be sewn before which, by their places in Pattern::seams, as they enclose each other; only those of
// the shell.
std::vector<std::pair<size_t, size_t>> enclosures(const Pattern& pattern);

}  // namespace armure
