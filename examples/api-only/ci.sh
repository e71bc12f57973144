#!/usr/bin/env bash
# What a CI job runs. Keep target/verbale as an artifact, also where the job fails, and .verbale/history in the job's cache.
set -euo pipefail
tool=target/verbale-tool
mvn -B -q org.apache.maven.plugins:maven-dependency-plugin:3.9.0:copy -Dartifact=dev.verbale:verbale-cli:0.2.0-SNAPSHOT:jar:all -DoutputDirectory="$tool" -Dmdep.stripVersion=true
mvn -B test -Dmaven.test.failure.ignore
verbale() { java -jar "$tool/verbale-cli-all.jar" "$@"; }
verbale export --format markdown >> "${SUMMARY:-/dev/stdout}"
verbale export --format junit --output target/TEST-all.xml --overwrite
verbale gate
