/**
 * What adapters call: the one who knows a test framework says here when tests begin and end. A test's author needs
 * {@link dev.verbale.Verbale} only.
 *
 * <p>No parameter or result is null unless marked. Everything here is safe from any thread and never throws.
 */
@NullMarked
package dev.verbale.recorder;

import org.jspecify.annotations.NullMarked;
