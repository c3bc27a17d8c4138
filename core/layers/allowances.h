// core/layers/allowances.h
//
// Allowances that follow from what the pieces are cut for rather than from one edge: of a toile, and by the custom that
// says which of them are on the paper. Common practice, no source; mixing two customs is how an inch a quarter gets
// lost, so the custom is printed on every piece.
#pragma once

#include "pattern/pattern.h"
#include "rules/rules.h"

namespace armure {

// What stays on the paper of every edge's allowance, by the custom in force (allowance.custom); the rest is told to be
// added on the cloth (Edge::onCloth).
void keepCustom(Pattern& pattern, const Rules& rules);

// The allowances of a toile: wide where it may be let out, along sides, shoulders and centre.
void widenForToile(Pattern& pattern, const Rules& rules);

}  // namespace armure
