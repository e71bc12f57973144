/**
 * The rules of a team, in one file of its repository: which failures are whose, and when a build is to fail. {@code docs/rules.md}
 * describes the file.
 *
 * <p>No parameter or result is null unless marked; every type is an immutable value.
 */
@NullMarked
@API(status = API.Status.EXPERIMENTAL, since = "0.2.0")
package dev.verbale.rules;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
