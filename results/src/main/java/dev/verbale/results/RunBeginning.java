package dev.verbale.results;

import java.nio.file.Path;
import java.time.Instant;

/**
 * What is known of a run before its tests are read.
 *
 * @param name of its folder
 * @param folder where it is read from
 * @param started the first thing known of it, as its journals begin
 * @param ownFrames which frames of a stack trace are the suite's own
 * @since 0.2.0
 */
public record RunBeginning(String name, Path folder, Instant started, OwnFrames ownFrames) {}
