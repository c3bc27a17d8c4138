#include "garment/line_handles.h"

#include "parts/band/handles.h"
#include "parts/bones/handles.h"
#include "parts/cups/handles.h"
#include "parts/edges/handles.h"
#include "parts/inserts/handles.h"
#include "parts/skirt/handles.h"
#include "parts/trims/handles.h"
#include "parts/yoke/handles.h"

namespace armure {

std::vector<LineHandle> lineHandles(const Pattern& pattern, const Rules& rules, std::string_view stage) {
  Handles handles(pattern, rules, stage);
  // From the shoulder down: where two parts name one place, the first has it.
  for (const auto add : {addDialHandles, addCoverHandles, addYokeHandles, addBandHandles, addInsertHandles,
                         addSkirtHandles, addEdgeHandles, addCupHandles, addBoneHandles, addTrimHandles})
    add(handles);
  return std::move(handles).take();
}

}  // namespace armure
