/**
 * Texts as a journal may hold them: named, filled in, masked before they are cut.
 *
 * <p>No parameter or result is null unless marked. Safe from any thread. Not exported.
 */
@NullMarked
package dev.verbale.engine.text;

import org.jspecify.annotations.NullMarked;
