// core/recalc/recalc.h
//
// Everything that follows from an order, in one go: body, rules, block, pieces, outlines to cut, balance sheet. This is
// what runs whenever a number changes.
//
// A pattern has one of two sources: drafted for the client, or drafted as a base and recalculated for her (alter/).
// Alterations lie between source and balancing; everything from there on works alike with either.
#pragma once

#include <memory>
#include <optional>
#include <vector>

#include "alter/alter.h"
#include "alter/shift_table.h"
#include "balance/balance.h"
#include "draft/block.h"
#include "garment/garment.h"
#include "garment/sketch.h"
#include "measure/measure_table.h"
#include "measure/plausibility.h"
#include "order/order.h"
#include "pattern/pattern.h"
#include "prepare/cautions.h"
#include "sheet/sheet.h"

namespace armure {

// A pattern recalculated from a base: the table of shifts, and what comes of it.
struct Recalculated {
  ShiftTable table;
  Alteration alteration;
  Pattern base;         // the shell it was done to
  bool traced = false;  // which was read from a drawing, not drafted
};

struct Design {
  Body body;
  Rules rules;
  Block block;  // of the base, where the order has one
  std::optional<Recalculated> fromBase;
  std::vector<IdleShift> idleShifts;  // of the order's alterations: what the pattern has nothing for
  std::vector<Working> altered;       // "girth.waist": what the finished girth of a level became by them
  Pattern pattern;                    // as it will be cut: as drafted, or balanced
  std::optional<Balanced> balanced;   // where the order keeps the balanced pieces: what moved; its pattern is `pattern`
  std::optional<Pattern> drafted;     // and the shell as it was before, with nothing on it
  LayerSources sources;               // what the layers on the shell are traced from
  std::vector<Polyline> cutOutlines;  // in the order of pattern.pieces
  Sheet sheet;
  std::vector<Question> questions;
  // Where an alteration is for one side of the body: the left half and the right one, each as a pattern that stands for
  // both (operations/both_sides.h); this is the whole garment then. Their sheet is the whole's. Empty in the halves.
  std::vector<std::shared_ptr<const Design>> halves = {};
  std::vector<PatternLevel> wholeLevels = {};  // in the halves: the levels of the whole

  ReductionClass reduction() const;
  bool isTraced() const { return fromBase && fromBase->traced; }
  // The design as one side of the body has it: itself where both are alike.
  const Design& half(BodySide which) const {
    return halves.empty() ? *this : *halves[which == BodySide::Right ? 1 : 0];
  }
  // A level as the pattern has it, altered or not; nullptr where it has none.
  const PatternLevel* level(std::string_view id) const;
  // The working of a key ("front.waist.side", "measure.bust", ...), or nullptr.
  const Working* working(std::string_view key) const;
};

// Whether the order's garment cannot be drafted without this measure: a bodice that ends at the waist needs no hip.
bool needs(const Order& order, const MeasureInfo& measure);

// Fails with the first thing that keeps the pattern from being drafted. Never throws for what an order can contain once
// its choices have passed checkChoice.
// `before` is the design this one follows on: balancing starts from where it ended.
Result<Design> recalc(const Order& order, const Design* before = nullptr);

// What balancing would make of an order that keeps its pieces as drafted: the shell balanced, and all that lies on it
// made anew from that.
Balanced proposal(const Design& design);

// What stands on every piece of the order it belongs to: name and client, date and version of the pieces.
std::vector<Message> orderLines(const Order& order, const Design& design);

// Only the small drawing of what the order makes; fails like recalc.
Result<GarmentSketch> sketchOf(const Order& order);

}  // namespace armure
