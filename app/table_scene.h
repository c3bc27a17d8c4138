// app/table_scene.h
//
// What lies on the table, in millimetres: lines, fills and labels with what each one stands for. Built from a design,
// drawn and hit-tested by the table view; no widgets here.
#pragma once

#include <QPainterPath>
#include <QString>
#include <memory>
#include <set>
#include <vector>

#include "alter/differences.h"
#include "app/order_session.h"
#include "app/stage_table.h"
#include "prepare/arrange.h"
#include "prepare/sheets.h"

namespace armure {

enum class Ink {
  PieceFill,
  PieceFillDeep,
  IntakeFill,  // hatched
  Edge,        // sewn line of a piece or line of the block
  Fold,
  CutLine,
  Construction,  // covered parts, cut away later
  Before,        // an edge before it was balanced
  Moved,         // an arrow where it moved most
  Other,         // an edge of another version of the pattern, laid over it
  LevelLine,
  Notch,
  Tie,     // from a notch to the one it is sewn to, on a piece that lies elsewhere
  Handle,  // small square: a point with a working
  Guide,   // a point of a panel line that can be dragged across
  Dial,    // a wedge of the dial about the bust point
  Comb,    // how strongly an edge is bent
  Grain,
  PageFrame,  // a sheet of paper in the print
};

// What dragging a guide sets: the choice, and the way along which its length grows.
struct GuideHandle {
  std::string key;
  QPointF axis{1, 0};     // on the table; a mm along it makes the length a mm longer
  double mm = 0;          // now
  bool placed = false;    // by hand
  double sharePerMm = 0;  // where the rule is a share: how much of it a mm makes
};

struct SceneItem {
  Ink mark{};
  QPainterPath path;
  Selection target;  // what a click on it selects; nothing for mere drawing
  std::optional<GuideHandle> guide = {};
};

enum class LabelKind { LevelName, PieceNumber, PieceName, Note, Movement };

struct SceneLabel {
  LabelKind kind{};
  QPointF at;  // centre of the text; for level names its left end
  QString text;
  double angleRad = 0;
  QPointF pixels{};  // shift on the screen, whatever the scale
};

struct TableScene {
  std::vector<SceneItem> items;
  std::vector<SceneLabel> labels;
  QRectF bounds;            // what should be seen
  bool crowded = false;     // many narrow pieces: smaller numbers
  Arrangement arrangement;  // where the pieces lie; empty on the block

  // Where a point given in the axes of a piece lies on the table.
  QPointF place(const Design& design, const std::string& piece, Vec2 point) const;
};

// Another version of the pattern, laid on the pieces.
struct LaidVersion {
  std::shared_ptr<const Pattern> pattern;
  LaidAt at;
};

struct SceneOptions {
  bool boned = false;                    // bones, eyelets and places of straps are seen, in Apart mode
  const Sheets* sheets = nullptr;        // the pieces lie as they are printed, and the sheets are framed; in Apart mode
  bool combs = false;                    // the curvature comb of every sewn edge
  const Balanced* balanced = nullptr;    // the pieces as they would be, over what was drafted; apart and taped
  std::set<std::string> openSeams = {};  // not taped together, in Taped mode
  LengthFormat moves = {};               // in what the arrows of a movement are told
  bool guides = false;                   // the points at which panel lines can be placed, on the block
  LaidVersion version = {};              // apart and taped
  std::string_view lines = {};           // the stage whose lines can be taken hold of, in Taped mode
};

TableScene makeScene(const Design& design, TableMode mode, const SceneOptions& options = {});

}  // namespace armure
