@echo off
rem Starts the command line on Windows: that of the archive, or of a clone in which mvn install -DskipTests -pl bom,cli -am built it.
setlocal
if not defined VERBALE_JAVA_OPTIONS set VERBALE_JAVA_OPTIONS=-Xmx512m -XX:+UseSerialGC
set VERBALE_JAR=%~dp0..\lib\verbale.jar
if not exist "%VERBALE_JAR%" set VERBALE_JAR=%~dp0..\cli\target\verbale.jar
java %VERBALE_JAVA_OPTIONS% -jar "%VERBALE_JAR%" %*
