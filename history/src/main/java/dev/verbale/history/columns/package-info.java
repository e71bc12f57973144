/** What a history's questions need of its digests, by columns, and kept beside them in files that may be made anew. */
@API(status = Status.INTERNAL)
@NullMarked
package dev.verbale.history.columns;

import org.apiguardian.api.API;
import org.apiguardian.api.API.Status;
import org.jspecify.annotations.NullMarked;
