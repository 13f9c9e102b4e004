# Fails when HEADER, of a room under ROOT where that is given, can be included with the include folders INCLUDES.
# A header that is nowhere would be seen by nobody.
file(GLOB there ${ROOT}/*/include/${HEADER} ${ROOT}/desk/*/include/${HEADER})
if(ROOT AND NOT there)
  message(FATAL_ERROR "${HEADER} is no header of any room")
endif()
set(flags)
foreach(folder IN LISTS INCLUDES)
  list(APPEND flags -I${folder})
endforeach()
# A file of its own each: the tests run side by side.
string(MD5 name "${HEADER} ${INCLUDES}")
set(source ${CMAKE_CURRENT_BINARY_DIR}/must_not_include_${name}.cpp)
file(WRITE ${source} "#include \"${HEADER}\"\n")
execute_process(COMMAND ${COMPILER} -std=c++20 -fsyntax-only ${flags} ${source}
                RESULT_VARIABLE result ERROR_VARIABLE errors)
if(result EQUAL 0 OR NOT errors MATCHES "No such file")
  message(FATAL_ERROR "${HEADER} can be reached through ${INCLUDES}: ${errors}")
endif()
file(REMOVE ${source})
