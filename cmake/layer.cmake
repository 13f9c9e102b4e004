# poquito_layer(NAME DEPENDS layer... PACKAGES target... PUBLIC_PACKAGES target... OPTIONS option... SOURCES file...
#               [CHECKED])
# One folder of src/ as a static library `poquito_NAME`. A layer sees its own headers and those of the layers it names,
# and no others: each has an include root of its own that holds nothing but a link to its folder, so a wrong
# `#include "desk/..."` does not compile, and a wrong call does not link. CHECKED: built once more under sanitizers as
# `poquito_NAME_checked`, for tests/CMakeLists.txt to link.
function(poquito_layer name)
  cmake_parse_arguments(LAYER "CHECKED" "" "DEPENDS;PACKAGES;PUBLIC_PACKAGES;OPTIONS;SOURCES" ${ARGN})
  set(root ${CMAKE_BINARY_DIR}/include/${name})
  file(MAKE_DIRECTORY ${root})
  file(CREATE_LINK ${CMAKE_SOURCE_DIR}/src/${name} ${root}/${name} SYMBOLIC)
  list(TRANSFORM LAYER_DEPENDS PREPEND poquito_)
  set(variants poquito_${name})
  add_library(poquito_${name} STATIC ${LAYER_SOURCES})
  if(LAYER_CHECKED)
    list(APPEND variants poquito_${name}_checked)
    add_library(poquito_${name}_checked STATIC EXCLUDE_FROM_ALL ${LAYER_SOURCES})
  endif()
  foreach(target ${variants})
    target_include_directories(${target} PUBLIC ${root})
    target_compile_options(${target} PRIVATE ${LAYER_OPTIONS})
    set(depends ${LAYER_DEPENDS})
    if(target MATCHES "_checked$")
      target_compile_options(${target} PRIVATE ${POQUITO_SANITIZERS})
      list(TRANSFORM depends APPEND _checked)
    endif()
    target_link_libraries(${target} PUBLIC ${depends} ${LAYER_PUBLIC_PACKAGES} PRIVATE ${LAYER_PACKAGES})
  endforeach()

  # Each header compiles alone (target `headers`): one that leans on whoever includes it is found here.
  file(GLOB_RECURSE headers RELATIVE ${CMAKE_SOURCE_DIR}/src CONFIGURE_DEPENDS ${CMAKE_SOURCE_DIR}/src/${name}/*.hpp)
  foreach(header IN LISTS headers)
    set(stamp ${CMAKE_BINARY_DIR}/headers/${header}.ok)
    get_filename_component(folder ${stamp} DIRECTORY)
    file(MAKE_DIRECTORY ${folder})
    add_custom_command(OUTPUT ${stamp}
      COMMAND ${CMAKE_CXX_COMPILER} -std=c++20 -fPIC -fsyntax-only -Wall -Wextra
              "-I$<JOIN:$<TARGET_PROPERTY:poquito_${name},INCLUDE_DIRECTORIES>,;-I>"
              -include ${header} -MD -MT ${stamp} -MF ${stamp}.d -x c++ /dev/null
      COMMAND ${CMAKE_COMMAND} -E touch ${stamp}
      DEPENDS ${CMAKE_SOURCE_DIR}/src/${header}
      DEPFILE ${stamp}.d
      COMMENT "Compiling ${header} alone" COMMAND_EXPAND_LISTS VERBATIM)
    list(APPEND stamps ${stamp})
  endforeach()
  add_custom_target(headers_${name} DEPENDS ${stamps})
  add_dependencies(headers headers_${name})
endfunction()
