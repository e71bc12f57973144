/**
 * Steps out of annotated methods of page objects and clients, without touching the code that calls them.
 *
 * <p>No parameter or result is null unless marked.
 */
@API(status = API.Status.STABLE, since = "0.2.0")
@NullMarked
package dev.verbale.steps;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
