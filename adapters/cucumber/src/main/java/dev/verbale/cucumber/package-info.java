/**
 * Tells the recorder what Cucumber runs: {@link dev.verbale.cucumber.VerbalePlugin}. On the JUnit Platform and in TestNG it registers
 * itself when this artifact is on the test class path; elsewhere one line names it.
 *
 * <p>No parameter or result is null unless marked.
 */
@API(status = API.Status.STABLE, since = "0.2.0")
@NullMarked
package dev.verbale.cucumber;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
