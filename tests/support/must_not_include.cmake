# Fails when HEADER can be included with the include folders INCLUDES.
set(flags)
foreach(folder IN LISTS INCLUDES)
  list(APPEND flags -I${folder})
endforeach()
file(WRITE ${CMAKE_CURRENT_BINARY_DIR}/must_not_include.cpp "#include \"${HEADER}\"\n")
execute_process(COMMAND ${COMPILER} -std=c++20 -fsyntax-only ${flags} ${CMAKE_CURRENT_BINARY_DIR}/must_not_include.cpp
                RESULT_VARIABLE result ERROR_VARIABLE errors)
if(result EQUAL 0 OR NOT errors MATCHES "No such file")
  message(FATAL_ERROR "${HEADER} can be reached through ${INCLUDES}: ${errors}")
endif()
