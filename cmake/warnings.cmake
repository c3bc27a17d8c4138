# Compiler settings every target of the project shares: warnings are errors, sanitizers on request.
add_library(armure_options INTERFACE)
target_compile_options(armure_options INTERFACE -Wall -Wextra -Wpedantic -Wshadow -Wnon-virtual-dtor -Werror)
# g++ 12 reports overlapping copies inside std::string where there are none (GCC bug 105651).
target_compile_options(armure_options INTERFACE -Wno-restrict)
if(ARMURE_SANITIZE)
  # With sanitizers g++ 12 also sees uninitialised members in std::function where there are none (GCC bug 80635).
  target_compile_options(armure_options INTERFACE -Wno-maybe-uninitialized)
  target_compile_options(armure_options INTERFACE -fsanitize=address,undefined -fno-sanitize-recover=all -fno-omit-frame-pointer)
  target_link_options(armure_options INTERFACE -fsanitize=address,undefined)
endif()
