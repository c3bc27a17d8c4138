#include "io/version.h"

namespace armure {

std::string_view programVersion() { return ARMURE_VERSION; }

}  // namespace armure
