/**
 * Videos of what a browser or a screen shows: frames with their times, kept where a test fails and thrown away where it passes.
 *
 * <p>No parameter or result is null unless marked.
 */
@API(status = API.Status.STABLE, since = "0.2.0")
@NullMarked
package dev.verbale.video;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
