// core/balance/layers.h
//
// Layers that lie on the shell (linings and pads of cups), once the shell has been balanced: the smallest change of
// their pieces that makes every one of their lines as long as the shell's it lies on, and their own seams fit. It is
// the problem of problem.h with lengths given instead of girths; the lines they do not share with the shell give way
// too.
#pragma once

#include "pieces/pattern.h"

namespace armure {

// Fits the pieces of the layers that `balanced.layerLines` names; `drafted` is the pattern as it was. A layer that
// cannot be fitted stays as it is, and the sheet says by how much it differs.
void fitLayers(const Pattern& drafted, Pattern& balanced);

}  // namespace armure
