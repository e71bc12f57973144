@echo off
rem Starts the command line on Windows; build it first: mvn install -DskipTests -pl bom,cli -am
java -jar "%~dp0..\cli\target\verbale.jar" %*
