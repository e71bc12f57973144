/**
 * Tests and containers: their beginning, their end, what they are about, how many there were.
 *
 * <p>No parameter or result is null unless marked. Safe from any thread. Not exported.
 */
@NullMarked
package dev.verbale.engine.lifecycle;

import org.jspecify.annotations.NullMarked;
