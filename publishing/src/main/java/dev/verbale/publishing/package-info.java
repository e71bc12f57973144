/**
 * A static site of runs: an index without scripts, a page for each run, and addresses that stay good. In a folder, or a bucket of a storage that
 * speaks S3.
 *
 * <p>No parameter or result is null unless marked.
 */
@API(status = API.Status.STABLE, since = "0.2.0")
@NullMarked
package dev.verbale.publishing;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
