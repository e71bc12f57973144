/**
 * What all of the engine that records one kind of event is made of.
 *
 * <p>No parameter or result is null unless marked. Safe from any thread. Not exported.
 */
@NullMarked
package dev.verbale.engine.parts;

import org.jspecify.annotations.NullMarked;
