# What nearly every source of the core includes; compiled once for each of the five ways a room is built, and shared.
set(POQUITO_PCH <fmt/format.h> <algorithm> <cmath> <functional> <memory> <optional> <string> <variant> <vector>)
file(CONFIGURE OUTPUT ${CMAKE_BINARY_DIR}/pch.cpp CONTENT "")
foreach(variant "" _lightly _checked _checked_lightly _threaded)
  add_library(poquito_pch${variant} OBJECT EXCLUDE_FROM_ALL ${CMAKE_BINARY_DIR}/pch.cpp)
  target_link_libraries(poquito_pch${variant} PRIVATE fmt::fmt)
  target_precompile_headers(poquito_pch${variant} PRIVATE ${POQUITO_PCH})
endforeach()
target_compile_options(poquito_pch_lightly PRIVATE ${POQUITO_LIGHTLY})
target_compile_options(poquito_pch_checked PRIVATE ${POQUITO_SANITIZERS})
target_compile_options(poquito_pch_checked_lightly PRIVATE ${POQUITO_SANITIZERS} ${POQUITO_SANITIZED_LIGHTLY})
target_compile_options(poquito_pch_threaded PRIVATE ${POQUITO_THREAD_SANITIZER})

# poquito_room(NAME DEPENDS room... PACKAGES target... PUBLIC_PACKAGES target... OPTIONS option... SOURCES file...
#              KNOW_NO_SHOT file... [CHECKED] [LENT] [THREADED] [LIGHTLY])
# One folder of src/ as a static library `poquito_NAME`. Its headers stand in its `include/NAME`, so that a room sees
# its own and those of the rooms it names, and no others: a wrong `#include "desk/..."` does not compile, and a wrong
# call does not link. KNOW_NO_SHOT: sources that do not include the shot; a unity build keeps them apart, so that a
# change of the shot leaves them alone. LIGHTLY: optimised less, where speed is not its own; compiles sooner.
# CHECKED: built once more under sanitizers as `poquito_NAME_checked`, for tests/CMakeLists.txt to link.
# LENT: built under sanitizers for its own tests alone; what is tested above it links it as it ships.
# THREADED: once more under ThreadSanitizer as `poquito_NAME_threaded`, with the rooms below that are.
function(poquito_room name)
  cmake_parse_arguments(ROOM "CHECKED;LENT;THREADED;LIGHTLY" "" "DEPENDS;PACKAGES;PUBLIC_PACKAGES;OPTIONS;SOURCES;KNOW_NO_SHOT" ${ARGN})
  list(TRANSFORM ROOM_DEPENDS PREPEND poquito_)
  set(variants poquito_${name})
  poquito_unity_groups(shot ${ROOM_SOURCES})
  poquito_unity_groups(rest ${ROOM_KNOW_NO_SHOT})
  list(APPEND ROOM_SOURCES ${ROOM_KNOW_NO_SHOT})
  add_library(poquito_${name} STATIC ${ROOM_SOURCES})
  if(ROOM_CHECKED)
    list(APPEND variants poquito_${name}_checked)
    add_library(poquito_${name}_checked STATIC EXCLUDE_FROM_ALL ${ROOM_SOURCES})
  endif()
  if(ROOM_THREADED)
    list(APPEND variants poquito_${name}_threaded)
    add_library(poquito_${name}_threaded STATIC EXCLUDE_FROM_ALL ${ROOM_SOURCES})
  endif()
  foreach(target ${variants})
    target_include_directories(${target} PUBLIC ${CMAKE_CURRENT_SOURCE_DIR}/include)
    if(POQUITO_UNITY)
      set_target_properties(${target} PROPERTIES UNITY_BUILD ON UNITY_BUILD_MODE GROUP)
    endif()
    set(depends ${ROOM_DEPENDS})
    set(pch poquito_pch)
    if(target MATCHES "_checked$")
      target_compile_options(${target} PRIVATE ${POQUITO_SANITIZERS})
      poquito_checked(depends)
      set(pch poquito_pch_checked)
      if(ROOM_LIGHTLY)
        target_compile_options(${target} PRIVATE ${POQUITO_SANITIZED_LIGHTLY})
        set(pch poquito_pch_checked_lightly)
      endif()
    elseif(target MATCHES "_threaded$")
      target_compile_options(${target} PRIVATE ${POQUITO_THREAD_SANITIZER})
      poquito_threaded(depends)
      set(pch poquito_pch_threaded)
    elseif(ROOM_LIGHTLY)
      target_compile_options(${target} PRIVATE ${POQUITO_LIGHTLY})
      set(pch poquito_pch_lightly)
    endif()
    target_link_libraries(${target} PUBLIC ${depends} ${ROOM_PUBLIC_PACKAGES} PRIVATE fmt::fmt ${ROOM_PACKAGES})
    if(ROOM_OPTIONS AND NOT target MATCHES "_threaded$")
      target_compile_options(${target} PRIVATE ${ROOM_OPTIONS})
      target_precompile_headers(${target} PRIVATE ${POQUITO_PCH})
    else()
      target_precompile_headers(${target} REUSE_FROM ${pch})
    endif()
  endforeach()
  if(ROOM_LENT)
    poquito_checked(ROOM_DEPENDS)
    add_library(poquito_${name}_lent STATIC IMPORTED GLOBAL)
    add_dependencies(poquito_${name}_lent poquito_${name})
    set_target_properties(poquito_${name}_lent PROPERTIES
      IMPORTED_LOCATION ${CMAKE_CURRENT_BINARY_DIR}/libpoquito_${name}.a
      INTERFACE_INCLUDE_DIRECTORIES ${CMAKE_CURRENT_SOURCE_DIR}/include
      INTERFACE_LINK_LIBRARIES "${ROOM_DEPENDS};${ROOM_PUBLIC_PACKAGES};fmt::fmt;${ROOM_PACKAGES}")
  endif()
  poquito_headers(${name} ${CMAKE_CURRENT_SOURCE_DIR}/include)
