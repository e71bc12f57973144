/**
 * HTTP archives, HAR 1.2: the open format in which browsers and proxies hand on what they asked and were answered.
 *
 * <p>No parameter or result is null unless marked.
 *
 * @see <a href="http://www.softwareishard.com/blog/har-12-spec/">HAR 1.2</a>
 */
@API(status = API.Status.EXPERIMENTAL, since = "0.2.0")
@NullMarked
package dev.verbale.har;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
