/**
 * A run as one file: a bag (BagIt, RFC 8493) in a ZIP archive, whole or without some of what was recorded, and read without unpacking it.
 *
 * <p>No parameter or result is null unless marked.
 */
@API(status = API.Status.STABLE, since = "0.2.0")
@NullMarked
package dev.verbale.packing;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
