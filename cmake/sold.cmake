# poquito_sold(OUT): the tubes and close-up lenses of data/catalogue.json as a C++ source, for rooms that read no files.
function(poquito_sold out)
  set(catalogue ${CMAKE_SOURCE_DIR}/data/catalogue.json)
  set_property(DIRECTORY APPEND PROPERTY CMAKE_CONFIGURE_DEPENDS ${catalogue})
  file(READ ${catalogue} text)
  # A member of a piece; where it is not written, what the record takes for it.
  macro(member name fallback)
    string(JSON ${name} ERROR_VARIABLE missing GET ${text} kit ${list} ${index} ${name})
    if(missing)
      set(${name} ${fallback})
    elseif(${name} STREQUAL ON OR ${name} STREQUAL OFF)
      string(REPLACE ON true ${name} ${${name}})
      string(REPLACE OFF false ${name} ${${name}})
    endif()
  endmacro()
  foreach(list tubes closeup_lenses)
    string(JSON count LENGTH ${text} kit ${list})
    math(EXPR last "${count} - 1")
    set(${list}_rows "")
    foreach(index RANGE ${last})
      string(JSON id GET ${text} kit ${list} ${index} id)
      string(JSON name GET ${text} kit ${list} ${index} name)
      if(list STREQUAL tubes)
        member(length_mm 12)
        member(contacts true)
        string(APPEND tubes_rows "        {.id = \"${id}\", .name = \"${name}\", .length = ${length_mm}, .contacts = ${contacts}, .unknown = {}},\n")
      else()
        member(power_dpt 2)
        member(thread_mm 52)
        member(achromat false)
        string(APPEND closeup_lenses_rows "        {.id = \"${id}\", .name = \"${name}\", .power_dpt = ${power_dpt}, .thread = ${thread_mm}, .achromat = ${achromat}, .unknown = {}},\n")
      endif()
    endforeach()
  endforeach()
  file(CONFIGURE OUTPUT ${out} CONTENT [[// Made of data/catalogue.json by cmake/sold.cmake.
#include "sold.hpp"

namespace poquito::search {

const std::vector<gear::Tube>& sold_tubes() {
    static const std::vector<gear::Tube> all = {
@tubes_rows@    };
    return all;
}

const std::vector<gear::CloseupLens>& sold_closeup_lenses() {
    static const std::vector<gear::CloseupLens> all = {
@closeup_lenses_rows@    };
    return all;
}

}  // namespace poquito::search
]] @ONLY)
endfunction()
