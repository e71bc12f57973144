/**
 * The run and its folder: found or made, with what is known of it before it begins.
 *
 * <p>No parameter or result is null unless marked. Not exported.
 */
@NullMarked
package dev.verbale.engine.run;

import org.jspecify.annotations.NullMarked;
