/** What somebody who mends a failure needs to know of it, as text. */
@API(status = API.Status.EXPERIMENTAL, since = "0.2.0")
@NullMarked
package dev.verbale.results.brief;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
