// core/balance/moved_pattern.h
//
// The pieces once balanced: sewn edges moved by the unknowns of a BalanceProblem, with all that lies on them and all
// that runs on from them; and the maker's plain alternative, walking a seam and trimming what is left over.
#pragma once

#include <Eigen/Core>

#include "balance/problem.h"

namespace armure {

// Notches and level marks stay at their joints. Top edge and hem follow the corners. Folds stay straight. The eases the
// choices ask for are planned in the seams.
Pattern movedPattern(const Pattern& drafted, const BalanceProblem& problem, const Eigen::VectorXd& x);

// Walks the seam from the end that is not trimmed, marks the notches of side b where those of side a lie, and cuts what
// is left over off the longer side. A level that would be cut off is not measured any more. The cut is added to
// Pattern::trims.
void trimSeam(Pattern& pattern, size_t seam, bool atTop);

}  // namespace armure
