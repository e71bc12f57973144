/**
 * Tells the recorder what the JUnit Platform runs. The listeners are found by themselves when this artifact is on the
 * test class path; {@link dev.verbale.junit.VerbaleExtension} is one line more, for fixtures and for evidence that is
 * taken before teardown.
 *
 * <p>No parameter or result is null unless marked.
 */
@NullMarked
package dev.verbale.junit;

import org.jspecify.annotations.NullMarked;
