/**
 * The Maven plugin: one run for all forks, modules and test plugins of a build, and its page at the end, also where tests failed.
 *
 * <p>No parameter or result is null unless marked.
 */
@API(status = API.Status.STABLE, since = "0.2.0")
@NullMarked
package dev.verbale.maven;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
