// app/stage_table.h
//
// The stages of the work, one row each: the name, and what the window shows while one is at it. To add one, add an
// enumerator and a row; its tray follows from the rules that name the stage.
#pragma once

#include <array>
#include <string_view>

namespace armure {

enum class Stage { Client, Block, Shape, Cups, Lines, Balance, Prepare, Fit };
inline constexpr int kStages = 8;

enum class TableMode { OnTheBlock, Apart, Taped };

// What stands below the table.
enum class Strip { None, Rails, Walker };

struct StageInfo {
  const char* name;
  TableMode mode;  // how the table lies at first
  Strip strip = Strip::None;
  bool guides = false;    // of the panel lines, to be dragged
  bool lines = false;     // handles of this stage's lines, on the pieces
  bool moves = false;     // what balancing moved, as arrows
  bool paper = false;     // the sheets the pieces go on
  bool versions = false;  // another version of the pieces, laid over them
};

inline constexpr std::array<StageInfo, kStages> kStageTable{{
    {.name = "Client", .mode = TableMode::OnTheBlock},
    {.name = "Block", .mode = TableMode::OnTheBlock},
    {.name = "Shape", .mode = TableMode::OnTheBlock, .strip = Strip::Rails, .guides = true},
    {.name = "Cups", .mode = TableMode::Taped, .lines = true},
    {.name = "Lines", .mode = TableMode::Taped, .lines = true},
    {.name = "Balance", .mode = TableMode::Apart, .strip = Strip::Walker, .moves = true},
    {.name = "Prepare", .mode = TableMode::Apart, .lines = true, .paper = true},
    {.name = "Fit", .mode = TableMode::Apart, .versions = true},
}};

constexpr const StageInfo& infoOf(Stage stage) { return kStageTable[static_cast<size_t>(stage)]; }
constexpr const char* stageName(Stage stage) { return infoOf(stage).name; }

}  // namespace armure
