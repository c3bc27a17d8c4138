// app/line_marks.h
//
// What is drawn over the taped figure so that a maker can take hold of a line: the handles of cups and style lines with
// their lengths, and the dial about the bust point.
#pragma once

#include "app/table_scene.h"

namespace armure {

// Adds them for the stage options.lines to a scene whose pieces lie as scene.arrangement says.
void addLineMarks(TableScene& scene, const Design& design, const SceneOptions& options);

}  // namespace armure
