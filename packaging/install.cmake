# What is installed, and where: the programs, and what makes them at home on a desktop that follows freedesktop.org.
include(GNUInstallDirs)

install(TARGETS armure armure-cli armure-tape RUNTIME)

install(DIRECTORY ${PROJECT_SOURCE_DIR}/demo ${PROJECT_SOURCE_DIR}/styles
        DESTINATION ${CMAKE_INSTALL_DATADIR}/armure
        PATTERN make EXCLUDE)
install(FILES packaging/desktop/armure.desktop DESTINATION ${CMAKE_INSTALL_DATADIR}/applications)
install(FILES packaging/desktop/local.armure.Armure.metainfo.xml DESTINATION ${CMAKE_INSTALL_DATADIR}/metainfo)
install(FILES packaging/desktop/armure.xml DESTINATION ${CMAKE_INSTALL_DATADIR}/mime/packages)
install(FILES packaging/desktop/armure.svg DESTINATION ${CMAKE_INSTALL_DATADIR}/icons/hicolor/scalable/apps)
install(FILES packaging/desktop/armure-48.png DESTINATION ${CMAKE_INSTALL_DATADIR}/icons/hicolor/48x48/apps
        RENAME armure.png)
install(FILES packaging/man/armure.1 packaging/man/armure-cli.1 packaging/man/armure-tape.1
        DESTINATION ${CMAKE_INSTALL_MANDIR}/man1)
install(FILES packaging/completion/armure packaging/completion/armure-cli
        DESTINATION ${CMAKE_INSTALL_DATADIR}/bash-completion/completions)
