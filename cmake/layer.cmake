# poquito_layer(NAME DEPENDS layer... PACKAGES target... SOURCES file...)
# One folder of src/ as a static library `poquito_NAME`. A layer sees its own headers and those of the layers it names,
# and no others: each has an include root of its own that holds nothing but a link to its folder, so a wrong
# `#include "desk/..."` does not compile, and a wrong call does not link.
function(poquito_layer name)
  cmake_parse_arguments(LAYER "" "" "DEPENDS;PACKAGES;SOURCES" ${ARGN})
  set(root ${CMAKE_BINARY_DIR}/include/${name})
  file(MAKE_DIRECTORY ${root})
  file(CREATE_LINK ${CMAKE_SOURCE_DIR}/src/${name} ${root}/${name} SYMBOLIC)
  add_library(poquito_${name} STATIC ${LAYER_SOURCES})
  target_include_directories(poquito_${name} PUBLIC ${root})
  target_compile_options(poquito_${name} PRIVATE ${POQUITO_SANITIZERS})
  list(TRANSFORM LAYER_DEPENDS PREPEND poquito_)
  target_link_libraries(poquito_${name} PUBLIC ${LAYER_DEPENDS} PRIVATE ${LAYER_PACKAGES})
endfunction()
