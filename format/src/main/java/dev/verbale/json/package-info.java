/**
 * JSON as all of Verbale writes and reads it: bounded, without surprises, and cheap to load. Texts and moments in it are of
 * one form each.
 *
 * <p>No parameter or result is null unless marked. Safe from any thread, but for the generators and parsers themselves.
 */
@NullMarked
package dev.verbale.json;

import org.jspecify.annotations.NullMarked;
