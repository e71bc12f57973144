/**
 * Steps that have begun, and how they end.
 *
 * <p>No parameter or result is null unless marked. Safe from any thread. Not exported.
 */
@NullMarked
package dev.verbale.engine.step;

import org.jspecify.annotations.NullMarked;
