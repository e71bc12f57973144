/**
 * JSON as all of Verbale writes and reads it: bounded, without surprises, and cheap to load. Texts and moments in it are of
 * one form each.
 *
 * <p>No parameter or result is null unless marked. Safe from any thread, but for the generators and parsers themselves.
 */
@API(status = API.Status.INTERNAL, since = "0.2.0")
@NullMarked
package dev.verbale.json;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
