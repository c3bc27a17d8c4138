// core/cutting/upper_lengths.h
//
// Shoulder and armhole as long as on the body. What a line takes in on its way up moves the panels beyond it out by
// more above than below, and the corners of a seam are set to one length; both change the edges that run across. Here
// the lengths of the outlines, every intake closed, are given back.
#pragma once

#include <optional>

#include "parts/edges/upper_outline.h"
#include "pattern/pattern.h"

namespace armure {

// Front and back shoulder as long as the mean of both outlines': the corner of shoulder and armhole moves along the
// shoulder. Before the shoulder is sewn.
void keepShoulders(Pattern& pattern, const UpperOutline& front, const UpperOutline& back);

// Each half's armhole as long as on its outline, in its hollow: all of it is made a little flatter or deeper. After the
// lines that run on across seams were drawn; they are trued again.
void keepArmholes(Pattern& pattern, const std::optional<UpperOutline>& front, const std::optional<UpperOutline>& back);

}  // namespace armure
