/**
 * Lines, of the test itself, of loggers and of the standard streams.
 *
 * <p>No parameter or result is null unless marked. Safe from any thread. Not exported.
 */
@NullMarked
package dev.verbale.engine.log;

import org.jspecify.annotations.NullMarked;
