# What Qt's own tool writes for the classes with signals: asked for header by header, without the headers that these include.
# Reading those is nearly all of its time, and what it writes is the same. Of a header without such a class it writes nothing.
#
# moc_of(TARGET HEADER…) compiles it into the target, as one source.
function(moc_of target)
  set(includes "")
  foreach(header ${ARGN})
    file(RELATIVE_PATH name ${CMAKE_SOURCE_DIR}/src ${header})
    string(REGEX REPLACE "[/.]" "_" flat ${name})
    set(made ${CMAKE_CURRENT_BINARY_DIR}/moc/${flat}.inc)
    add_custom_command(OUTPUT ${made} COMMAND Qt6::moc -nn -f ${name} ${header} -o ${made} DEPENDS ${header} VERBATIM)
    set_source_files_properties(${made} PROPERTIES GENERATED ON HEADER_FILE_ONLY ON)
    target_sources(${target} PRIVATE ${made})
    string(APPEND includes "#include \"moc/${flat}.inc\"\n")
  endforeach()
  set(all ${CMAKE_CURRENT_BINARY_DIR}/${target}_moc.cpp)
  file(GENERATE OUTPUT ${all} CONTENT "${includes}")
  target_sources(${target} PRIVATE ${all})
  target_include_directories(${target} PRIVATE ${CMAKE_CURRENT_BINARY_DIR})
  set_source_files_properties(${all} PROPERTIES SKIP_UNITY_BUILD_INCLUSION ON)
endfunction()
