/**
 * Answers that are checked against a JSON Schema or an OpenAPI document.
 *
 * <p>No parameter or result is null unless marked.
 */
@API(status = API.Status.STABLE, since = "0.2.0")
@NullMarked
package dev.verbale.contract;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
