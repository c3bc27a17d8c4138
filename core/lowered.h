// core/lowered.h
//
// Names as they stand inside a sentence and at its beginning.
#pragma once

#include <string>

namespace armure {

// Of the letters A to Z only, whatever the locale: the C library's own would leave the I of a Turkish machine alone.
inline std::string lowered(std::string name) {
  if (!name.empty() && name[0] >= 'A' && name[0] <= 'Z') name[0] = static_cast<char>(name[0] - 'A' + 'a');
  return name;
}

inline std::string raised(std::string name) {
  if (!name.empty() && name[0] >= 'a' && name[0] <= 'z') name[0] = static_cast<char>(name[0] - 'a' + 'A');
  return name;
}

}  // namespace armure
