/**
 * Settings: which there are, where they are set, and what they are set to.
 *
 * <p>No parameter or result is null unless marked. Not exported.
 */
@NullMarked
package dev.verbale.engine.settings;

import org.jspecify.annotations.NullMarked;
