/**
 * Programs that measure. Each says on its standard output what it measured; {@code bin/bench} starts them, and
 * {@code docs/performance.md} holds what came out and how.
 */
@NullMarked
package dev.verbale.benchmarks;

import org.jspecify.annotations.NullMarked;
