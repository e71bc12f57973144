/** What changed since a commit, and which tests that can affect: {@link dev.verbale.changes.AffectedTests}. */
@API(status = API.Status.EXPERIMENTAL, since = "0.2.0")
@NullMarked
package dev.verbale.changes;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
