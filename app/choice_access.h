// app/choice_access.h
//
// What a choice box tells those who do not see it. On Linux Qt gives a box's value for its name; with this, a screen
// reader says what is chosen there and then what.
#pragma once

namespace armure {

// For all boxes of the program, from now on; calling it again does nothing.
void nameChoiceBoxes();

}  // namespace armure
