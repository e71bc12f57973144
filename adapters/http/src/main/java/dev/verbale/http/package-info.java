/**
 * Exchanges of the JDK's {@link java.net.http.HttpClient}.
 *
 * <p>No parameter or result is null unless marked.
 */
@API(status = API.Status.STABLE, since = "0.2.0")
@NullMarked
package dev.verbale.http;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
