/**
 * The page of a run: a folder with an {@code index.html} that opens from disk, from a zip or from any static host. Its
 * look and its behaviour are in {@code src/main/page}; here is what it shows, written as script files, since a page that
 * was opened from disk may load nothing else.
 *
 * <p>No parameter or result is null unless marked.
 */
@API(status = API.Status.EXPERIMENTAL, since = "0.2.0")
@NullMarked
package dev.verbale.report;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
