/**
 * Finds secrets in text and masks them, before a byte is written. Pure computation: nothing here knows of journals,
 * threads or files.
 *
 * <p>No parameter or result is null unless marked; every type may be shared between threads.
 */
@API(status = Status.INTERNAL)
@NullMarked
package dev.verbale.secrets;

import org.apiguardian.api.API;
import org.apiguardian.api.API.Status;
import org.jspecify.annotations.NullMarked;
