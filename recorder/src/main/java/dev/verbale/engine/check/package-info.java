/**
 * Checks: what was checked while the test went on, and what of it failed.
 *
 * <p>No parameter or result is null unless marked. Safe from any thread. Not exported.
 */
@NullMarked
package dev.verbale.engine.check;

import org.jspecify.annotations.NullMarked;
