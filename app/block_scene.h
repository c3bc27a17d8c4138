// app/block_scene.h
//
// The table's drawing of the block: both halves as drafted, intakes still in them, with level lines, handles and
// guides.
#pragma once

#include "app/table_scene.h"

namespace armure {

TableScene blockScene(const Design& design, const SceneOptions& options);

}  // namespace armure
