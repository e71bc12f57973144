/**
 * Tells the recorder what TestNG runs. The listener is found by itself when this artifact is on the test class path; nobody needs
 * to name it.
 *
 * <p>No parameter or result is null unless marked.
 */
@API(status = API.Status.STABLE, since = "0.2.0")
@NullMarked
package dev.verbale.testng;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
