// core/recalc/job_sheet.h
//
// The job sheet: everything one needs beside the pieces, on paper. Measures as they were used, what was chosen other
// than in the style, the half girths to check on the cloth, what the balance sheet found, cut list, bones, notions, the
// order of sewing, and the cautions.
#pragma once

#include "order/order.h"
#include "prepare/document.h"
#include "recalc/recalc.h"

namespace armure {

// `design` must be that of `order`. Some drafts to find what has no effect: not for every step of a drag.
Document jobSheet(const Order& order, const Design& design);

// The block of the order, to draw by hand.
Document byHandSheet(const Order& order, const Design& design);

}  // namespace armure
