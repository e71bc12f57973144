/**
 * Where a line belongs: the run, its containers, tests and steps, and which of them is current on a thread. Lowest part of the
 * engine; it writes nothing.
 *
 * <p>No parameter or result is null unless marked. Not exported.
 */
@NullMarked
package dev.verbale.engine.scope;

import org.jspecify.annotations.NullMarked;