endfunction()

# In a list of rooms, those under sanitizers in their place; of a room that is lent, the one that ships.
function(poquito_checked list)
  set(checked)
  foreach(room IN LISTS ${list})
    if(TARGET ${room}_lent)
      list(APPEND checked ${room}_lent)
    elseif(room MATCHES "^poquito_")
      list(APPEND checked ${room}_checked)
    else()
      list(APPEND checked ${room})
    endif()
  endforeach()
  set(${list} ${checked} PARENT_SCOPE)
endfunction()

# In a list of rooms, those that are built under ThreadSanitizer too in the place of those that are not.
function(poquito_threaded list)
  set(threaded)
  foreach(room IN LISTS ${list})
    if(TARGET ${room}_threaded)
      list(APPEND threaded ${room}_threaded)
    else()
      list(APPEND threaded ${room})
    endif()
  endforeach()
  set(${list} ${threaded} PARENT_SCOPE)
endfunction()

# Eight sources to a file.
function(poquito_unity_groups prefix)
  set(index 0)
  foreach(source IN LISTS ARGN)
    math(EXPR group "${index} / 8")
    set_source_files_properties(${source} PROPERTIES UNITY_GROUP ${prefix}${group})
    math(EXPR index "${index} + 1")
  endforeach()
endfunction()

# poquito_headers(ROOM ROOT [FOLDER]): each header of the room, which stands in ROOT/ROOM or ROOT/FOLDER, compiles alone (target `headers`): one
# that leans on whoever includes it is found here.
function(poquito_headers name root)
  set(folder ${name})
  if(ARGC GREATER 2)
    set(folder ${ARGV2})
  endif()
  file(GLOB_RECURSE headers RELATIVE ${root} CONFIGURE_DEPENDS ${root}/${folder}/*.hpp)
  foreach(header IN LISTS headers)
    set(stamp ${CMAKE_BINARY_DIR}/headers/${header}.ok)
    get_filename_component(folder ${stamp} DIRECTORY)
    file(MAKE_DIRECTORY ${folder})
    add_custom_command(OUTPUT ${stamp}
      COMMAND ${CMAKE_CXX_COMPILER} -std=c++20 -fPIC -fsyntax-only -Wall -Wextra
              "-I$<JOIN:$<TARGET_PROPERTY:poquito_${name},INCLUDE_DIRECTORIES>,;-I>"
              -include ${header} -MD -MT ${stamp} -MF ${stamp}.d -x c++ /dev/null
      COMMAND ${CMAKE_COMMAND} -E touch ${stamp}
      DEPENDS ${root}/${header}
      DEPFILE ${stamp}.d
      COMMENT "Compiling ${header} alone" COMMAND_EXPAND_LISTS VERBATIM)
    list(APPEND stamps ${stamp})
  endforeach()
  add_custom_target(headers_${name} DEPENDS ${stamps})
  add_dependencies(headers headers_${name})
endfunction()
