# Writes the styles of the folder styles/ as a table of C++, so that the core needs no files when it runs.
#   armure_embed_styles(FOLDER OUT)
function(armure_embed_styles folder out)
  file(GLOB files CONFIGURE_DEPENDS ${folder}/*.json)
  list(SORT files)
  set(choices "")
  set(rows "")
  set(number 0)
  foreach(file IN LISTS files)
    set_property(DIRECTORY APPEND PROPERTY CMAKE_CONFIGURE_DEPENDS ${file})
    file(READ ${file} text)
    foreach(member id name description)
      string(JSON ${member} GET "${text}" ${member})
    endforeach()
    string(JSON count LENGTH "${text}" choices)
    math(EXPR last "${count} - 1")
    set(pairs "")
    foreach(i RANGE ${last})
      string(JSON key MEMBER "${text}" choices ${i})
      string(JSON value GET "${text}" choices ${key})
      string(APPEND pairs "{\"${key}\", \"${value}\"}, ")
    endforeach()
    string(APPEND choices "constexpr std::array<PresetChoice, ${count}> kChoices${number}{{${pairs}}};\n")
    string(APPEND rows "    {\"${id}\", \"${name}\", \"${description}\", kChoices${number}},\n")
    math(EXPR number "${number} + 1")
  endforeach()
  file(CONFIGURE OUTPUT ${out} @ONLY CONTENT
"// Made from the files in styles/ by core/rules/embed_styles.cmake.
#include <array>

#include \"rules/presets.h\"

namespace armure {
namespace {

@choices@
constexpr std::array<Preset, @number@> kStyles{{
@rows@}};

}  // namespace

std::span<const Preset> styleTable() { return kStyles; }

}  // namespace armure
")
endfunction()
