/**
 * The engine behind {@link dev.verbale.Recorder}: here its parts are put together, a run is opened, summed up and ended. The parts
 * are in the packages below, each for one thing, and none of them knows this one.
 *
 * <p>No parameter or result is null unless marked. Not exported.
 */
@NullMarked
package dev.verbale.engine;

import org.jspecify.annotations.NullMarked;
