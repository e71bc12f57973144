/**
 * The words that both sides speak, and that the calls of tests and adapters show: how something ended, what a step or an attachment
 * is for, what was said of a test. Immutable values, of which a later version may know more.
 *
 * <p>No parameter or result is null unless marked; every type may be shared between threads.
 */
@API(status = API.Status.STABLE, since = "0.2.0")
@NullMarked
package dev.verbale.vocabulary;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
