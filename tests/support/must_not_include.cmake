# Fails when HEADER can be included with the include folders INCLUDES.
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
