/**
 * What is captured at the moment when something fails: sources are asked, once for one failure.
 *
 * <p>No parameter or result is null unless marked. Safe from any thread. Not exported.
 */
@NullMarked
package dev.verbale.engine.evidence;

import org.jspecify.annotations.NullMarked;
