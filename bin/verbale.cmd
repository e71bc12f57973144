@echo off
rem Starts the command line on Windows; build it first: mvn install -DskipTests -pl bom,cli -am
if not defined VERBALE_JAVA_OPTIONS set VERBALE_JAVA_OPTIONS=-Xmx512m
java %VERBALE_JAVA_OPTIONS% -jar "%~dp0..\cli\target\verbale.jar" %*
