/**
 * Exchanges under way, and their bodies, made fit for the journal.
 *
 * <p>No parameter or result is null unless marked. Not exported.
 */
@NullMarked
package dev.verbale.engine.exchange;

import org.jspecify.annotations.NullMarked;
