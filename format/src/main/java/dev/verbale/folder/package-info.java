/**
 * Where the things of a run lie on disk, and what they are called. Only places and names: events are in
 * {@code dev.verbale.journal}.
 *
 * <p>No parameter or result is null unless marked; every type may be shared between threads.
 */
@API(status = API.Status.EXPERIMENTAL, since = "0.2.0")
@NullMarked
package dev.verbale.folder;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
