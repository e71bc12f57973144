/**
 * What happened in a run, as immutable values. Nothing here reads a clock, opens a file or starts a thread.
 *
 * <p>Every event has {@code at}: microseconds since the {@link dev.verbale.event.JournalOpened} of its journal, from a
 * monotonic clock, so that a step of the system's clock bends no duration. Containers, tests and steps have an
 * {@code id}, a positive number unique in its journal; {@code in} is the id of what an event belongs to, and 0 is the
 * run itself.
 *
 * <p>No parameter or result is null unless marked; every type may be shared between threads.
 */
@API(status = API.Status.EXPERIMENTAL, since = "0.2.0")
@NullMarked
package dev.verbale.event;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
