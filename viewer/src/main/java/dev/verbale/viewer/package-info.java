/**
 * The viewer: a server on one machine that lists the runs of a folder and shows each as its page, live while it goes. It only reads
 * what is in that folder; pages are made in a folder of its own, which goes when it ends.
 *
 * <p>No parameter or result is null unless marked.
 */
@API(status = API.Status.EXPERIMENTAL, since = "0.2.0")
@NullMarked
package dev.verbale.viewer;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
