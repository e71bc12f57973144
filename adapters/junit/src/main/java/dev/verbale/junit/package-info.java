/**
 * Tells the recorder what the JUnit Platform runs. The listeners are found by themselves when this artifact is on the
 * test class path; {@link dev.verbale.junit.VerbaleExtension} is one line more, for fixtures and for evidence that is
 * taken before teardown.
 *
 * <p>No parameter or result is null unless marked.
 */
@API(status = API.Status.STABLE, since = "0.2.0")
@NullMarked
package dev.verbale.junit;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
