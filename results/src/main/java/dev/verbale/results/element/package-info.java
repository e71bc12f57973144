/** What a page had in the place of an element that a test did not find. */
@API(status = API.Status.EXPERIMENTAL, since = "0.2.0")
@NullMarked
package dev.verbale.results.element;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
