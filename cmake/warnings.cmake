# Compiler settings every target of the project shares: warnings, which are errors where the program is developed, and
# sanitizers on request.
option(ARMURE_STRICT "Warnings are errors" OFF)
if(ARMURE_STRICT)
  add_compile_options($<$<CXX_COMPILER_ID:GNU>:-Werror>)
endif()
add_library(armure_options INTERFACE)
target_compile_options(armure_options INTERFACE -Wall -Wextra -Wpedantic -Wshadow -Wnon-virtual-dtor)
# g++ 12 reports overlapping copies inside std::string where there are none (GCC bug 105651).
target_compile_options(armure_options INTERFACE $<$<CXX_COMPILER_ID:GNU>:-Wno-restrict>)
# No part of the program reads errno after a square root; without it g++ takes several at a time.
target_compile_options(armure_options INTERFACE -fno-math-errno)
# g++ 12 sees uninitialised members in a std::optional that is empty, and in std::function (GCC bug 80635).
target_compile_options(armure_options INTERFACE $<$<CXX_COMPILER_ID:GNU>:-Wno-maybe-uninitialized>)
if(ARMURE_SANITIZE)
  # The address sanitizer finds null and strayed pointers and ends of objects as well, and no part of the program casts
  # between types of pointers: looking twice doubles the time to compile.
  target_compile_options(armure_options INTERFACE -fsanitize=address,undefined
                                           -fno-sanitize=null,object-size,alignment,vptr,pointer-overflow
                                           -fno-sanitize-recover=all -fno-omit-frame-pointer)
  target_link_options(armure_options INTERFACE -fsanitize=address,undefined)
endif()

# The tests themselves are not instrumented, only what they test: it takes a third of the time to build them.
add_library(armure_test_options INTERFACE)
target_compile_options(armure_test_options INTERFACE -Wall -Wextra -Wpedantic -Wshadow -Wnon-virtual-dtor -Wno-restrict)
if(ARMURE_SANITIZE)
  target_link_options(armure_test_options INTERFACE -fsanitize=address,undefined)
  # Eigen hands out memory in another way under the address sanitizer; both sides must do it alike.
  target_compile_definitions(armure_test_options INTERFACE EIGEN_MALLOC_ALREADY_ALIGNED=0)
endif()
