/**
 * Exchanges of Apache HttpClient 5.
 *
 * <p>No parameter or result is null unless marked.
 */
@API(status = API.Status.STABLE, since = "0.2.0")
@NullMarked
package dev.verbale.httpclient5;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
