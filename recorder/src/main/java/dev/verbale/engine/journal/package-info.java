/**
 * The journal of this JVM while it is written: its clock, what is missing in it, what went wrong. It may vanish and be begun
 * anew, and its scopes with it.
 *
 * <p>No parameter or result is null unless marked. Safe from any thread. Not exported.
 */
@NullMarked
package dev.verbale.engine.journal;

import org.jspecify.annotations.NullMarked;
