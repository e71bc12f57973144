/**
 * Tells the recorder what JUnit 4 runs: {@link dev.verbale.junit4.VerbaleRunListener}, which a build tool is told of in one line, and
 * {@link dev.verbale.junit4.VerbaleRule}, one line in a class. On the JUnit Platform, where {@code verbale-junit} hears the same
 * tests, the listener is silent.
 *
 * <p>No parameter or result is null unless marked.
 */
@API(status = API.Status.STABLE, since = "0.2.0")
@NullMarked
package dev.verbale.junit4;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
