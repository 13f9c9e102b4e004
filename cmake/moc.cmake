# poquito_moc(TARGET ROOT header...): what moc makes of headers named by their place under ROOT, for their sources to
# include at the end as "FOLDER/moc_NAME.moc". Not AUTOMOC: it reads what headers include, and would run for all of them
# after a change of the core.
function(poquito_moc target root)
  set(mocs)
  foreach(header IN LISTS ARGN)
    get_filename_component(folder ${header} DIRECTORY)
    get_filename_component(name ${header} NAME_WE)
    set(moc ${CMAKE_CURRENT_BINARY_DIR}/moc/${folder}/moc_${name}.moc)
    file(MAKE_DIRECTORY ${CMAKE_CURRENT_BINARY_DIR}/moc/${folder})
    add_custom_command(OUTPUT ${moc} COMMAND Qt6::moc -o ${moc} ${root}/${header} DEPENDS ${root}/${header}
      COMMENT "moc ${header}" VERBATIM)
    list(APPEND mocs ${moc})
  endforeach()
  set_source_files_properties(${mocs} PROPERTIES HEADER_FILE_ONLY ON)
  add_custom_target(${target}_moc DEPENDS ${mocs})
  target_sources(${target} PRIVATE ${mocs})
  target_include_directories(${target} SYSTEM PRIVATE ${CMAKE_CURRENT_BINARY_DIR}/moc)
endfunction()
