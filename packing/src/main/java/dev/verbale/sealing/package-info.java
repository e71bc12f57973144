/**
 * What the files of a run were, signed where somebody has a key, and what is different since: in the forms that {@code sha256sum} and {@code
 * ssh-keygen} read.
 *
 * <p>No parameter or result is null unless marked.
 */
@API(status = API.Status.STABLE, since = "0.2.0")
@NullMarked
package dev.verbale.sealing;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
